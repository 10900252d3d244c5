import { NavLink, Outlet } from 'react-router';
import styled from 'styled-components';

const Page = styled.div`height: 100%; display: grid; grid-template: auto minmax(0, 1fr) / minmax(0, 1fr); @media print { display: block; }`;
const Tabs = styled.nav`
  display: flex; gap: 4px; padding: 0 18px; background: var(--birch); border-bottom: 1px solid var(--line); overflow-x: auto;
  a { padding: 9px 14px; color: var(--ink); text-decoration: none; white-space: nowrap; font-weight: 600; }
  a.active { background: var(--sheet); box-shadow: inset 0 3px var(--honey); }
  @media print { display: none; }
`;

/** Stock: items, what moved them, the documents behind, receiving, and the places. */
export function StockPage() {
  return (
    <Page>
      <Tabs aria-label="Stock">
        <NavLink to="/stock/items">Items</NavLink>
        <NavLink to="/stock/lots">Lots</NavLink>
        <NavLink to="/stock/movements">Movements</NavLink>
        <NavLink to="/stock/documents">Documents</NavLink>
        <NavLink to="/stock/on-a-day">On a day</NavLink>
        <NavLink to="/stock/receive">Receive</NavLink>
        <NavLink to="/stock/move">Move</NavLink>
        <NavLink to="/stock/adjust">Adjust</NavLink>
        <NavLink to="/stock/counts">Count</NavLink>
        <NavLink to="/stock/places">Places and units</NavLink>
        <NavLink to="/stock/suppliers">Suppliers</NavLink>
        <NavLink to="/stock/in-out">In and out</NavLink>
      </Tabs>
      <Outlet />
    </Page>
  );
}
