import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseDecimal, type Quantity } from '../number/index.ts';
import {
  type Demand,
  missingByItem,
  peg as pegPicture,
  type Share,
  type Supply,
  sharesOf,
  sourceKey,
} from './index.ts';

const calendar = { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) };
const peg = (demands: readonly Demand[], supplies: readonly Supply[]) =>
  pegPicture({ demands, supplies, calendar }).pegged;

const q = (text: string) => parseDecimal(text) as Quantity;

interface OpenBuild {
  readonly id: number;
  readonly onBench: boolean;
  readonly due: string | null;
  readonly needs: ReadonlyMap<number, Quantity>;
}
interface Arrival {
  readonly itemId: number;
  readonly quantity: Quantity;
  readonly date: string | null;
  readonly buildId: number | null;
}

/** Builds by what each got and lacks, in turn. */
function allot(builds: readonly OpenBuild[], onHand: ReadonlyMap<number, Quantity>, coming: readonly Arrival[] = []) {
  const demands = builds.flatMap(({ id, onBench, due, needs }) =>
    [...needs].map(
      ([itemId, quantity]): Demand => ({
        source: { kind: 'build', id },
        lineId: null,
        itemId,
        quantity,
        decimals: 0,
        turn: { begun: onBench, priority: null, wantedOn: due, age: id },
        stores: null,
        alternates: [],
      }),
    ),
  );
  const shelf = [...onHand].map(
    ([itemId, quantity]): Supply => ({
      from: { kind: 'shelf', id: 1 },
      itemId,
      quantity: Math.max(0, quantity) as Quantity,
      on: '',
      storeId: 1,
      only: null,
    }),
  );
  const arrivals = coming.map(
    ({ itemId, quantity, date, buildId }, index): Supply => ({
      from: buildId === null ? { kind: 'purchase', id: index } : { kind: 'build', id: buildId },
      itemId,
      quantity,
      on: date,
      storeId: null,
      only: null,
    }),
  );
  const shares = sharesOf(peg(demands, [...shelf, ...arrivals]));
  const none = ({ id }: OpenBuild): Share => ({ source: { kind: 'build', id }, got: new Map(), short: new Map() });
  const inTurn = [...shares.keys()];
  const turn = ({ id }: OpenBuild) => inTurn.indexOf(sourceKey({ kind: 'build', id }));
  return [...builds]
    .sort((a, b) => turn(a) - turn(b))
    .map((build) => ({
      buildId: build.id,
      ...(shares.get(sourceKey({ kind: 'build', id: build.id })) ?? none(build)),
    }));
}

