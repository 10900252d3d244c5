import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { forFingers } from './box.ts';
import { StripGroup } from './layout.ts';
import { Tile } from './Tile.tsx';

const Item = styled(NavLink)`
  display: grid; grid-template-columns: 34px minmax(0, 1fr) auto; gap: 10px; padding: 7px 14px; align-items: center; line-height: 1.2; ${forFingers}
  color: var(--ink); text-decoration: none; small { color: var(--ink-2); }
  b { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; display: block; }
  &:hover { background: var(--lit); }
  &:focus-visible { outline-offset: -2px; }
  &.active { background: var(--sheet); box-shadow: inset 5px 0 var(--honey); }
  @media (forced-colors: active) { &.active { outline: 2px solid Highlight; outline-offset: -2px; } }
`;

/** One record in a strip, found by its tile. */
export function StripItem({
  to,
  code,
  title,
  under,
  side,
}: {
  to: string;
  code: string;
  title: string;
  under: ReactNode;
  side?: ReactNode;
}) {
  return (
    <Item to={to}>
      <Tile code={code} />
      <span>
        <b>{title}</b>
        <small>{under}</small>
      </span>
      <span>{side}</span>
    </Item>
  );
}

/** Records of a strip that belong together; nothing when there are none. */
export function StripSection<T>({
  title,
  rows,
  children,
}: {
  title: string;
  rows: readonly T[];
  children: (row: T) => ReactNode;
}) {
  if (rows.length === 0) return null;
  return (
    <>
      <StripGroup>
        {title} · {rows.length}
      </StripGroup>
      {rows.map(children)}
    </>
  );
}

/** One record in a strip that opens in place; `aria-current` marks the one that is shown. */
export const StripButton = styled.button`
  display: block; width: 100%; text-align: left; border: 0; background: none; padding: 8px 14px; cursor: pointer; line-height: 1.25; color: var(--ink);
  small { color: var(--ink-2); } &:hover { background: var(--lit); } &[aria-current] { background: var(--sheet); box-shadow: inset 5px 0 var(--honey); }
  &:focus-visible { outline-offset: -2px; }
`;
