import { ChevronDown } from 'lucide-react';
import { Button, MenuTrigger } from 'react-aria-components';
import { useLocation } from 'react-router';
import styled, { css } from 'styled-components';
import { type Deed, MenuList } from './Menu.tsx';

/** A page of several views: their tabs on top, the chosen one beneath. */
export const TabbedPage = styled.div`
  height: 100%; display: grid; grid-template: auto minmax(0, 1fr) / minmax(0, 1fr); @media print { display: block; }
`;
const tab = css`padding: 9px 14px; color: var(--ink); text-decoration: none; white-space: nowrap; font: 600 14px var(--text); min-height: 38px;`;
const chosen = css`background: var(--sheet); box-shadow: inset 0 3px var(--honey); @media (forced-colors: active) { border-top: 4px solid Highlight; }`;
export const Tabs = styled.nav`
  display: flex; gap: 4px; padding: 0 18px; background: var(--birch); border-bottom: 1px solid var(--line); overflow-x: auto;
  a { ${tab} } a.active { ${chosen} }
  @media print { display: none; }
  @media (max-width: 900px) { padding: 0 4px; flex-wrap: wrap; a, button { padding: 9px 10px; } }
  /* Enlarged to twice its size, the record has the room. */
  @media (max-height: 520px) { flex-wrap: nowrap; a, button { padding: 4px 10px; min-height: 30px; } }
`;
const Opener = styled(Button)`
  ${tab} background: none; border: 0; cursor: pointer; display: flex; align-items: center; gap: 6px;
  &[data-chosen] { ${chosen} } svg { color: var(--ink-2); }
`;

/** A tab that opens a list of views; on one of them it bears the name of that. */
export function TabMenu({ name, deeds }: { name: string; deeds: readonly (Deed & { readonly to: string })[] }) {
  const { pathname } = useLocation();
  const here = deeds.find(({ to }) => pathname === to || pathname.startsWith(`${to}/`));
  return (
    <MenuTrigger>
      <Opener {...(here ? { 'data-chosen': true } : {})}>
        {here?.name ?? name}
        <ChevronDown size={15} aria-hidden />
      </Opener>
      <MenuList deeds={deeds} />
    </MenuTrigger>
  );
}
