import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PartLine, Revision } from '../definitions/index.ts';
import { type Demand, peg, type Supply } from '../demand/index.ts';
import { type Percent, type Quantity, SCALE, ZERO } from '../number/index.ts';
import { type Asked, cover, needsOf, pegAsked, sourceOf } from './index.ts';
import { calendar, type SmallWorld, smallWorld } from './small-world.ts';

const q = (n: number) => (n * SCALE) as Quantity;
const part = (itemId: number, quantity: number): PartLine => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(quantity),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals: 0,
  alternates: [],
});
const labour = (minutes: number) => ({
  kind: 'labour' as const,
  basis: 'per-output' as const,
  minutes: q(minutes),
  ratePerHour: 0 as never,
});

/** 1 and 2 are bought; 11 is made of 1; 12 of 11 and 2; 13 of 12. */
const MADE = new Map<number, Revision>([
  [11, { outputQuantity: q(1), lines: [part(1, 2), labour(60)] }],
  [12, { outputQuantity: q(1), lines: [part(11, 1), part(2, 1), labour(240)] }],
  [13, { outputQuantity: q(2), lines: [part(12, 3)] }],
]);
const ITEMS = [1, 2, 11, 12, 13];

const needs = (kind: 'build' | 'order', id: number, itemId: number, n: number): Demand => ({
  source: { kind, id },
  lineId: itemId,
  itemId,
  quantity: q(n),
  decimals: 0,
  turn: { begun: false, priority: null, wantedOn: null, age: id },
  stores: null,
  alternates: [],
});
const builds = (id: number, itemId: number, n: number): { demands: Demand[]; supplies: Supply[] } => ({
  demands: (MADE.get(itemId)?.lines ?? []).flatMap((line) =>
    line.kind === 'part' ? needs('build', id, line.itemId, (line.quantity / SCALE) * n) : [],
  ),
  supplies: [
    { from: { kind: 'build', id }, itemId, quantity: q(n), on: null, bench: 1 + (id % 3), storeId: null, only: null },
  ],
});

