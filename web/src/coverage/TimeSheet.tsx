import type { Bring, Change, Stretch } from '@yosegi/core/coverage';
import { dayAfter, daysBetween } from '@yosegi/core/days';
import { useMemo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { DayField } from '../ui/DayField.tsx';
import { count, type Format, useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { Part } from '../ui/space.ts';
import { Faint, Late, Lead } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import type { CaseAnswer } from '../workers/timeAnswer.ts';
import { SupplyHandle } from './SupplyHandle.tsx';
import { type Step, TimeChart } from './TimeChart.tsx';
import type { Names } from './useNames.ts';

const Plot = styled.div<{
  $lanes: number;
}>`position: relative; padding-top: ${({ $lanes }) => $lanes * 42 + 6}px; margin-bottom: 22px;`;
const Axis = styled.div`position: absolute; inset: auto 0 -20px 0; height: 18px; font-size: 11.5px; color: var(--ink-2); span { position: absolute; transform: translateX(-50%); white-space: nowrap; } span:first-child { transform: none; } span:last-child { transform: translateX(-100%); }`;

interface Props {
  readonly answer: CaseAnswer;
  readonly changes: readonly Change[];
  readonly names: Names;
  readonly amount: (scaled: number) => string;
  /** Another day for something that comes. */
  readonly onMove: (change: Change) => void;
}

/** The least days that are drawn, so that a day has some width. */
const LEAST_DAYS = 14;
/** Of the width, what a label takes. */
const LABEL = 0.17;

/** Free stock day by day: in a sentence, as a picture in which days are dragged, and as the same in a table. */
export function TimeSheet({ answer, changes, names, amount, onMove }: Props) {
  const format = useFormat();
  const { time, short } = answer;
  const first = time.days[0]?.on ?? today();
  const last = time.days.at(-1)?.on ?? first;
  const days = Math.max(LEAST_DAYS, daysBetween(first, last) + 4);
  const steps = useMemo(() => stepsOf(answer, first, days), [answer, first, days]);
  const labels = time.days.flatMap(({ on, brings }) => brings.map((bring) => ({ on, bring })));
  const lanes = lanesOf(labels.map(({ on }) => daysBetween(first, on) / days));
  const most = Math.min(MOST_LANES, Math.max(0, ...lanes) + 1);
  const move = (bring: Bring, on: string) => onMove({ what: 'day', kind: bring.kind, id: bring.id, on });
  const isMoved = (bring: Bring) =>
    changes.some((one) => one.what === 'day' && one.kind === bring.kind && one.id === bring.id);
  const [title, lead] = conclusionOf(answer, short, amount, format);
  return (
    <>
      <div>
        <h1>{title}</h1>
        <Lead>{lead}</Lead>
      </div>
      <Plot $lanes={labels.length === 0 ? 0 : most}>
        {labels.map(({ on, bring }, index) =>
          (lanes[index] ?? 0) < MOST_LANES ? (
            <SupplyHandle
              key={`${bring.kind}${bring.id}`}
              name={`${names.supply(bring.kind, bring.id).number} brings ${amount(bring.quantity)}`}
              on={on}
              first={first}
              days={days}
              top={(lanes[index] ?? 0) * 42}
              least={first}
              isMoved={isMoved(bring)}
              onMove={(to) => move(bring, to)}
            />
          ) : null,
        )}
        <TimeChart label={`${title} The table below shows the same.`} steps={steps} />
        <Axis aria-hidden>
          {ticksOf(days).map((day) => (
            <span key={day} style={{ left: `${(day / days) * 100}%` }}>
              {format.day(dayAfter(first, day))}
            </span>
          ))}
        </Axis>
      </Plot>
      <Grid aria-label="Free day by day">
        <thead>
          <tr>
            <th>Day</th>
            <th>Event</th>
            <th className="num">Free then</th>
          </tr>
        </thead>
        <tbody>
          {time.days.map((day) => (
            <tr key={day.on}>
              <td className="one-line">{format.day(day.on)}</td>
              <td>
                {day.on === first && <Faint>{amount(time.shelf)} on the shelves. </Faint>}
                {day.brings.map((bring) => (
                  <BringRow
                    key={`${bring.kind}${bring.id}`}
                    bring={bring}
                    on={day.on}
                    names={names}
                    amount={amount}
                    onMove={(on) => move(bring, on)}
                  />
                ))}
                {day.takes.length > 0 && (
                  <div>
                    {day.takes.map(({ source, quantity }, index) => {
                      const named = names.source(source);
                      return (
                        <span key={`${source.kind}${source.id}`}>
                          {index > 0 && ', '}
                          <Link to={source.kind === 'order' ? `/orders/${source.id}` : `/build/${source.id}`}>
                            {named?.number ?? '…'}
                          </Link>{' '}
                          takes {amount(quantity)} {named && <Faint>{named.who}</Faint>}
                        </span>
                      );
                    })}
                  </div>
                )}
              </td>
              <td className="num">{day.free < 0 ? <Late>{amount(day.free)}</Late> : <b>{amount(day.free)}</b>}</td>
            </tr>
          ))}
          {time.undated.map((bring) => (
            <tr key={`${bring.kind}${bring.id}`}>
              <td>
                <Late>no date</Late>
              </td>
              <td>
                <BringRow bring={bring} on="" names={names} amount={amount} onMove={(on) => move(bring, on)} />
              </td>
              <td />
            </tr>
          ))}
        </tbody>
      </Grid>
    </>
  );
}

function BringRow({
  bring,
  on,
  names,
  amount,
  onMove,
}: {
  bring: Bring;
  on: string;
  names: Names;
  amount: (scaled: number) => string;
  onMove: (on: string) => void;
}) {
  const { number, from, to } = names.supply(bring.kind, bring.id);
  return (
    <Supply>
      <span>
        {to ? <Link to={to}>{number}</Link> : number} brings {amount(bring.quantity)} {from && <Faint>{from}</Faint>}
      </span>
      <Part $width={150}>
        <DayField
          label={`What if ${number} came on`}
          hideLabel
          actsAtOnce
          value={on}
          onChange={(day) => day >= today() && day !== on && onMove(day)}
        />
      </Part>
    </Supply>
  );
}

const Supply = styled.div`display: flex; gap: 12px; align-items: center; justify-content: space-between; flex-wrap: wrap; padding: 3px 0;`;

/** What is free from each day until the next, of it what has come since today. */
function stepsOf({ time }: CaseAnswer, first: string, days: number): Step[] {
  let come = 0;
  return time.days.map(({ on, brings, free }, index): Step => {
    come += brings.reduce((sum, { quantity }) => sum + quantity, 0);
    const next = time.days[index + 1]?.on;
    // What came is used last, so that what is left of it shows.
    return {
      from: daysBetween(first, on),
      to: next ? daysBetween(first, next) : days,
      free,
      come: Math.min(Math.max(0, free), come),
    };
  });
}

/** The most rows of labels above the picture. */
const MOST_LANES = 4;

/** A row for each label in which it covers none before it. */
function lanesOf(places: readonly number[]): number[] {
  const ends: number[] = [];
  return places.map((place) => {
    const from = place > 0.8 ? place - LABEL : place;
    let lane = ends.findIndex((end) => end <= from);
    if (lane < 0) lane = ends.length;
    ends[lane] = from + LABEL;
    return lane;
  });
}

/** Days to name below the picture: about eight. */
function ticksOf(days: number): number[] {
  const step = Math.max(1, Math.ceil(days / 8));
  return Array.from({ length: Math.floor(days / step) + 1 }, (_, n) => n * step);
}

function conclusionOf(
  { time, completeOn }: CaseAnswer,
  short: readonly Stretch[],
  amount: (scaled: number) => string,
  format: Format,
): [title: string, lead: string] {
  const lead = [
    time.days.length === 1 && time.days[0]?.takes.length === 0 && 'None is promised, and none is coming.',
    time.undated.length > 0 &&
      `${count(time.undated.length, 'delivery')} without a date ${time.undated.length === 1 ? 'is' : 'are'} not drawn.`,
    short.length > 1 && `Short ${short.length} times.`,
    short.length > 0 && completeOn && `All promises covered by ${format.day(completeOn)}.`,
    short.length > 0 && completeOn === null && 'What is coming does not cover every promise.',
  ].filter((sentence) => sentence !== false);
  const [first] = short;
  const least = Math.min(...time.days.map(({ free }) => free));
  if (!first) return [`Never short: ${amount(least)} free at the least.`, lead.join(' ')];
  const isNow = first.from === time.days[0]?.on;
  // What it is short of at first may be less than the most it is short of.
  const begins = -(time.days.find(({ on }) => on === first.from)?.free ?? 0);
  const much = begins === first.most ? amount(first.most) : `up to ${amount(first.most)}`;
  const from = isNow ? (begins === first.most ? 'now' : 'from now on') : `from ${format.day(first.from)}`;
  return [
    first.until === null
      ? `Short by ${much} ${from}, with nothing on order to cover it.`
      : `Short by ${much} ${from}, free again on ${format.day(first.until)}.`,
    lead.join(' '),
  ];
}
