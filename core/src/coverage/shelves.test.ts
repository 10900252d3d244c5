import { describe, expect, it } from 'vitest';
import type { PartLine, Revision } from '../definitions/index.ts';
import type { Demand, Source, Supply } from '../demand/index.ts';
import { type Percent, type Quantity, SCALE, ZERO } from '../number/index.ts';
import { cover, type Question, World } from './index.ts';
import { smallWorld } from './small-world.ts';

const q = (n: number) => (n * SCALE) as Quantity;
const part = (itemId: number, n: number): PartLine => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(n),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals: 0,
});
const makes = (...lines: PartLine[]): Revision => ({ outputQuantity: q(1), lines });
const needs = (source: Source, itemId: number, n: number): Demand => ({
  ...{ source, lineId: itemId, itemId, quantity: q(n), decimals: 0, stores: null, alternates: [] },
  turn: { begun: false, priority: null, wantedOn: null, age: 1 },
});
const comes = (
  from: Supply['from'],
  itemId: number,
  n: number,
  on: string | null,
  more: Partial<Supply> = {},
): Supply => ({
  ...{ from, itemId, quantity: q(n), on, storeId: null, only: null },
  ...more,
});

/** Item 1 stands in several stores; 10 takes two of it and one of 2, 11 takes three of it and nine of 3. */
function here(
  stock: Readonly<Record<number, readonly (readonly [store: number, n: number])[]>>,
  more: { demands?: Demand[]; supplies?: Supply[] } = {},
) {
  const revisions = new Map([
    [10, makes(part(1, 2), part(2, 1))],
    [11, makes(part(1, 3), part(3, 9))],
  ]);
  const world = smallWorld({
    ...{
      items: [1, 2, 3, 10, 11],
      revisionOf: (id) => revisions.get(id),
      decimalsOf: () => 0,
      comingOf: () => [],
      more,
    },
    stockOf: () => ({ onHand: ZERO, promised: ZERO }),
  });
  const items = [...world.known.items.values()].map((item) => ({
    ...item,
    stock: new Map((stock[item.id] ?? []).map(([store, n]) => [store, q(n)])),
  }));
  return new World({ ...world.known, items: new Map(items.map((item) => [item.id, item])) });
}
const asked = (world: World, wanted: readonly (readonly [itemId: number, n: number])[], more: Partial<Question> = {}) =>
  cover(world, { wanted: wanted.map(([itemId, n]) => ({ itemId, quantity: q(n) })), ...more });
const ofItem = (answer: ReturnType<typeof cover>, id: number) => answer.components.find(({ itemId }) => itemId === id);

describe('stores that were not asked for', () => {
  const stock = {
    1: [
      [1, 2],
      [2, 3],
      [3, 5],
      [4, -1],
      [5, 3],
    ],
  } as const;
  const elsewhere = (n: number, promised: number) =>
    ofItem(
      asked(here(stock, { demands: [needs({ kind: 'order', id: 1 }, 1, promised)] }), [[10, n]], {
        stores: new Set([1]),
      }),
      1,
    )?.elsewhere.map(({ storeId, quantity }) => [storeId, quantity / SCALE]);

  it('have what nobody was promised, the fullest first, and are told only where it is needed', () => {
    expect(elsewhere(2, 0)).toEqual([
      [3, 5],
      [2, 3],
      [5, 2],
    ]);
    expect(elsewhere(2, 4)).toEqual([
      [3, 5],
      [2, 1],
    ]);
    expect(elsewhere(2, 9)).toEqual([[3, 1]]);
    // Two are here, which is just enough.
    expect(elsewhere(1, 0)).toEqual([]);
    expect(elsewhere(1, 11)).toEqual([]);
  });

  it('are others, though the one that was asked for has the most', () => {
    const full = { 1: [[1, 10], [2, 4], [3, 0]] } as const; // biome-ignore format: a row
    const world = here(full, { demands: [needs({ kind: 'order', id: 1 }, 1, 3)] });
    const answer = asked(world, [[10, 9]], { stores: new Set([1]) });
    expect(ofItem(answer, 1)?.elsewhere).toEqual([{ storeId: 2, quantity: q(1) }]);
  });

  it('leave to those that were asked for no more than is free in all', () => {
    const world = here({ 1: [[1, 8], [2, 2]] }, { demands: [needs({ kind: 'order', id: 1 }, 1, 7)] }); // biome-ignore format: a row
    const free = (promised: ReadonlySet<number> | null) =>
      ofItem(asked(world, [[10, 1]], promised === null ? {} : { stores: promised }), 1)?.free;
    expect([free(null), free(new Set([1])), free(new Set([2]))]).toEqual([q(3), q(3), q(2)]);
  });

  it('are none where every store was asked for', () => {
    expect(ofItem(asked(here(stock), [[10, 99]]), 1)?.elsewhere).toEqual([]);
  });
});

