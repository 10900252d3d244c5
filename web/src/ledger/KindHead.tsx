import { NavLink, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { Choice } from '../ui/Choice.tsx';
import { Part } from '../ui/space.ts';
import { Lead, Push, Row } from '../ui/text.ts';
import { useSearchChange } from '../ui/useAddress.ts';
import { kindOptions } from './kinds.ts';

/** The kind of document that the address asks for; '' for every kind. */
export const useKind = () => useSearchParams()[0].get('kind') ?? '';

const Two = styled.nav`
  display: flex; align-self: end; border: 1px solid var(--line); border-radius: 3px; background: var(--sheet);
  a { padding: 6px 12px; color: var(--ink-2); text-decoration: none; font-weight: 600; font-size: 13.5px; }
  a.active { color: var(--ink); box-shadow: inset 0 -3px var(--honey); }
`;

/** Heads a list of what was posted, with the choice of a kind. */
export function KindHead({ title, lead }: { title: string; lead: string }) {
  const change = useSearchChange();
  const kind = useKind();
  const search = kind ? `?kind=${kind}` : '';
  return (
    <Row $bottom={10}>
      <div>
        <h1>{title}</h1>
        <Lead>{lead}</Lead>
      </div>
      <Push />
      <Two aria-label="View">
        <NavLink to={`/stock/documents${search}`} end>
          By document
        </NavLink>
        <NavLink to={`/stock/movements${search}`}>Each movement</NavLink>
      </Two>
      <Part $width={200}>
        <Choice label="Kind" value={kind} onChange={(kind) => change({ kind: kind || null })} options={kindOptions} />
      </Part>
    </Row>
  );
}
