import { NavLink, Outlet, useLocation } from 'react-router';
import { TabbedPage, TabMenu, Tabs } from '../ui/Tabs.tsx';

const DO = [
  { id: 'receive', name: 'Receive', hint: 'goods that came without an order', to: '/stock/receive' },
  { id: 'move', name: 'Move', hint: 'from one bin to another', to: '/stock/move' },
  { id: 'adjust', name: 'Adjust', hint: 'lost, found, broken, used up', to: '/stock/adjust' },
  { id: 'count', name: 'Count', hint: 'what is actually there', to: '/stock/counts' },
  { id: 'revalue', name: 'Revalue', hint: 'what it is worth now', to: '/stock/revalue' },
  { id: 'put-right', name: 'Put right', hint: 'what was posted wrongly', to: '/stock/put-right' },
];
const SET_UP = [
  { id: 'company', name: 'Company and people', hint: 'currency, language, who may do what', to: '/company' },
  { id: 'places', name: 'Places and units', hint: 'stores, bins, units, labour rates', to: '/stock/places' },
  { id: 'in-out', name: 'In and out', hint: 'files of items and more', to: '/stock/in-out' },
];

/** Stock: what there is and what moved it, what can be done with it, and how it is set up. */
export function StockPage() {
  const { pathname } = useLocation();
  const isMoved = /^\/stock\/(documents|movements)/.test(pathname);
  return (
    <TabbedPage>
      <Tabs aria-label="Stock">
        <NavLink to="/stock/items">Items</NavLink>
        <NavLink to="/stock/where">Locations</NavLink>
        <NavLink to="/stock/lots" className={/^\/stock\/(lots|units)/.test(pathname) ? 'active' : ''}>
          Lots and serial numbers
        </NavLink>
        <NavLink to="/stock/documents" className={isMoved ? 'active' : ''}>
          Movements
        </NavLink>
        <NavLink to="/stock/on-a-day">Stock on a date</NavLink>
        <TabMenu name="Receive, move, count" deeds={DO} />
        <TabMenu name="Set up" deeds={SET_UP} />
      </Tabs>
      <Outlet />
    </TabbedPage>
  );
}