describe('a part of several products', () => {
  const stock = { 1: [[1, 9]], 2: [[1, 1]], 3: [[1, 0]] } as const;
  const stops = (...wanted: [number, number][]) => {
    const at = ofItem(asked(here(stock), wanted), 1)?.stopsAt;
    return at && [at.itemId, at.enough / SCALE];
  };

  it('stops at the first that it alone is not enough for, whatever else that lacks', () => {
    expect(stops([10, 4])).toBe(null);
    expect(stops([10, 5])).toEqual([10, 4]);
    expect(stops([10, 3], [11, 1])).toBe(null);
    expect(stops([10, 3], [11, 2])).toEqual([11, 1]);
    expect(stops([11, 3], [10, 1])).toEqual([10, 0]);
  });
});

describe('what comes of a part', () => {
  it('is told by its day, bought or built, and what nobody knows the day of last', () => {
    const supplies = [
      comes({ kind: 'purchase', id: 7 }, 10, 1, null),
      comes({ kind: 'purchase', id: 6 }, 10, 1, '2026-12-09'),
      comes({ kind: 'purchase', id: 5 }, 10, 1, '2026-12-01'),
      comes({ kind: 'build', id: 4 }, 10, 1, null, { bench: 1 }),
      comes({ kind: 'purchase', id: 3 }, 10, 1, '2026-12-09'),
    ];
    const revisions = new Map([[11, makes(part(10, 1))]]);
    const world = here({}, { supplies });
    const definitions = new Map([
      ...world.known.definitions,
      [11, { ...(revisions.get(11) as Revision), itemId: 11, isDraft: false, benchDays: null }],
    ]);
    const answer = asked(new World({ ...world.known, definitions }), [[11, 9]]);
    expect(ofItem(answer, 10)?.arrivals.map(({ kind, id, on }) => [kind, id, on])).toEqual([
      ['build', 4, '2026-11-25'],
      ['purchase', 5, '2026-12-01'],
      ['purchase', 3, '2026-12-09'],
      ['purchase', 6, '2026-12-09'],
      ['purchase', 7, null],
    ]);
  });
});

describe('a world without what is asked for itself', () => {
  const order = { kind: 'order', id: 1 } as const;
  const planned = { kind: 'build', id: 2 } as const;
  const begun = { kind: 'build', id: 3 } as const;
  const small = here(
    { 1: [[1, 20]] },
    {
      demands: [needs(order, 1, 4), needs(planned, 1, 2), needs(begun, 1, 1), needs({ kind: 'order', id: 2 }, 10, 1)],
      supplies: [comes(planned, 10, 1, null, { bench: 1, only: order }), comes(begun, 11, 1, null, { bench: 1 })],
    },
  );
  const known = {
    ...small.known,
    supplies: new Map([...small.known.supplies].map(([key, one]) => [key, { ...one, isPlanned: one.from.id === 2 }])),
  };
  const world = new World(known);
  const left = (aside: World) => ({
    needed: [...aside.known.demands.values()].map(({ source, itemId }) => `${source.kind} ${source.id} ${itemId}`),
    coming: [...aside.known.supplies.values()].map(({ from, only }) => `${from.kind} ${from.id}${only ? ' kept' : ''}`),
  });

  it('leaves orders out, and what is built for them is there for whoever asks', () => {
    expect(left(world.without('orders'))).toEqual({
      needed: ['build 2 1', 'build 3 1'],
      coming: ['build 2', 'build 3'],
    });
  });

  it('leaves planned builds out with what they need and bring, and nothing else of the same number', () => {
    expect(left(world.without('builds'))).toEqual({
      needed: ['order 1 1', 'build 3 1', 'order 2 10'],
      coming: ['build 3'],
    });
  });
});