describe('a question', () => {
  const anyWorld = fc
    .record({
      stock: fc.array(fc.integer({ min: -2, max: 9 }), { minLength: 5, maxLength: 5 }),
      coming: fc.array(
        fc.tuple(
          fc.constantFrom(...ITEMS),
          fc.integer({ min: 1, max: 9 }),
          fc.constantFrom('2026-11-28', '2026-12-03', null),
        ),
        { maxLength: 5 },
      ),
      builds: fc.array(fc.tuple(fc.constantFrom(11, 12, 13), fc.integer({ min: 1, max: 4 })), { maxLength: 4 }),
      orders: fc.array(fc.tuple(fc.constantFrom(...ITEMS), fc.integer({ min: 1, max: 4 })), { maxLength: 4 }),
    })
    .map((raw): SmallWorld => {
      const open = raw.builds.map(([itemId, n], at) => builds(at + 1, itemId, n));
      return {
        items: ITEMS,
        revisionOf: (itemId) => MADE.get(itemId),
        stockOf: (itemId) => ({ onHand: q(raw.stock[ITEMS.indexOf(itemId)] ?? 0), promised: ZERO }),
        comingOf: (itemId) =>
          raw.coming.filter(([id]) => id === itemId).map(([, n, date]) => ({ itemId, quantity: q(n), date })),
        decimalsOf: () => 0,
        more: {
          demands: [
            ...open.flatMap(({ demands }) => demands),
            ...raw.orders.map(([itemId, n], at) => needs('order', at + 50, itemId, n)),
          ],
          supplies: open.flatMap(({ supplies }) => supplies),
        },
      };
    });
  const anyAsked = fc.array(
    fc
      .record({ itemId: fc.constantFrom(11, 12, 13), toMake: fc.integer({ min: 0, max: 5 }), shelf: fc.nat(2) })
      .map(({ itemId, toMake, shelf }): Asked => {
        const made = MADE.get(itemId);
        const own = made ? needsOf(made, q(toMake)) : new Map<number, Quantity>();
        return { itemId, toMake: q(toMake), fromShelf: q(shelf), needs: own };
      }),
    { minLength: 1, maxLength: 3 },
  );

  it('is served exactly as if its builds were planned last, however little of the world is looked at', () => {
    fc.assert(
      fc.property(anyWorld, anyAsked, (small, asked) => {
        const world = smallWorld(small);
        const quick = pegAsked(world, asked, null);
        const { demands, supplies } = world.picture();
        const made = asked.flatMap(({ itemId, toMake }, index): Supply[] => {
          const definition = world.definitionOf(itemId);
          if (!definition || toMake === 0) return [];
          const from = { kind: 'build' as const, id: sourceOf(index) };
          const bench = world.benchOf(definition, toMake);
          return [{ from, itemId, quantity: toMake, on: null, bench, storeId: null, only: null }];
        });
        const own = asked.flatMap(({ itemId, toMake, fromShelf }, index): Demand[] => {
          const turn = { begun: false, priority: null, wantedOn: null, age: 1e12 + index };
          const demand = (kind: 'build' | 'order', part: number, quantity: Quantity): Demand => ({
            ...needs(kind, sourceOf(index), part, 1),
            ...{ lineId: null, quantity, turn },
          });
          const definition = world.definitionOf(itemId);
          return [
            ...(fromShelf > 0 ? [demand('order', itemId, fromShelf)] : []),
            ...(definition ? [...needsOf(definition, toMake)] : []).flatMap(([part, need]) =>
              need > 0 ? demand('build', part, need) : [],
            ),
          ];
        });
        const whole = peg({ demands: [...demands, ...own], supplies: [...supplies, ...made], calendar });
        for (const { index, itemId, quantity, now, short, completeOn } of quick.needs) {
          const same = whole.pegged.find(
            ({ demand: { source, itemId: part } }) =>
              source.kind === 'build' && source.id === sourceOf(index) && part === itemId,
          );
          expect([quantity, completeOn, now, short]).toEqual([
            same?.demand.quantity,
            same?.completeOn,
            same?.now,
            same?.short,
          ]);
        }
        for (const [build, day] of quick.doneOn) expect(day).toBe(whole.doneOn.get(build));
      }),
      { numRuns: 400 },
    );
  });

  const hand: SmallWorld = {
    items: ITEMS,
    revisionOf: (itemId) => MADE.get(itemId),
    stockOf: (itemId) => ({ onHand: q({ 1: 6, 2: 4, 11: 1 }[itemId] ?? 0), promised: ZERO }),
    comingOf: (itemId) => (itemId === 1 ? [{ itemId, quantity: q(10), date: '2026-12-04' }] : []),
    decimalsOf: () => 0,
  };
  it('counts what it makes itself as coming, on the day that is done', () => {
    const world = smallWorld(hand);
    const alone = cover(world, { wanted: [{ itemId: 12, quantity: q(3) }] });
    expect(alone.components).toMatchObject([{ itemId: 11, short: q(2), completeOn: null }, { itemId: 2 }]);
    const both = cover(world, {
      wanted: [
        { itemId: 12, quantity: q(3) },
        { itemId: 11, quantity: q(2) },
      ],
    });
    expect(both.components.find(({ itemId }) => itemId === 11)).toMatchObject({
      coming: q(2),
      short: 0,
      completeOn: '2026-11-25',
      arrivals: [{ kind: 'build', id: sourceOf(1), quantity: q(2), on: '2026-11-25' }],
    });
    // Three of them take a day and a half of the bench.
    expect(both.products.map(({ partsOn, completeOn }) => [partsOn, completeOn])).toEqual([
      ['2026-11-25', '2026-11-26'],
      ['', '2026-11-25'],
    ]);
  });

  it('says what is not there by a day, and takes finished ones from the shelf first where it is asked to', () => {
    const world = smallWorld(hand);
    const wanted = [{ itemId: 11, quantity: q(6) }];
    const answer = cover(world, { wanted, by: '2026-12-03' });
    expect(answer.components).toMatchObject([{ itemId: 1, needed: q(12), late: q(6), completeOn: '2026-12-04' }]);
    expect(cover(world, { wanted, by: '2026-12-04' }).components[0]?.late).toBe(0);
    expect(answer.products[0]).toMatchObject({ now: q(3), toMake: q(6), fromShelf: 0, completeOn: '2026-12-04' });
    const finished = cover(world, { wanted, finishedFirst: true });
    expect(finished.products[0]).toMatchObject({ now: q(3), toMake: q(5), fromShelf: q(1) });
    expect(finished.components[0]?.needed).toBe(q(10));
    expect(cover(world, { wanted: [{ itemId: 11, quantity: q(1) }], finishedFirst: true })).toMatchObject({
      products: [{ toMake: 0, completeOn: '' }],
      components: [],
      completeOn: '',
    });
  });

  it('gets what others make sooner by what it makes itself', () => {
    // A build makes three of 12, which 13 is made of, and waits for three of 11.
    const world = smallWorld({
      ...hand,
      stockOf: (id) => ({ onHand: q(id < 10 ? 99 : 0), promised: ZERO }),
      more: builds(2, 12, 3),
    });
    const of12 = (...wanted: [itemId: number, n: number][]) =>
      cover(world, { wanted: wanted.map(([itemId, n]) => ({ itemId, quantity: q(n) })) }).components.find(
        ({ itemId }) => itemId === 12,
      )?.completeOn;
    expect(of12([13, 2])).toBe(null);
    expect(of12([13, 2], [11, 3])).toBe('2026-11-27');
    expect(of12([13, 2], [11, 2])).toBe(null);
  });

  it('keeps to stores', () => {
    const answer = cover(smallWorld(hand), { wanted: [{ itemId: 11, quantity: q(2) }], stores: new Set([2]) });
    expect(answer.components).toMatchObject([{ free: 0, completeOn: '2026-12-04' }]);
  });
});
