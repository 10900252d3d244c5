import type { BuildRow } from '@yosegi/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { FINGER } from '../ui/box.ts';
import { count, type Format, useFormat } from '../ui/format.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Muted } from '../ui/text.ts';
import { pageOf } from './held.ts';

export const Lane = styled.section`margin-top: 16px; h2 { display: flex; gap: 10px; align-items: baseline; } h2 span { font: 400 13px var(--text); color: var(--ink-2); }`;
export const Job = styled.article<{ $edge: string }>`
  display: grid; grid-template-columns: 40px minmax(0, 1.4fr) minmax(0, 1.1fr) 118px 132px; gap: 14px; align-items: center; background: var(--sheet);
  border: 1px solid var(--line-soft); border-left: 5px solid var(--${({ $edge }) => $edge}); padding: 8px 12px; margin-top: 7px; border-radius: 2px; line-height: 1.25;
  a { color: inherit; text-decoration: none; } a:hover b { text-decoration: underline; }
  > :last-child { justify-self: end; }
  @media ${FINGER} { > a:nth-child(2) { display: block; padding-block: 5px; } }
  @media (max-width: 700px) { grid-template-columns: 40px 1fr; > :last-child { grid-column: 2; justify-self: start; } > :nth-child(n + 3) { grid-column: 2; } }
`;

/** How far it is; the words beside it say the same. */
const Meter = styled.span.attrs({ 'aria-hidden': true })`
  display: block; height: 5px; margin: 4px 0 2px; max-width: 170px; background: var(--line-soft); border-radius: 2px; overflow: hidden;
  i { display: block; height: 100%; background: var(--indigo); }
`;

/** When a missing part comes, as far as anybody knows. */
export const comes = (part: { comesOn: string | null; isComing: boolean }, format: Format) =>
  part.comesOn ? `comes by ${format.day(part.comesOn)}` : part.isComing ? 'coming, no date' : 'nothing coming';

/** Builds of one kind, each with what it waits for or how far it is, its day, and the deed that is next. */
export function JobLane({
  title,
  under,
  edge,
  builds,
  of = builds.length,
  children,
}: {
  title: string;
  under: string;
  edge: string;
  builds: readonly BuildRow[];
  /** How many there are in all, where only the first of them are given. */
  of?: number;
  children: (build: BuildRow) => ReactNode;
}) {
  const format = useFormat();
  if (builds.length === 0) return null;
  return (
    <Lane>
      <h2>
        {title} <span>{under}</span>
      </h2>
      {builds.map((build) => (
        <Job key={build.id} $edge={edge}>
          <Tile code={build.code} size={40} />
          <Link to={pageOf(build)}>
            <b>
              {format.quantity(build.quantity, build.unit)} × {build.name}
            </b>
            <br />
            <Faint>
              {build.number}
              {build.remark && ` · ${build.remark}`}
            </Faint>
          </Link>
          <Waits build={build} />
          {build.due === null ? (
            <Muted>no due date</Muted>
          ) : build.late ? (
            <Late>due {format.day(build.due)}</Late>
          ) : (
            <span>due {format.day(build.due)}</span>
          )}
          {children(build)}
        </Job>
      ))}
      <AndMore shown={builds.length} of={of} to="/build" />
    </Lane>
  );
}

/** Says how many are not shown, and leads to them. */
export function AndMore({ shown, of, to }: { shown: number; of: number; to: string }) {
  if (of <= shown) return null;
  return (
    <Muted>
      <Link to={to}>and {of - shown} more</Link>
    </Muted>
  );
}

function Waits({ build }: { build: BuildRow }) {
  const format = useFormat();
  const [first, ...more] = build.waiting;
  if (first) {
    return (
      <span>
        {format.quantity(first.short, first.unit, 3)} × {first.name}
        {more.length > 0 && ` and ${count(more.length, 'other part')}`}
        <br />
        <Faint>{comes(first, format)}</Faint>
      </span>
    );
  }
  const [held] = build.held;
  if (held) {
    return (
      <span>
        {format.quantity(held.quantity, held.unit, 3)} × {held.name}
        <br />
        <Faint>held on the bench</Faint>
      </span>
    );
  }
  if (build.state === 'planned') return <Muted>all parts free</Muted>;
  const finished =
    Number(build.finished) > 0 ? `${format.number(build.finished)} of ${format.number(build.quantity)} finished` : '';
  return (
    <span>
      {build.pickedLines} of {count(build.pickLines, 'line')} picked
      <Meter>
        <i style={{ width: `${(100 * build.pickedLines) / Math.max(1, build.pickLines)}%` }} />
      </Meter>
      <Faint>{finished}</Faint>
    </span>
  );
}
