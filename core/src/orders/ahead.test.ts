import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Demand, peg, type Supply } from '../demand/index.ts';
import type { Money, Percent, Quantity } from '../number/index.ts';
import { type AheadLine, lookAhead } from './index.ts';

const q = (n: number) => (n * 1e6) as Quantity;
const calendar = { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) };
const ITEMS = [1, 2, 3];
const items = new Map(ITEMS.map((id) => [id, { decimals: 0, averageCost: 2_000_000 as Money }]));
const demand = (id: number, itemId: number, quantity: number, wantedOn: string | null): Demand => ({
  source: { kind: 'order', id },
  lineId: id,
  itemId,
  quantity: q(quantity),
  decimals: 0,
  turn: { begun: false, priority: null, wantedOn, age: id },
  stores: null,
  alternates: [],
});
const shelf = (itemId: number, quantity: number): Supply => ({
  from: { kind: 'shelf', id: itemId },
  itemId,
  quantity: q(quantity),
  on: '',
  storeId: 1,
  only: null,
});
const bought = (itemId: number, quantity: number, on: string | null): Supply => ({
  ...shelf(itemId, quantity),
  from: { kind: 'purchase', id: 100 + itemId },
  on,
  storeId: null,
});
const line = (quantity: number, parts: readonly (readonly [number, number])[]): AheadLine => ({
  quantity: q(quantity),
  wantedOn: null,
  gone: { shipped: q(0), dropped: q(0) },
  packed: [],
  outputQuantity: q(1),
  parts: parts.map(([itemId, amount], position) => ({
    position,
    itemId,
    basis: 'per-output' as const,
    amount: q(amount),
    waste: 0 as Percent,
  })),
});
const order = { source: { kind: 'order', id: 9 }, wantedOn: '2026-12-05', turnOn: null, begun: false, age: 9 } as const;

describe('an order that is being typed', () => {
  it('gets what is left by those before it, and says whom it makes late and who keeps his turn', () => {
    const demands = [demand(1, 1, 4, '2026-12-01'), demand(2, 1, 5, '2026-12-20')];
    const picture = { demands, supplies: [shelf(1, 10), bought(1, 20, '2026-12-28')], calendar };
    const { lines, delays } = lookAhead(order, [line(3, [[1, 1]])], items, picture);
    expect(lines).toMatchObject([{ completeOn: '', plannedCost: 6_000_000 }]);
    expect(delays).toEqual([
      { source: { kind: 'order', id: 2 }, before: '', after: '2026-12-28', turnOn: '2026-12-20' },
    ]);
    // Where it gives way to the other, it waits itself.
    const late = lookAhead({ ...order, turnOn: '2026-12-21' }, [line(3, [[1, 1]])], items, picture);
    expect(late.lines).toMatchObject([{ completeOn: '2026-12-28' }]);
    expect([...(late.lines[0]?.parts.values() ?? [])]).toMatchObject([{ itemId: 1, missing: q(2) }]);
    expect(late.delays).toEqual([]);
  });

  it('says nothing of a line that cannot be ordered, or whose amount is more than can be counted', () => {
    const { lines } = lookAhead(order, [line(3, []), line(9e9, [[1, 9e8]])], items, {
      demands: [],
      supplies: [],
      calendar,
    });
    expect(lines).toMatchObject([
      { completeOn: '', plannedCost: null },
      { completeOn: '', plannedCost: null },
    ]);
  });

  const amount = fc.integer({ min: 0, max: 9 });
  const itemId = fc.constantFrom(...ITEMS);
  const day = fc.option(fc.constantFrom('2026-12-01', '2026-12-05', '2026-12-09'));
  const anyDemand = fc.tuple(itemId, fc.integer({ min: 1, max: 9 }), day);
  const anyLine = fc.tuple(
    fc.integer({ min: 1, max: 4 }),
    fc.array(fc.tuple(itemId, fc.constant(1)), { maxLength: 3 }),
  );

  it('gets exactly what pegging gives it once it is saved, and delays exactly whom it delays then', () => {
    fc.assert(
      fc.property(
        fc.array(anyDemand, { maxLength: 8 }),
        fc.array(anyLine, { minLength: 1, maxLength: 4 }),
        fc.tuple(amount, amount, amount),
        fc.option(fc.constantFrom('2026-12-03', '2026-12-08')),
        (others, typed, stock, comesOn) => {
          const demands = others.map(([id, quantity, on], n) => demand(n + 1, id, quantity, on));
          const supplies = ITEMS.flatMap((id, at) => [shelf(id, stock[at] ?? 0), bought(id, 6, comesOn)]);
          const lines = typed.map(([quantity, parts]) => line(quantity, parts));
          const { lines: looks, delays } = lookAhead({ ...order, source: { kind: 'order', id: 99 } }, lines, items, {
            demands,
            supplies,
            calendar,
          });
          let at = 0;
          const saved = lines.flatMap((own) =>
            own.parts.map((part) => {
              at += 1;
              return { ...demand(99, part.itemId, own.quantity / 1e6, order.wantedOn), lineId: at };
            }),
          );
          const after = peg({ demands: [...demands, ...saved], supplies, calendar }).pegged;
          const before = peg({ demands, supplies, calendar }).pegged;
          // What is missing of all its parts is what pegging does not find on shelves.
          const missing = looks
            .flatMap((look) => [...look.parts.values()])
            .reduce((sum, part) => sum + part.missing, 0);
          const own = after.filter(({ demand: { source } }) => source.id === 99);
          expect(missing).toBe(own.reduce((sum, pegged) => sum + pegged.demand.quantity - pegged.now, 0));
          const completeOn = (pegging: typeof after, id: number) =>
            pegging.find(({ demand: { source } }) => source.id === id)?.completeOn;
          const late = demands
            .map(({ source }) => source.id)
            .filter((id) => completeOn(before, id) !== completeOn(after, id));
          expect(delays.map(({ source }) => source.id).sort()).toEqual(late.sort());
        },
      ),
      { numRuns: 200 },
    );
  });
});
