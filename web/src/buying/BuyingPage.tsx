import { NavLink, Outlet } from 'react-router';
import { TabbedPage, Tabs } from '../ui/Tabs.tsx';

/** Buying: what has to be bought, the orders, and who sells. */
export function BuyingPage() {
  return (
    <TabbedPage>
      <Tabs aria-label="Buying">
        <NavLink to="/buying" end>
          Buy list
        </NavLink>
        <NavLink to="/buying/orders">Orders</NavLink>
        <NavLink to="/buying/suppliers">Suppliers</NavLink>
        <NavLink to="/buying/reorder">Reorder points</NavLink>
      </Tabs>
      <Outlet />
    </TabbedPage>
  );
}
