import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { openToPick } from '../builds/index.ts';
import type { Percent, Quantity } from '../number/index.ts';
import {
  type Claim,
  type Goal,
  goalKey,
  neededFor,
  type OnShelf,
  offered,
  proposeRuns,
  stopsOf,
  type Wanted,
  walked,
} from './index.ts';

const q = (units: number) => (units * 1e6) as Quantity;
const build = (id: number): Goal => ({ kind: 'build', id });
const order = (id: number): Goal => ({ kind: 'order', id });
const want = (goal: Goal, itemId: number, open: number, lineId = itemId): Wanted => ({
  goal,
  lineId,
  itemId,
  open: q(open),
});
const shelf = (binId: number, itemId: number, quantity: number, more: Partial<OnShelf> = {}): OnShelf => ({
  storeId: 1,
  binId,
  itemId,
  lotId: null,
  serialId: null,
  quantity: q(quantity),
  ...more,
});

describe('a pick run', () => {
  it('tells apart at each stop where its goods go, and who comes first is served first', () => {
    const { stops, missing } = stopsOf(
      [want(build(56), 7, 3), want(order(142), 7, 2), want(order(143), 7, 4), want(build(56), 8, 1)],
      [shelf(1, 8, 1), shelf(2, 7, 4), shelf(5, 7, 2)],
    );
    expect(
      stops.map(({ binId, quantity, lines }) => [
        binId,
        quantity,
        lines.map((one) => [goalKey(one.goal), one.quantity]),
      ]),
    ).toEqual([
      [1, q(1), [['build:56', q(1)]]],
      [
        2,
        q(4),
        [
          ['build:56', q(3)],
          ['order:142', q(1)],
        ],
      ],
      [
        5,
        q(2),
        [
          ['order:142', q(1)],
          ['order:143', q(1)],
        ],
      ],
    ]);
    expect(missing).toEqual([{ goal: order(143), lineId: 7, itemId: 7, quantity: q(3) }]);
  });

  it('makes one stop of the serials of one bin, and stops of their own of its lots', () => {
    const units = [1, 2, 3].map((serialId) => shelf(4, 9, 1, { serialId }));
    expect(stopsOf([want(build(1), 9, 2)], units).stops).toMatchObject([
      { binId: 4, quantity: q(2), serialIds: [1, 2] },
    ]);
    const lots = [shelf(4, 9, 1, { lotId: 5 }), shelf(4, 9, 1, { lotId: 6 })];
    expect(stopsOf([want(build(1), 9, 2)], lots).stops.map(({ lotId }) => lotId)).toEqual([5, 6]);
  });

  it('brings the first lot to expire first, and from the bin that a line names', () => {
    const lots = [
      shelf(1, 9, 5, { lotId: 2, day: '2027-05-01' }),
      shelf(3, 8, 5),
      shelf(4, 9, 4, { lotId: 1, day: '2026-12-01' }),
      shelf(5, 9, 4, { lotId: 3, day: '9999' }),
    ];
    const { stops } = stopsOf([want(build(1), 9, 10), want(build(1), 8, 1)], lots);
    expect(stops.map(({ key, after, quantity }) => [key, after, quantity])).toEqual([
      ['4:9:1', null, q(4)],
      ['1:9:2', '4:9:1', q(5)],
      ['3:8:', null, q(1)],
      ['5:9:3', '1:9:2', q(1)],
    ]);
    // What expires first is taken first wherever it lies; of what expires on one day, what is met first.
    const few = stopsOf([want(build(1), 9, 6)], [...lots, shelf(6, 9, 4, { lotId: 4, day: '2026-12-01' })]);
    expect(few.stops.map(({ lotId, quantity }) => [lotId, quantity])).toEqual([
      [1, q(4)],
      [4, q(2)],
    ]);
    const bins = [shelf(1, 7, 5), shelf(2, 7, 5)];
    expect(stopsOf([{ ...want(build(1), 7, 6), fromBinId: 2 }], bins).stops.map((stop) => stop.quantity)).toEqual([
      q(1),
      q(5),
    ]);
  });

  const goals = fc.constantFrom(build(1), build(2), order(1), order(2));
  const wants = fc.array(fc.record({ goal: goals, itemId: fc.nat(4), open: fc.integer({ min: 1, max: 9 }).map(q) }), {
    maxLength: 20,
  });
  const places = fc.array(
    fc.record({
      storeId: fc.integer({ min: 1, max: 2 }),
      binId: fc.nat(5),
      itemId: fc.nat(4),
      quantity: fc.nat(9).map(q),
    }),
    { maxLength: 20 },
  );

  it('never takes more than is open or there, and what it does not bring is nowhere', () => {
    fc.assert(
      fc.property(wants, places, (all, there) => {
        const wanted = all.map((one, lineId) => ({ ...one, lineId }));
        const shelves = there.map((one, lotId) => ({ ...one, lotId, serialId: null }));
        const { stops, missing } = stopsOf(wanted, shelves);
        const sum = (values: readonly number[]) => values.reduce((total, one) => total + one, 0);
        for (const { lineId, open } of wanted) {
          const got = sum(
            stops.flatMap(({ lines }) =>
              lines.filter((line) => line.lineId === lineId).map(({ quantity }) => quantity),
            ),
          );
          const lacks = sum(missing.filter((line) => line.lineId === lineId).map(({ quantity }) => quantity));
          expect(got + lacks).toBe(open);
        }
        for (const { lotId, quantity } of shelves)
          expect(sum(stops.filter((stop) => stop.lotId === lotId).map((stop) => stop.quantity))).toBeLessThanOrEqual(
            quantity,
          );
        for (const { itemId } of missing) {
          const taken = sum(stops.filter((stop) => stop.itemId === itemId).map((stop) => stop.quantity));
          expect(taken).toBe(sum(shelves.filter((one) => one.itemId === itemId).map(({ quantity }) => quantity)));
        }
      }),
    );
  });

  it('is proposed of those who share their stops, everybody in one run of a store, with what it saves', () => {
    const shelves = [shelf(1, 1, 90), shelf(2, 2, 90), shelf(3, 3, 90), shelf(9, 9, 90, { storeId: 2 })];
    const wanted = [
      want(build(1), 1, 1),
      want(build(1), 2, 1),
      want(build(2), 1, 1),
      want(build(2), 2, 1),
      want(order(1), 3, 1),
      want(order(2), 9, 1),
      want(order(3), 8, 1),
    ];
    expect(proposeRuns(wanted, shelves)).toEqual([
      { storeId: 1, goals: [build(1), build(2)], stops: 2, shared: 2, saved: 2 },
      { storeId: 1, goals: [order(1)], stops: 1, shared: 0, saved: 0 },
      { storeId: 2, goals: [order(2)], stops: 1, shared: 0, saved: 0 },
    ]);
    // The run that saves the most comes first, wherever it is; of those that save as much, the longer one.
    const yard = [shelf(8, 8, 90, { storeId: 2 }), shelf(9, 9, 90, { storeId: 2 })];
    const there = [want(build(3), 8, 1), want(build(3), 9, 1), want(build(4), 8, 1), want(build(4), 9, 1)];
    const alone = [want(order(1), 3, 1), want(order(5), 1, 1), want(order(5), 2, 1)];
    expect(proposeRuns([...alone, ...there], [...shelves.slice(0, 3), ...yard]).map(({ goals }) => goals)).toEqual([
      [build(3), build(4)],
      [order(5)],
      [order(1)],
    ]);
    fc.assert(
      fc.property(wants, places, (all, there) => {
        const own = all.map((one, lineId) => ({ ...one, lineId }));
        const shelves_ = there.map((one, lotId) => ({ ...one, lotId, serialId: null }));
        const runs = proposeRuns(own, shelves_);
        const { stops } = stopsOf(own, shelves_);
        for (const storeId of [1, 2]) {
          const served = runs.filter((run) => run.storeId === storeId).flatMap((run) => run.goals.map(goalKey));
          const waiting = new Set(
            stops
              .filter((stop) => stop.storeId === storeId)
              .flatMap(({ lines }) => lines.map(({ goal }) => goalKey(goal))),
          );
          expect(served.toSorted()).toEqual([...waiting].toSorted());
        }
        for (const run of runs) expect(run.goals.length).toBeLessThanOrEqual(8);
      }),
    );
  });
});

