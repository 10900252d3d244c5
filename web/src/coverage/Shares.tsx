import type { CoverItem, CoverSource } from '@yosegi/contract';
import { sourceKey } from '@yosegi/core/demand';
import { groupBy } from '@yosegi/core/lists';
import { formatDecimal } from '@yosegi/core/number';
import { Link } from 'react-router';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late } from '../ui/text.ts';
import type { WayShown } from '../workers/scarceAnswer.ts';

interface Props {
  readonly way: WayShown;
  readonly items: ReadonlyMap<number, CoverItem>;
  readonly named: readonly CoverSource[];
}

const MOST_PARTS = 60;

/** Part by part, who gets how much and when. */
export function Shares({ way, items, named }: Props) {
  const format = useFormat();
  const names = new Map(named.map((one) => [`${one.kind}:${one.id}`, one]));
  // Those that several want first: there is something to choose.
  const byPart = [...groupBy(way.shares, ({ itemId }) => itemId)].toSorted(
    ([, a], [, b]) => Number(b.length > 1) - Number(a.length > 1),
  );
  const waits = new Set(way.waits.map(sourceKey));
  return (
    <section aria-label="Allocation">
      <h2>Allocation</h2>
      <Grid $full>
        <thead>
          <tr>
            <th>Part</th>
            <th>For</th>
            <th className="num">Needs</th>
            <th className="num">Gets now</th>
            <th className="num">Later</th>
            <th className="num">Short</th>
            <th>In full by</th>
          </tr>
        </thead>
        <tbody>
          {byPart.slice(0, MOST_PARTS).flatMap(([itemId, shares]) => {
            const item = items.get(itemId);
            if (!item) return [];
            const amount = (scaled: number) => (scaled === 0 ? '' : format.number(formatDecimal(scaled)));
            return shares.map(({ source, need, now, coming, short, on }, index) => {
              const name = names.get(sourceKey(source));
              return (
                <tr key={`${itemId} ${sourceKey(source)}`}>
                  {index === 0 && (
                    <td rowSpan={shares.length}>
                      <Cell>
                        <Tile code={item.code} size={24} />
                        <Link to={`/cover/time/${item.id}`}>{item.name}</Link>
                      </Cell>
                    </td>
                  )}
                  <td>
                    <Link to={source.kind === 'order' ? `/orders/${source.id}` : `/build/${source.id}`}>
                      {name?.number ?? '…'}
                    </Link>{' '}
                    <Faint>
                      {name?.who}
                      {waits.has(sourceKey(source)) && ' · put last'}
                    </Faint>
                  </td>
                  <td className="num">{format.quantity(formatDecimal(need), item.unit, item.decimals)}</td>
                  <td className="num">{amount(now)}</td>
                  <td className="num">{amount(coming)}</td>
                  <td className="num">{short > 0 && <Late>{amount(short)}</Late>}</td>
                  <td className="one-line">
                    {on === ''
                      ? 'now'
                      : on === null
                        ? short > 0
                          ? 'not with current supply'
                          : 'no date yet'
                        : format.day(on)}
                  </td>
                </tr>
              );
            });
          })}
        </tbody>
      </Grid>
      {byPart.length > MOST_PARTS && (
        <Faint>And {byPart.length - MOST_PARTS} more parts. Tick the ones you want to see.</Faint>
      )}
    </section>
  );
}
