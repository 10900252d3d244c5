import type { BuildDetail, LastUse, Problem } from '@yosegi/contract';
import { asLastTime, type FinishCost, isBeyond, type LineUse } from '@yosegi/core/builds';
import { formatDecimal, type Percent, type Quantity, readExact, SCALE } from '@yosegi/core/number';
import { Clock, Tag } from 'lucide-react';
import { Fragment } from 'react';
import styled from 'styled-components';
import { OutFields } from '../lines/OutFields.tsx';
import { stepLines } from '../lines/steps.ts';
import { NOTHING_TYPED } from '../lines/typed.ts';
import { Chip } from '../ui/Chip.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint } from '../ui/text.ts';
import { type TypedUse, usedIds, withUse } from './typedUse.ts';

const Difference = styled.span<{
  $more: boolean;
}>`color: var(--${({ $more }) => ($more ? 'short' : 'ok')}-ink); font-weight: 600;`;

interface Props {
  readonly build: BuildDetail;
  readonly cost: FinishCost;
  readonly actuals: ReadonlyMap<number, Quantity>;
  readonly typed: TypedUse;
  readonly onChange: (typed: TypedUse) => void;
  readonly faults: ReadonlyMap<string, string>;
  readonly refused: Problem | null;
  /** What the last finishes used, where that is known. */
  readonly past?: ReadonlyMap<number, LastUse>;
}

/** Planned beside actual, with the difference in quantity, money and per unit as it is typed. */
export function UseGrid(props: Props) {
  const { build, cost, actuals, typed, onChange, faults, refused, past } = props;
  const format = useFormat();
  const [, refusedIndex, refusedName] = refused?.field?.split('.') ?? [];
  const refusedId = refusedIndex === undefined ? undefined : usedIds(typed)[Number(refusedIndex)];
  const wrong = (lineId: number, name: string) =>
    refusedId === lineId && refusedName === name ? refused?.detail : undefined;
  return (
    <Grid>
      <thead>
        <tr>
          <th>Part</th>
          <th className="num">On the bench</th>
          <th className="num">Planned</th>
          <Th className="num" $width={130}>
            Actually used
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
          const usual = usualOf(line, use.planned, past?.get(use.lineId));
          const asksWhy = needsWhy(line, use) || typed.why.has(use.lineId);
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
                  {line.pieces.some((piece) => piece.held !== null) && (
                    <div>
                      <Chip $tone="held">
                        {line.pieces
                          .flatMap((piece) => (piece.held ? (piece.lot ?? piece.serial ?? '') : []))
                          .join(', ')}{' '}
                        held
                      </Chip>
                    </div>
                  )}
                </td>
                <td className="num">
                  {isCharge ? '' : amount(use.planned)}
                  {usual && (
                    <>
                      <br />
                      <Faint $oneLine>usually {amount(usual)}</Faint>
                    </>
                  )}
                </td>
                <td className="num">
                  {!isCharge && (
                    <Field
                      label={`Actually used of ${line.item?.name ?? (line.text || 'labour')}`}
                      hideLabel
                      numeric
                      value={typed.actuals.get(use.lineId) ?? formatDecimal(actuals.get(use.lineId) ?? 0)}
                      suffix={unit === 'each' ? '' : unit}
                      onChange={(text) => onChange(withUse(typed, 'actuals', use.lineId, text))}
                      onKeyDown={(event) => stepLines(event, true)}
                      error={faults.get(`line${use.lineId}`) ?? wrong(use.lineId, 'actual')}
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
              {asksWhy && (
                <tr>
                  <td colSpan={7}>
                    <Field
                      label={`Why ${use.difference < 0 ? 'so little' : 'so much'} of ${line.item?.name ?? 'it'}? That is more than ${format.number(line.tolerance ?? '0')}% off the plan.`}
                      value={typed.why.get(use.lineId) ?? ''}
                      onChange={(text) => onChange(withUse(typed, 'why', use.lineId, text))}
                      error={wrong(use.lineId, 'because')}
                    />
                  </td>
                </tr>
              )}
              {line.item && needsNaming(line, use.actual) && (
                <tr>
                  <td colSpan={7}>
                    <OutFields
                      item={line.item}
                      pieces={[...line.pieces, ...line.bins.flatMap((bin) => bin.pieces)]}
                      typed={typed.tracks.get(use.lineId) ?? NOTHING_TYPED}
                      onChange={(next) => onChange(withUse(typed, 'tracks', use.lineId, next))}
                      quantity={use.actual / SCALE}
                      errorAt={(name) => wrong(use.lineId, name)}
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

/** What it comes to when it goes as it went the last times; none where that is as planned. */
export function usualOf(
  line: BuildDetail['lines'][number],
  planned: Quantity,
  past: LastUse | undefined,
): Quantity | null {
  if (!past || past.planned === past.actual || past.count < 2) return null;
  const then = { planned: readExact(past.planned) as Quantity, actual: readExact(past.actual) as Quantity };
  const usual = asLastTime(
    planned,
    { ...then, count: past.count, isDrifted: past.isDrifted },
    line.item?.decimals ?? 0,
  );
  return usual === planned ? null : usual;
}

/** Whether so much off the plan has to be explained. */
const needsWhy = (line: BuildDetail['lines'][number], { planned, actual, kind }: LineUse) =>
  kind === 'part' && line.tolerance !== null && isBeyond(planned, actual, readExact(line.tolerance) as Percent);

const signed = (scaled: number, show: (scaled: number) => string) =>
  `${scaled > 0 ? '+' : '−'}${show(Math.abs(scaled))}`;