describe('several people on one run', () => {
  const now = new Date('2026-11-26T10:00:00Z');
  const minutesAgo = (minutes: number) => new Date(now.getTime() - minutes * 60_000).toISOString();
  const stop = (key: string, after: string | null = null) => ({ key, after });
  const keys = (stops: readonly { key: string }[]) => stops.map(({ key }) => key).join(' ');

  it('are never sent where somebody is, nor to a lot that waits for another', () => {
    const stops = [stop('a'), stop('b'), stop('c', 'b'), stop('d')];
    const claims: Claim[] = [
      { key: 'a', personId: 1, at: minutesAgo(11) },
      { key: 'b', personId: 1, at: minutesAgo(9) },
    ];
    const me = { personId: 2, now, later: new Set<string>(), last: null };
    expect(keys(offered(stops, claims, me))).toBe('a d');
    expect(keys(offered(stops, claims, { ...me, personId: 1 }))).toBe('a b d');
    expect(keys(offered(stops, claims, { ...me, later: new Set(['a']) }))).toBe('d a');
    expect(keys(offered(stops, [], { ...me, last: 'b' }, ['a', 'b', 'c', 'd']))).toBe('b d a');
    expect(keys(offered([stop('c', 'b'), stop('d')], [], me))).toBe('c d');
  });

  it('walked so many stops and lines in so many minutes, whatever was typed in afterwards', () => {
    const at = (minutes: number) => new Date(now.getTime() + minutes * 60_000).toISOString();
    const picks = [
      { act: 1, begunAt: at(0), at: at(2), stops: 1, lines: 2 },
      { act: 1, begunAt: at(0), at: at(2), stops: 0, lines: 1 },
      { act: 3, begunAt: at(2), at: at(60), stops: 1, lines: 1 },
      { act: 4, begunAt: null, at: at(90), stops: 4, lines: 5 },
    ];
    expect(walked(picks)).toEqual({ stops: 6, lines: 9, minutes: 12, linesPerHour: 20 });
    expect(walked([])).toEqual({ stops: 0, lines: 0, minutes: 0, linesPerHour: null });
  });
});

describe('parts for some of a build', () => {
  it('are what these need beyond what stands on the bench; for all of it, what is open', () => {
    const need = { basis: 'per-output' as const, quantity: q(2), waste: 0 as Percent, decimals: 0 };
    const progress = { quantity: q(20), finished: q(0), outputQuantity: q(1) };
    expect(neededFor(need, progress, q(0), q(8))).toBe(q(16));
    expect(neededFor(need, progress, q(10), q(8))).toBe(q(6));
    expect(neededFor(need, progress, q(20), q(8))).toBe(0);
    const numbers = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(numbers, numbers, numbers, numbers, (finished, more, bench, units) => {
        const far = { ...progress, quantity: q(finished + more), finished: q(finished) };
        const some = neededFor(need, far, q(bench), q(units));
        expect(some).toBeLessThanOrEqual(openToPick(need, far, q(bench)));
        expect(neededFor(need, far, q(bench), q(more))).toBe(openToPick(need, far, q(bench)));
      }),
    );
  });
});
