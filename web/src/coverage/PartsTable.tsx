import type { CoverItem } from '@yosegi/contract';
import type { ComponentCover } from '@yosegi/core/coverage';
import { formatDecimal, minus, type Quantity } from '@yosegi/core/number';
import { memo, useMemo, useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Stave } from '../ui/Stave.tsx';
import { H2 } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import type { CoverAnswer } from '../workers/coverAnswer.ts';

const Below = later(() => import('./Below.tsx'), 'Below');

const Line = styled.li<{ $short: boolean }>`
  display: grid; grid-template-columns: 32px minmax(120px, 250px) 84px minmax(60px, 1fr) 132px; gap: 12px; align-items: center; padding: 6px 24px; margin: 0 -24px;
  /* Of two hundred, those out of sight are neither laid out nor painted. */
  content-visibility: auto; contain-intrinsic-size: auto 52px;
  border-bottom: 1px solid var(--line-soft); ${({ $short }) => $short && 'background: linear-gradient(90deg, var(--short-wash), transparent); box-shadow: inset 5px 0 var(--short);'}
  b { line-height: 1.15; } small { color: var(--ink-3); } a { color: inherit; text-decoration: none; display: inline-block; padding: 3px 0; } a:hover { text-decoration: underline; }
  .num { text-align: right; line-height: 1.2; white-space: nowrap; small { white-space: normal; } }
  @media (max-width: 700px) { grid-template-columns: 32px 1fr 84px; > :nth-child(4) { grid-column: 1 / -1; } > :nth-child(5) { grid-column: 1 / -1; text-align: left; } }
`;
const List = styled.ol`list-style: none; margin: 0; padding: 0;`;
const Head = styled(
  Line,
)`font-size: 12px; color: var(--ink-2); border-bottom-color: var(--line); @media (max-width: 700px) { display: none; }`;
const Open = styled(AriaButton)`
  border: 0; background: none; padding: 0; margin-left: 6px; min-height: 24px; font: inherit; font-size: 12px; color: var(--ink-2); cursor: pointer;
  &:hover { text-decoration: underline; }
`;
const Build = styled(Open)`color: var(--indigo); font-weight: 500; margin-left: 0;`;
const Under = styled.div`grid-column: 2 / -1; padding: 2px 0 8px;`;
const Verdict = styled.b<{ $tone: string }>`color: var(--${({ $tone }) => $tone}-ink);`;

export type GroupBy = '' | 'supplier' | 'store';

interface Props {
  readonly answer: CoverAnswer;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly by: string;
  readonly group: GroupBy;
  /** The scarcest first, or by code. */
  readonly sort: '' | 'code';
  /** The stores asked for; null for all. */
  readonly stores: readonly number[] | null;
  /** Asks for a build of what is missing of something that is made. */
  readonly onBuild: (itemId: number, quantity: string) => void;
}

/** Every component's road to enough. */
export function PartsTable({ answer, items, by, group, sort, stores, onBuild }: Props) {
  const known = useQuestion('stores', {}).data;
  const storeNames = useMemo(() => new Map(known?.map(({ id, name }) => [id, name])), [known]);
  const limiting = new Set(answer.products.map((product) => product.limitedBy));
  const asked = new Set(answer.products.map((product) => product.itemId));
  const rows = answer.components.flatMap((component) => {
    const item = items.get(component.itemId);
    return item ? [{ component, item }] : [];
  });
  if (sort === 'code') rows.sort((a, b) => a.item.code.localeCompare(b.item.code));
  const groups = new Map<string, typeof rows>();
  for (const row of rows) {
    const name = group === '' ? '' : (row.item[group] ?? (group === 'supplier' ? 'No supplier' : 'No home bin'));
    groups.set(name, [...(groups.get(name) ?? []), row]);
  }
  return (
    <div>
      <Head as="div" $short={false} aria-hidden>
        <span />
        <span>Part</span>
        <span className="num">Needed</span>
        <span>Coverage</span>
        <span className="num">Verdict</span>
      </Head>
      {[...groups].map(([name, own]) => (
        <section key={name} aria-label={name || 'Parts'}>
          {name !== '' && (
            <H2 $top={12} $bottom={2}>
              {name}
            </H2>
          )}
          <List aria-label={name === '' ? 'Parts' : `Parts, ${name}`}>
            {own.map(({ component, item }) => (
              <Component
                key={item.id}
                component={component}
                item={item}
                stops={component.stopsAt && (items.get(component.stopsAt.itemId) ?? null)}
                isOneOfMany={answer.products.length > 1}
                standIns={component.alternates.map(({ itemId }) => items.get(itemId))}
                isTight={component.short > 0 || limiting.has(component.itemId)}
                mayBuild={component.short > 0 && item.definitionId !== null && !asked.has(item.id)}
                by={by}
                storeNames={storeNames}
                toStore={stores?.[0] ?? 0}
                onBuild={onBuild}
              />
            ))}
          </List>
        </section>
      ))}
    </div>
  );
}

interface One {
  readonly component: ComponentCover;
  readonly item: CoverItem;
  /** The first product that it is not enough for. */
  readonly stops: CoverItem | null;
  /** Whether that has to be said, since several products are asked for. */
  readonly isOneOfMany: boolean;
  readonly standIns: readonly (CoverItem | undefined)[];
  /** It is short, or what limits a product. */
  readonly isTight: boolean;
  readonly mayBuild: boolean;
  readonly by: string;
  readonly storeNames: ReadonlyMap<number, string>;
  /** The first of the stores asked for. */
  readonly toStore: number;
  readonly onBuild: (itemId: number, quantity: string) => void;
}