describe('builds that share shelves and what is coming', () => {
  const one = (id: number, need: string, due: string | null = '2026-12-01'): OpenBuild => ({
    id,
    onBench: false,
    due,
    needs: new Map([[1, q(need)]]),
  });
  const come = (quantity: string, date: string | null, buildId: number | null = null) => ({
    itemId: 1,
    quantity: q(quantity),
    date,
    buildId,
  });

  it('lacks nothing where all is there, and waits for just what it lacks', () => {
    const [first, second] = allot([one(1, '3'), one(2, '3')], new Map([[1, q('3')]]), [come('3', '2026-12-05')]);
    expect([first?.short.size, first?.got.get(1)]).toEqual([0, q('3')]);
    expect(second?.short.get(1)).toEqual({ quantity: q('3'), isComing: true, completeOn: '2026-12-05' });
    const [all] = allot([one(1, '3')], new Map(), []);
    expect(all?.short.get(1)).toEqual({ quantity: q('3'), isComing: false, completeOn: null });
    const [part] = allot([one(1, '3')], new Map(), [come('2', '2026-12-05')]);
    expect(part?.short.get(1)).toEqual({ quantity: q('3'), isComing: true, completeOn: null });
  });

  it('never waits for what it makes itself, and leaves that to others', () => {
    const arrivals = [come('9', '2026-12-02', 1), come('9', '2026-12-07')];
    const [maker, other] = allot([one(1, '3'), one(2, '3')], new Map(), arrivals);
    expect(maker?.short.get(1)?.completeOn).toBe('2026-12-07');
    expect(other?.short.get(1)?.completeOn).toBe('2026-12-02');
    // What is given to one is not there for the next; what comes without a day comes last.
    const used = allot([one(1, '9'), one(2, '1'), one(3, '1')], new Map(), [
      come('1', null),
      come('9', '2026-12-01'),
      come('1', '2026-12-03'),
    ]);
    expect(used.map(({ short }) => short.get(1)?.completeOn)).toEqual(['2026-12-01', '2026-12-03', null]);
    expect(used[2]?.short.get(1)?.isComing).toBe(true);
  });

  it('names first what it waits for longest: what has no day, then the last to come', () => {
    const needs = new Map([1, 2, 3, 4].map((itemId) => [itemId, q('3')]));
    const build = { id: 1, onBench: false, due: null, needs };
    const on = (itemId: number, date: string) => ({ ...come('3', date), itemId });
    const arrivals = [on(1, '2026-12-02'), on(2, '2026-12-24'), on(4, '2026-12-05')];
    const [share] = allot([build], new Map(), arrivals);
    expect([...(share?.short ?? [])].map(([itemId, { completeOn }]) => [itemId, completeOn])).toEqual([
      [3, null],
      [2, '2026-12-24'],
      [4, '2026-12-05'],
      [1, '2026-12-02'],
    ]);
  });

  it('serves the older of two that are due on one day, and none without a date before one with', () => {
    const order = (...builds: OpenBuild[]) => allot(builds, new Map()).map(({ buildId }) => buildId);
    expect(order(one(9, '1'), one(4, '1'), one(7, '1', null), one(5, '1', null), one(8, '1', '9998-01-01'))).toEqual([
      4, 9, 8, 5, 7,
    ]);
  });

  const build = fc.record({
    onBench: fc.boolean(),
    due: fc.constantFrom(null, '2026-11-20', '2026-12-01'),
    needs: fc.dictionary(fc.constantFrom('1', '2', '3'), fc.integer({ min: 0, max: 50 }), { maxKeys: 3 }),
  });

  it('never promises a part twice, and what it gives and what is short make up the need', () => {
    fc.assert(
      fc.property(
        fc.array(build, { maxLength: 8 }),
        fc.array(fc.integer({ min: -5, max: 80 }), { minLength: 4, maxLength: 4 }),
        (raw, stock) => {
          const builds: OpenBuild[] = raw.map(({ needs, ...rest }, id) => ({
            ...rest,
            id,
            needs: new Map(Object.entries(needs).map(([itemId, need]) => [Number(itemId), need as Quantity])),
          }));
          const onHand = new Map(stock.map((amount, itemId) => [itemId, amount as Quantity]));
          const allotments = allot(builds, onHand);
          for (const [itemId, there] of onHand) {
            const given = allotments.reduce((sum, { got }) => sum + (got.get(itemId) ?? 0), 0);
            expect(given).toBeLessThanOrEqual(Math.max(0, there));
          }
          for (const { buildId, got, short } of allotments) {
            for (const [itemId, need] of builds[buildId]?.needs ?? []) {
              expect((got.get(itemId) ?? 0) + (short.get(itemId)?.quantity ?? 0)).toBe(need);
            }
          }
        },
      ),
    );
  });

  it('serves the bench first, then the earliest due, then the oldest', () => {
    const open = (id: number, onBench: boolean, due: string | null): OpenBuild => ({
      id,
      onBench,
      due,
      needs: new Map([[1, q('4')]]),
    });
    const order = allot(
      [open(1, false, null), open(2, false, '2026-12-02'), open(3, false, '2026-12-01'), open(4, true, null)],
      new Map([[1, q('10')]]),
    );
    expect(order.map(({ buildId, short }) => [buildId, short.get(1)?.quantity ?? 0])).toEqual([
      [4, 0],
      [3, 0],
      [2, q('2')],
      [1, q('4')],
    ]);
  });

  it('hands out what is coming in the same turn, never twice and never to the build that brings it', () => {
    const build = (id: number, due: string, need: string): OpenBuild => ({
      id,
      onBench: false,
      due,
      needs: new Map([[1, q(need)]]),
    });
    const arrival = (quantity: string, date: string | null, buildId: number | null = null) => ({
      itemId: 1,
      quantity: q(quantity),
      date,
      buildId,
    });
    const [first, second, third] = allot(
      [build(1, '2026-12-01', '5'), build(2, '2026-12-02', '4'), build(3, '2026-12-03', '9')],
      new Map([[1, q('3')]]),
      [arrival('3', null), arrival('3', '2026-12-09'), arrival('2', '2026-12-01'), arrival('7', '2026-12-04', 3)],
    );
    expect(first?.short.get(1)).toEqual({ quantity: q('2'), isComing: true, completeOn: '2026-12-01' });
    expect(second?.short.get(1)).toEqual({ quantity: q('4'), isComing: true, completeOn: '2026-12-04' });
    expect(third?.short.get(1)).toEqual({ quantity: q('9'), isComing: true, completeOn: null });
  });
});

