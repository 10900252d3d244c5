import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayNumber, dayOfNumber, workedOff } from '../days/index.ts';
import { type Quantity, SCALE } from '../number/index.ts';
import { byDay, byTurn, type Demand, latest, peg, type Supply, type WhenThere } from './index.ts';

/** A Wednesday. */
const calendar = { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) };
const q = (n: number) => (n * SCALE) as Quantity;

const needs = (buildId: number, itemId: number, quantity: number, more: Partial<Demand> = {}): Demand => ({
  source: { kind: 'build', id: buildId },
  lineId: buildId * 10 + itemId,
  itemId,
  quantity: q(quantity),
  decimals: 0,
  turn: { begun: false, priority: null, wantedOn: null, age: buildId },
  stores: null,
  alternates: [],
  ...more,
});
const ordered = (orderId: number, itemId: number, quantity: number): Demand =>
  needs(orderId, itemId, quantity, { source: { kind: 'order', id: orderId } });
const supply = (kind: Supply['from']['kind'], id: number, itemId: number, quantity: number, on: WhenThere): Supply => ({
  from: { kind, id },
  itemId,
  quantity: q(quantity),
  on,
  storeId: null,
  only: null,
});
const makes = (buildId: number, itemId: number, quantity: number, bench: number): Supply => ({
  ...supply('build', buildId, itemId, quantity, null),
  bench,
});

describe('what builds make', () => {
  const days = (demands: Demand[], supplies: Supply[]) => {
    const { pegged, doneOn } = peg({ demands, supplies, calendar });
    return {
      whole: Object.fromEntries(
        pegged.map(({ demand: { source }, completeOn }) => [`${source.kind} ${source.id}`, completeOn]),
      ),
      done: Object.fromEntries(doneOn),
    };
  };

  it('comes when the last part is there and the bench time is over, through other builds', () => {
    // Screws come on a Friday; frames take a day, boxes of frames two, an order waits for those.
    expect(
      days(
        [needs(1, 1, 5), needs(2, 2, 3), ordered(3, 3, 1)],
        [supply('purchase', 1, 1, 5, '2026-11-27'), makes(1, 2, 3, 1), makes(2, 3, 1, 2)],
      ),
    ).toEqual({
      whole: { 'build 1': '2026-11-27', 'build 2': '2026-11-27', 'order 3': '2026-11-30' },
      done: { 1: '2026-11-27', 2: '2026-11-30' },
    });
  });

  it('is never earlier than today, and unknown where a part is missing or has no day', () => {
    expect(days([ordered(9, 2, 4)], [makes(1, 2, 4, 1)]).done).toEqual({ 1: '2026-11-25' });
    const late = [supply('shelf', 1, 1, 5, ''), makes(1, 2, 1, 3)];
    expect(days([needs(1, 1, 5)], late).done).toEqual({ 1: '2026-11-27' });
    expect(days([needs(1, 1, 6)], late)).toEqual({ whole: { 'build 1': null }, done: { 1: null } });
    expect(days([needs(1, 1, 1)], [supply('purchase', 1, 1, 5, null), makes(1, 2, 1, 3)]).done).toEqual({ 1: null });
  });

  it('may need its like: a unit that is refreshed is on the shelf, and its own build does not feed it', () => {
    const refresh = [supply('shelf', 1, 7, 1, ''), makes(1, 7, 1, 2)];
    expect(days([needs(1, 7, 1), ordered(2, 7, 1)], refresh)).toEqual({
      whole: { 'build 1': '', 'order 2': '2026-11-26' },
      done: { 1: '2026-11-26' },
    });
    // Two builds that wait for each other have no day.
    expect(days([needs(1, 7, 1), needs(2, 8, 1)], [makes(1, 8, 1, 1), makes(2, 7, 1, 1)]).done).toEqual({
      1: null,
      2: null,
    });
  });
});

