import { NavLink, Outlet } from 'react-router';
import { TabbedPage, Tabs } from '../ui/Tabs.tsx';

/** Stock: items, what moved them, the documents behind, receiving, and the places. */
export function StockPage() {
  return (
    <TabbedPage>
      <Tabs aria-label="Stock">
        <NavLink to="/stock/items">Items</NavLink>
        <NavLink to="/stock/where">Where it stands</NavLink>
        <NavLink to="/stock/lots">Lots</NavLink>
        <NavLink to="/stock/movements">Movements</NavLink>
        <NavLink to="/stock/documents">Documents</NavLink>
        <NavLink to="/stock/on-a-day">On a day</NavLink>
        <NavLink to="/stock/receive">Receive</NavLink>
        <NavLink to="/stock/move">Move</NavLink>
        <NavLink to="/stock/adjust">Adjust</NavLink>
        <NavLink to="/stock/counts">Count</NavLink>
        <NavLink to="/stock/revalue">Revalue</NavLink>
        <NavLink to="/stock/put-right">Put right</NavLink>
        <NavLink to="/stock/places">Places</NavLink>
        <NavLink to="/stock/in-out">In and out</NavLink>
      </Tabs>
      <Outlet />
    </TabbedPage>
  );
}