describe('what has to be bought', () => {
  const needing = (kind: 'build' | 'reorder', id: number, quantity: Quantity): Demand => ({
    source: { kind, id },
    lineId: null,
    itemId: 1,
    quantity,
    decimals: 0,
    turn: { begun: false, priority: null, wantedOn: null, age: id },
    stores: null,
    alternates: [],
  });
  const supply = (kind: 'shelf' | 'purchase', quantity: Quantity): Supply => ({
    from: { kind, id: 1 },
    itemId: 1,
    quantity,
    on: kind === 'shelf' ? '' : null,
    storeId: null,
    only: null,
  });
  interface Stand {
    readonly usable: Quantity;
    readonly promised: Quantity;
    readonly coming: Quantity;
    readonly reorderPoint: Quantity | null;
  }
  const toBuy = ({ usable, promised, coming, reorderPoint }: Stand) => {
    const demands = [needing('build', 1, promised), needing('reorder', 1, reorderPoint ?? (0 as Quantity))];
    return missingByItem(peg(demands, [supply('shelf', usable), supply('purchase', coming)])).get(1) ?? 0;
  };

  it('brings stock back to its reorder point after every promise, and counts what is coming', () => {
    const stand = { usable: q('10'), promised: q('14'), coming: q('2'), reorderPoint: q('5') };
    expect(toBuy(stand)).toBe(q('7'));
    expect(toBuy({ ...stand, reorderPoint: null })).toBe(q('2'));
    expect(toBuy({ ...stand, coming: q('9') })).toBe(0);
  });

  it('is what promises and the reorder point are more than what is there and coming, also below zero', () => {
    const amount = fc.integer({ min: 0, max: 50 }).map((n) => n as Quantity);
    const usable = fc.integer({ min: -20, max: 50 }).map((n) => n as Quantity);
    fc.assert(
      fc.property(usable, amount, amount, amount, (there, promised, coming, reorderPoint) => {
        const missing = reorderPoint + promised - there - coming;
        expect(toBuy({ usable: there, promised, coming, reorderPoint })).toBe(Math.max(0, missing));
      }),
    );
  });

  it('is shared among the builds that lack it in turn, after what earlier orders bring them', () => {
    const builds = [needing('build', 1, q('5')), needing('build', 2, q('4'))];
    const lacks = (covered: string) =>
      peg(builds, [supply('purchase', q(covered))]).flatMap(({ demand, short }) =>
        short > 0 ? [[demand.source.id, short]] : [],
      );
    expect(lacks('0')).toEqual([
      [1, q('5')],
      [2, q('4')],
    ]);
    expect(lacks('6')).toEqual([[2, q('3')]]);
  });
});