describe('days of builds against the slowest reckoning', () => {
  /** Build n makes item 10 + n of items below that. */
  const anyBuild = fc.record({
    makes: fc.integer({ min: 1, max: 6 }),
    bench: fc.integer({ min: 1, max: 4 }),
    due: fc.constantFrom(null, '2026-12-01', '2026-12-09'),
    needs: fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 4 })), { maxLength: 3 }),
  });
  const anyBought = fc.tuple(
    fc.integer({ min: 0, max: 15 }),
    fc.integer({ min: 1, max: 9 }),
    fc.constantFrom('' as const, '2026-11-28', '2026-12-03', null),
  );
  const anyOrder = fc.tuple(fc.integer({ min: 0, max: 15 }), fc.integer({ min: 1, max: 9 }));
  const picture = fc
    .tuple(
      fc.array(anyBuild, { maxLength: 6 }),
      fc.array(anyBought, { maxLength: 9 }),
      fc.array(anyOrder, { maxLength: 4 }),
    )
    .map(([builds, bought, orders]) => {
      const demands = [
        ...builds.flatMap(({ needs: parts, due }, n) =>
          parts.map(([back, quantity], at) => ({
            // Only of items below its own, so that no ring of builds arises.
            ...needs(n, Math.max(0, 10 + n - 1 - back), quantity, {
              turn: { begun: false, priority: null, wantedOn: due, age: n },
            }),
            lineId: n * 10 + at,
          })),
        ),
        ...orders.map(([itemId, quantity], n) => ordered(n + 100, itemId, quantity)),
      ];
      const supplies = [
        ...bought.map(([itemId, quantity, on], n) => supply(on === '' ? 'shelf' : 'purchase', n, itemId, quantity, on)),
        ...builds.map((build, n) => makes(n, 10 + n, build.makes, build.bench)),
      ];
      return { demands, supplies, calendar };
    });

  /** Hands out unit by unit, item after item from the lowest. */
  function slowly({ demands, supplies }: { demands: Demand[]; supplies: Supply[] }) {
    const whole = new Map<Demand, WhenThere>();
    const done = new Map<number, WhenThere>();
    for (let itemId = 0; itemId < 20; itemId += 1) {
      const units = supplies
        .filter((one) => one.itemId === itemId)
        .map((one) => {
          if (one.bench === undefined) return one;
          const own = demands.filter(({ source }) => source.kind === 'build' && source.id === one.from.id);
          const last = latest(own.map((line) => whole.get(line) ?? null));
          const begin = dayNumber(!last || last < calendar.today ? calendar.today : last);
          const on = last === null ? null : dayOfNumber(workedOff(begin, one.bench, calendar.workDays));
          done.set(one.from.id, on);
          return { ...one, on };
        })
        .sort((a, b) => byDay(a.on, b.on))
        .flatMap(({ quantity, on }) => Array.from({ length: quantity / SCALE }, () => on));
      for (const line of demands.filter((one) => one.itemId === itemId).sort(byTurn)) {
        const own = units.splice(0, line.quantity / SCALE);
        whole.set(line, own.length < line.quantity / SCALE ? null : latest(own));
      }
    }
    return { whole, done };
  }

  it('are the same', () => {
    fc.assert(
      fc.property(picture, (some) => {
        const slow = slowly(some);
        const quick = peg(some);
        for (const { demand, completeOn } of quick.pegged) expect(completeOn).toBe(slow.whole.get(demand));
        expect([...quick.doneOn].sort(([a], [b]) => a - b)).toEqual([...slow.done].sort(([a], [b]) => a - b));
      }),
      { numRuns: 300 },
    );
  });

  it('are never later when more is bought, and the same in whatever order things are told', () => {
    fc.assert(
      fc.property(picture, anyBought, fc.infiniteStream(fc.double({ noNaN: true })), (some, [itemId, n, on], dice) => {
        const before = peg(some);
        const more = peg({ ...some, supplies: [...some.supplies, supply('purchase', 99, itemId, n, on || null)] });
        const was = new Map(before.pegged.map(({ demand, completeOn }) => [demand, completeOn]));
        for (const { demand, completeOn } of more.pegged)
          expect(byDay(completeOn, was.get(demand) ?? null)).toBeLessThanOrEqual(0);
        for (const [build, day] of more.doneOn)
          expect(byDay(day, before.doneOn.get(build) ?? null)).toBeLessThanOrEqual(0);
        const shuffled = <T>(all: readonly T[]) =>
          all
            .map((one) => [dice.next().value as number, one] as const)
            .sort(([a], [b]) => a - b)
            .map(([, one]) => one);
        const other = peg({ ...some, demands: shuffled(some.demands), supplies: shuffled(some.supplies) });
        for (const { demand, completeOn, now, coming, short } of other.pegged) {
          const same = before.pegged.find((one) => one.demand === demand);
          expect({ completeOn, now, coming, short }).toEqual({
            completeOn: same?.completeOn,
            now: same?.now,
            coming: same?.coming,
            short: same?.short,
          });
        }
      }),
      { numRuns: 300 },
    );
  });
});
