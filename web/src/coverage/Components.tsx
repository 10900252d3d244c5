import type { ComponentCover } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { memo, useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { PromisedRows } from '../items/index.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { Answer } from '../ui/States.tsx';
import { Stave } from '../ui/Stave.tsx';
import { Tile } from '../ui/Tile.tsx';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import type { SnapshotItem } from './want.ts';

const Line = styled.li<{ $short: boolean }>`
  display: grid; grid-template-columns: 32px minmax(120px, 210px) 84px minmax(60px, 1fr) 124px; gap: 12px; align-items: center; padding: 6px 24px; margin: 0 -24px;
  border-bottom: 1px solid var(--line-soft); ${({ $short }) => $short && 'background: linear-gradient(90deg, var(--short-wash), transparent); box-shadow: inset 5px 0 var(--short);'}
  b { line-height: 1.15; } small { color: var(--ink-3); } a { color: inherit; text-decoration: none; display: inline-block; padding: 3px 0; } a:hover { text-decoration: underline; }
  .num { text-align: right; line-height: 1.2; white-space: nowrap; }
  @media (max-width: 700px) { grid-template-columns: 32px 1fr 84px; > :nth-child(4) { grid-column: 1 / -1; } > :nth-child(5) { grid-column: 1 / -1; text-align: left; } }
`;
const List = styled.ol`list-style: none; margin: 0; padding: 0;`;
const Head = styled(
  Line,
)`font-size: 12px; color: var(--ink-2); border-bottom-color: var(--line); @media (max-width: 700px) { display: none; }`;
const Whom = styled(AriaButton)`
  border: 0; background: none; padding: 0; min-height: 24px; font: inherit; font-size: 12px; color: var(--promised-ink, var(--ink-2)); cursor: pointer;
  &:hover { text-decoration: underline; }
`;
const Below = styled.div`grid-column: 2 / -1; padding: 2px 0 8px;`;
const Verdict = styled.b<{ $tone: string }>`color: var(--${({ $tone }) => $tone}-ink);`;

/** Every component's road to enough, the scarcest first. */
export function Components({ answer, items }: { answer: CoverAnswer; items: ReadonlyMap<number, SnapshotItem> }) {
  const limiting = new Set(answer.products.map((product) => product.limitedBy));
  return (
    <List aria-label="Components">
      <Head $short={false} aria-hidden>
        <span />
        <span>Component</span>
        <span className="num">Needed</span>
        <span>How the need is covered</span>
        <span className="num">Verdict</span>
      </Head>
      {answer.components.map((component) => {
        const item = items.get(component.itemId);
        if (!item) return null;
        const isTight = component.short > 0 || limiting.has(component.itemId);
        return <Component key={item.id} component={component} item={item} items={items} isTight={isTight} />;
      })}
    </List>
  );
}

interface One {
  readonly component: ComponentCover;
  readonly item: SnapshotItem;
  readonly items: ReadonlyMap<number, SnapshotItem>;
  /** It is short, or what limits a product. */
  readonly isTight: boolean;
}

/** Drawn again only when its own figures changed: every key in a wish is answered with all components. */
const Component = memo(function Component({ component, item, items, isTight }: One) {
  const format = useFormat();
  const [isOpen, setOpen] = useState(false);
  const amount = (scaled: number) => format.quantity(formatDecimal(scaled), item.unit, item.decimals);
  const { promised } = component;
  return (
    <Line $short={isTight}>
      <Tile code={item.code} size={32} />
      <span>
        <Link to={`/stock/items/${item.id}`}>
          <b>{item.name}</b>
        </Link>
        <br />
        <small>
          {item.code}
          {item.homeBin && ` · ${item.homeBin}`}{' '}
          {promised > 0 && (
            <>
              {'· '}
              <Whom
                aria-label={`${amount(promised)} promised, of ${item.name}: to whom?`}
                aria-expanded={isOpen}
                onPress={() => setOpen(!isOpen)}
              >
                {amount(promised)} promised
                <span aria-hidden> {isOpen ? '▴' : '▾'}</span>
              </Whom>
            </>
          )}
          {component.alternates.map((other) => {
            const stand = items.get(other.itemId);
            return (
              stand && (
                <span key={other.itemId}>
                  <br />
                  {format.quantity(formatDecimal(other.quantity), stand.unit, stand.decimals)} {stand.name} could stand
                  in for {amount(other.standsFor)}
                </span>
              )
            );
          })}
        </small>
      </span>
      <b className="num">{amount(component.needed)}</b>
      <Stave amounts={component} label={spoken(component, item.name, amount)} />
      <span className="num">{verdict(component, item, amount, format)}</span>
      {isOpen && <ToWhom item={item} />}
    </Line>
  );
}, isSame);

/** An answer of the worker is always another object. */
function isSame(one: One, other: One): boolean {
  return (
    one.item === other.item &&
    one.items === other.items &&
    one.isTight === other.isTight &&
    JSON.stringify(one.component) === JSON.stringify(other.component)
  );
}

/** To whom a component is promised, beneath it. */
function ToWhom({ item }: { item: SnapshotItem }) {
  const promised = useQuestion('promisedTo', { params: { id: item.id } });
  return (
    <Below role="group" aria-label={`Promised to, of ${item.name}`}>
      <Answer of={promised}>{(rows) => <PromisedRows rows={rows} unit={item.unit} decimals={item.decimals} />}</Answer>
    </Below>
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

function verdict(component: ComponentCover, item: SnapshotItem, amount: (scaled: number) => string, format: Format) {
  const { needed, free, coming, short, wholeOn } = component;
  if (short > 0) {
    return (
      <>
        <Verdict $tone="short">short {amount(short)}</Verdict>
        <br />
        <small>
          {coming > 0
            ? `with ${amount(coming)} coming`
            : item.definitionId === null
              ? 'nothing coming'
              : 'can be built'}
        </small>
      </>
    );
  }
  if (wholeOn !== '') {
    return (
      <>
        <Verdict $tone="coming">{wholeOn ? `from ${format.day(wholeOn)}` : 'coming, no day'}</Verdict>
        <br />
        <small>+ {amount(coming)}</small>
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
