import type { ComponentCover } from '@yosegi/core/coverage';
import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import styled from 'styled-components';
import { type Format, useFormat } from '../ui/format.ts';
import { Stave } from '../ui/Stave.tsx';
import { Tile } from '../ui/Tile.tsx';
import type { CoverAnswer } from '../workers/coverAnswer.ts';
import type { SnapshotItem } from './want.ts';

const Line = styled.li<{ $short: boolean }>`
  display: grid; grid-template-columns: 32px minmax(120px, 210px) 84px minmax(60px, 1fr) 124px; gap: 12px; align-items: center; padding: 6px 24px; margin: 0 -24px;
  border-bottom: 1px solid var(--line-soft); ${({ $short }) => $short && 'background: linear-gradient(90deg, #f9e7dd, #fff0); box-shadow: inset 5px 0 var(--short);'}
  b { line-height: 1.15; } small { color: var(--ink-3); } a { color: inherit; text-decoration: none; } a:hover { text-decoration: underline; }
  .num { text-align: right; line-height: 1.2; white-space: nowrap; }
  @media (max-width: 700px) { grid-template-columns: 32px 1fr 84px; > :nth-child(4) { grid-column: 1 / -1; } > :nth-child(5) { grid-column: 1 / -1; text-align: left; } }
`;
const List = styled.ol`list-style: none; margin: 0; padding: 0;`;
const Head = styled(
  Line,
)`font-size: 12px; color: var(--ink-2); border-bottom-color: var(--line); @media (max-width: 700px) { display: none; }`;
const Verdict = styled.b<{ $tone: string }>`color: var(--${({ $tone }) => $tone}-ink);`;

/** Every component's road to enough, the scarcest first. */
export function Components({ answer, items }: { answer: CoverAnswer; items: ReadonlyMap<number, SnapshotItem> }) {
  const format = useFormat();
  const limiting = new Set(answer.products.map((product) => product.limitedBy));
  return (
    <List aria-label="Components">
      <Head $short={false} aria-hidden>
        <span />
        <span>Component</span>
        <span className="num">Needed</span>
        <span>On the way to enough</span>
        <span className="num">Verdict</span>
      </Head>
      {answer.components.map((component) => {
        const item = items.get(component.itemId);
        if (!item) return null;
        const amount = (scaled: number) => format.quantity(formatDecimal(scaled), item.unit, item.decimals);
        return (
          <Line key={component.itemId} $short={component.short > 0 || limiting.has(component.itemId)}>
            <Tile code={item.code} size={32} />
            <span>
              <Link to={`/stock/items/${item.id}`}>
                <b>{item.name}</b>
              </Link>
              <br />
              <small>
                {item.code}
                {item.homeBin && ` · ${item.homeBin}`}
                {component.alternates.map((other) => {
                  const stand = items.get(other.itemId);
                  return (
                    stand && (
                      <span key={other.itemId}>
                        <br />
                        {format.quantity(formatDecimal(other.quantity), stand.unit, stand.decimals)} {stand.name} could
                        stand in for {amount(other.standsFor)}
                      </span>
                    )
                  );
                })}
              </small>
            </span>
            <b className="num">{amount(component.needed)}</b>
            <Stave amounts={component} label={spoken(component, item.name, amount)} />
            <span className="num">{verdict(component, item, amount, format)}</span>
          </Line>
        );
      })}
    </List>
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
  const { needed, free, promised, short, wholeOn } = component;
  const elsewhere = promised > 0 ? `${amount(promised)} promised` : '';
  if (short > 0) {
    return (
      <>
        <Verdict $tone="short">short {amount(short)}</Verdict>
        <br />
        <small>{elsewhere || (item.definitionId === null ? 'nothing coming' : 'can be built')}</small>
      </>
    );
  }
  if (wholeOn !== '') {
    return (
      <>
        <Verdict $tone="coming">{wholeOn ? `from ${format.day(wholeOn)}` : 'coming, no day'}</Verdict>
        <br />
        <small>+ {amount(component.coming)}</small>
      </>
    );
  }
  return (
    <>
      <Verdict $tone="ok">{free === needed ? 'just enough' : 'enough'}</Verdict>
      <br />
      <small>{elsewhere || `${amount(free - needed)} left`}</small>
    </>
  );
}