/** Drawn again only when its own figures changed: every key in a wish is answered with all components. */
const Component = memo(function Component({ component, item, by, ...more }: One) {
  const format = useFormat();
  const [isOpen, setOpen] = useState(false);
  const amount = (scaled: number) => format.quantity(formatDecimal(scaled), item.unit, item.decimals);
  const { promised, arrivals } = component;
  const facts = [
    promised > 0 && `${amount(promised)} promised`,
    arrivals.length > 0 && `${arrivals.length === 1 ? 'one' : arrivals.length} coming`,
  ].filter((fact) => fact !== false);
  return (
    <Line $short={more.isTight}>
      <Tile code={item.code} size={32} />
      <span>
        <Link to={`/cover/time/${item.id}`}>
          <b>{item.name}</b>
        </Link>
        <br />
        <small>
          {item.code}
          {item.homeBin && ` · ${item.homeBin}`}{' '}
          {facts.length > 0 && (
            <Open
              aria-label={`${facts.join(', ')}, of ${item.name}: to whom and from whom?`}
              aria-expanded={isOpen}
              onPress={() => setOpen(!isOpen)}
            >
              {facts.join(', ')}
              <span aria-hidden> {isOpen ? '▴' : '▾'}</span>
            </Open>
          )}
          {component.elsewhere.map(({ storeId, quantity }) => {
            const wanted = Math.min(quantity, minus(component.needed, Math.max(0, component.free) as Quantity));
            return (
              <span key={storeId}>
                <br />
                {amount(quantity)} free in {more.storeNames.get(storeId)}:{' '}
                <Link
                  to={`/stock/move?item=${item.id}&quantity=${formatDecimal(wanted)}&from=${storeId}&to=${more.toStore}`}
                >
                  move {amount(wanted)}
                </Link>
              </span>
            );
          })}
          {component.alternates.map((other, at) => {
            const stand = more.standIns[at];
            return (
              stand && (
                <span key={other.itemId}>
                  <br />
                  {format.quantity(formatDecimal(other.quantity), stand.unit, stand.decimals)} {stand.name} could
                  replace {amount(other.standsFor)}
                </span>
              )
            );
          })}
        </small>
      </span>
      <b className="num">{amount(component.needed)}</b>
      <Stave amounts={component} label={spoken(component, item.name, amount)} />
      <span className="num">
        <VerdictOf component={component} item={item} amount={amount} by={by} {...more} />
      </span>
      {isOpen && (
        <Under>
          <Below item={item} arrivals={arrivals} />
        </Under>
      )}
    </Line>
  );
}, isSame);

/** An answer of the worker is always another object. */
function isSame(one: One, other: One): boolean {
  const { component, standIns, ...rest } = one;
  return (
    Object.entries(rest).every(([name, value]) => other[name as keyof typeof rest] === value) &&
    standIns.every((item, at) => item === other.standIns[at]) &&
    JSON.stringify(component) === JSON.stringify(other.component)
  );
}

function spoken(component: ComponentCover, name: string, amount: (scaled: number) => string): string {
  const { needed, free, coming, promised, short } = component;
  const parts = [
    `${name}: ${amount(needed)} needed`,
    free < 0 ? `${amount(-free)} owed elsewhere` : `${amount(free)} free`,
  ];
  if (coming > 0) parts.push(`${amount(coming)} coming`);
  if (promised > 0) parts.push(`${amount(promised)} promised elsewhere`);
  if (short > 0) parts.push(`${amount(short)} short`);
  return parts.join(', ');
}

interface VerdictProps extends Omit<One, 'standIns' | 'storeNames' | 'toStore'> {
  readonly amount: (scaled: number) => string;
}

function VerdictOf({ component, item, amount, by, stops, isOneOfMany, mayBuild, onBuild }: VerdictProps) {
  const format = useFormat();
  const { needed, free, coming, short, late, completeOn, stopsAt } = component;
  const enough = stopsAt && stops && (
    <small>
      {stopsAt.enough === 0 ? 'not enough for one' : `enough for ${format.number(formatDecimal(stopsAt.enough))}`}
      {isOneOfMany && ` ${stops.name}`}
    </small>
  );
  if (short > 0) {
    return (
      <>
        <Verdict $tone="short">short {amount(short)}</Verdict>
        <br />
        {short > needed && (
          <>
            <small>{amount(minus(short, needed))} for others</small>
            <br />
          </>
        )}
        {mayBuild ? (
          <Build
            onPress={() => onBuild(item.id, formatDecimal(short))}
            aria-label={`build ${amount(short)} too, of ${item.name}`}
          >
            build {amount(short)} too
          </Build>
        ) : (
          (enough ?? <small>{coming > 0 ? `with ${amount(coming)} coming` : 'nothing coming'}</small>)
        )}
      </>
    );
  }
  if (completeOn !== '') {
    return (
      <>
        <Verdict $tone={late > 0 ? 'short' : 'coming'}>{dayWords(completeOn, format)}</Verdict>
        <br />
        {late > 0 ? (
          <small>{`${amount(late)} not there by ${format.day(by)}`}</small>
        ) : (
          (enough ?? <small>+ {amount(coming)}</small>)
        )}
      </>
    );
  }
  return (
    <>
      <Verdict $tone="ok">{free === needed ? 'just enough' : 'enough'}</Verdict>
      <br />
      <small>{`${amount(free - needed)} left`}</small>
    </>
  );
}

const dayWords = (on: string | null, format: Format) => (on === null ? 'coming, no date' : `from ${format.day(on)}`);
