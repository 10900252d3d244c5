import type { BuildDetail, Problem } from '@yosegi/contract';
import type { FinishCost } from '@yosegi/core/builds';
import { formatDecimal, type Quantity, readExact, SCALE } from '@yosegi/core/number';
import { Clock, Tag } from 'lucide-react';
import { Fragment } from 'react';
import styled from 'styled-components';
import { OutFields } from '../lines/OutFields.tsx';
import { NOTHING_TYPED, type TypedTrack } from '../lines/typed.ts';
import { walkLines } from '../lines/walk.ts';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';

const Difference = styled.span<{
  $more: boolean;
}>`color: var(--${({ $more }) => ($more ? 'short' : 'ok')}-ink); font-weight: 600;`;

interface Props {
  readonly build: BuildDetail;
  readonly cost: FinishCost;
  readonly actuals: ReadonlyMap<number, Quantity>;
  readonly typed: ReadonlyMap<number, string>;
  readonly faults: ReadonlyMap<string, string>;
  readonly setActual: (lineId: number, text: string) => void;
  readonly refused: Problem | null;
  /** The lines that are sent, in their order. */
  readonly typedIds: readonly number[];
  /** Lots and serials that were named of parts. */
  readonly tracks: ReadonlyMap<number, TypedTrack>;
  readonly setTrack: (lineId: number, typed: TypedTrack) => void;
}

/** Planned beside actual, with the difference in quantity, money and per unit as it is typed. */
export function UseGrid(props: Props) {
  const { build, cost, actuals, typed, faults, setActual, refused, typedIds, tracks, setTrack } = props;
  const format = useFormat();
  const [, refusedIndex, refusedName] = refused?.field?.split('.') ?? [];
  const refusedId = refusedIndex === undefined ? undefined : typedIds[Number(refusedIndex)];
  return (
    <Grid>
      <thead>
        <tr>
          <th>Component</th>
          <th className="num">On the bench</th>
          <th className="num">Planned</th>
          <Th className="num" $width={130}>
            Really used
          </Th>
          <th className="num">Difference</th>
          <th className="num">Cost</th>
          <th className="num">Difference</th>
        </tr>
      </thead>
      <tbody>
        {cost.lines.map((use) => {
          const line = build.lines.find((known) => known.id === use.lineId);
          if (!line) return null;
          const unit = line.item?.unit ?? 'min';
          const decimals = line.item?.decimals ?? 0;
          const amount = (scaled: number) =>
            line.item
              ? format.quantity(formatDecimal(scaled), unit, decimals)
              : `${format.number(formatDecimal(scaled), 0, 1)} min`;
          const isCharge = use.kind === 'charge';
          return (
            <Fragment key={use.lineId}>
              <tr>
                <td>
                  <Cell>
                    {line.item ? (
                      <Tile code={line.item.code} size={28} />
                    ) : isCharge ? (
                      <Tag size={20} aria-hidden />
                    ) : (
                      <Clock size={20} aria-hidden />
                    )}
                    <span>
                      <b>{line.item?.name ?? (line.text || 'Labour')}</b>
                      <br />
                      <Faint>
                        {line.item
                          ? `${format.unitCost(line.item.averageCost)} / ${unit} · ${line.taken?.replace('-', ' ')}`
                          : line.kind}
                      </Faint>
                    </span>
                  </Cell>
                </td>
                <td className="num">
                  {line.item && line.taken === 'picked-first' ? format.quantity(line.onBench, unit, decimals) : ''}
                </td>
                <td className="num">{isCharge ? '' : amount(use.planned)}</td>
                <td className="num">
                  {!isCharge && (
                    <Field
                      label={`Really used of ${line.item?.name ?? (line.text || 'labour')}`}
                      hideLabel
                      numeric
                      value={typed.get(use.lineId) ?? formatDecimal(actuals.get(use.lineId) ?? 0)}
                      suffix={unit === 'each' ? '' : unit}
                      onChange={(text) => setActual(use.lineId, text)}
                      onKeyDown={(event) => walkLines(event, true)}
                      error={
                        faults.get(`line${use.lineId}`) ??
                        (refusedId === use.lineId && refusedName === 'actual' ? refused?.detail : undefined)
                      }
                    />
                  )}
                </td>
                <td className="num">
                  {use.difference !== 0 && (
                    <Difference $more={use.difference > 0}>{signed(use.difference, amount)}</Difference>
                  )}
                </td>
                <td className="num">{format.money(formatDecimal(use.cost))}</td>
                <td className="num">
                  {use.costDifference !== 0 && (
                    <Difference $more={use.costDifference > 0}>
                      {signed(use.costDifference, (scaled) => format.money(formatDecimal(scaled)))}
                    </Difference>
                  )}
                </td>
              </tr>
              {line.item && needsNaming(line, use.actual) && (
                <tr>
                  <td colSpan={7}>
                    <OutFields
                      item={line.item}
                      pieces={[...line.pieces, ...line.bins.flatMap((bin) => bin.pieces)]}
                      typed={tracks.get(use.lineId) ?? NOTHING_TYPED}
                      onChange={(next) => setTrack(use.lineId, next)}
                      quantity={use.actual / SCALE}
                      errorAt={(name) =>
                        refusedId === use.lineId && refusedName === name ? refused?.detail : undefined
                      }
                    />
                  </td>
                </tr>
              )}
            </Fragment>
          );
        })}
      </tbody>
    </Grid>
  );
}

/**
 * Whether a person has to say which lots or serials were used: when some come straight from the shelf, or only some of
 * the serials on the bench.
 */
function needsNaming(line: BuildDetail['lines'][number], actual: Quantity): boolean {
  if (!line.item || line.item.tracking === 'none' || actual === 0) return false;
  const onBench = readExact(line.onBench);
  return line.item.tracking === 'serial' ? actual !== onBench : actual > onBench;
}

const signed = (scaled: number, show: (scaled: number) => string) =>
  `${scaled > 0 ? '+' : '−'}${show(Math.abs(scaled))}`;
