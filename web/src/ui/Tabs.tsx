import styled from 'styled-components';

/** A page of several views: their tabs on top, the chosen one beneath. */
export const TabbedPage = styled.div`
  height: 100%; display: grid; grid-template: auto minmax(0, 1fr) / minmax(0, 1fr); @media print { display: block; }
`;
export const Tabs = styled.nav`
  display: flex; gap: 4px; padding: 0 18px; background: var(--birch); border-bottom: 1px solid var(--line); overflow-x: auto;
  a { padding: 9px 14px; color: var(--ink); text-decoration: none; white-space: nowrap; font-weight: 600; }
  a.active { background: var(--sheet); box-shadow: inset 0 3px var(--honey); }
  @media print { display: none; }
`;
