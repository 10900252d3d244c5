import { Navigate, NavLink, Outlet, useLocation, useSearchParams } from 'react-router';
import { TabbedPage, Tabs } from '../ui/Tabs.tsx';

/** Take apart: what came back and waits, every return, what stands on the shelves, and why things come back. */
export function ApartFrame() {
  const [search] = useSearchParams();
  const { pathname, search: asked } = useLocation();
  // A product is taken apart from stock.
  if (pathname === '/take-apart' && search.has('item')) return <Navigate to={`/take-apart/stock${asked}`} replace />;
  return (
    <TabbedPage>
      <Tabs aria-label="Take apart">
        <NavLink to="/take-apart" end>
          Returned goods
        </NavLink>
        <NavLink to="/take-apart/returns">Returns</NavLink>
        <NavLink to="/take-apart/stock">From stock</NavLink>
        <NavLink to="/take-apart/why">Return reasons</NavLink>
      </Tabs>
      <Outlet />
    </TabbedPage>
  );
}
