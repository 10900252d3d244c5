import { NavLink, Outlet } from 'react-router';
import { TabbedPage, Tabs } from '../ui/Tabs.tsx';

/** The devices that ship as stand-ins. */
export function DevicesPage() {
  return (
    <TabbedPage>
      <Tabs aria-label="Devices">
        <NavLink to="/devices/printer">Label printer</NavLink>
        <NavLink to="/devices/scanner">Scanner</NavLink>
        <NavLink to="/devices/scale">Scale</NavLink>
        <NavLink to="/devices/mailbox">Suppliers’ mailbox</NavLink>
        <NavLink to="/devices/shop">Web shop</NavLink>
      </Tabs>
      <Outlet />
    </TabbedPage>
  );
}
