import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseDecimal, type Quantity, SCALE } from '../number/index.ts';
import {
  byDay,
  byTurn,
  type Demand,
  latest,
  missingByItem,
  type Pegged,
  peg as pegPicture,
  type Supply,
  type WhenThere,
} from './index.ts';

/** A Wednesday. */
const calendar = { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) };
const peg = (demands: readonly Demand[], supplies: readonly Supply[]) =>
  pegPicture({ demands, supplies, calendar }).pegged;

const q = (text: string) => parseDecimal(text) as Quantity;
const demand = (id: number, quantity: string, more: Partial<Demand> = {}): Demand => ({
  source: { kind: 'build', id },
  lineId: null,
  itemId: 1,
  quantity: q(quantity),
  decimals: 0,
  turn: { begun: false, priority: null, wantedOn: null, age: id },
  stores: null,
  alternates: [],
  ...more,
});
const shelf = (quantity: string, more: Partial<Supply> = {}): Supply => ({
  from: { kind: 'shelf', id: 1 },
  itemId: 1,
  quantity: q(quantity),
  on: '',
  storeId: 1,
  only: null,
  ...more,
});
const purchase = (id: number, quantity: string, on: WhenThere, more: Partial<Supply> = {}): Supply =>
  shelf(quantity, { from: { kind: 'purchase', id }, on, storeId: null, ...more });
const figures = (pegging: readonly Pegged[]) =>
  pegging.map(({ demand: { source }, now, coming, short, completeOn }) => [
    `${source.kind} ${source.id}`,
    now / SCALE,
    coming / SCALE,
    short / SCALE,
    completeOn,
  ]);

describe('pegging', () => {
  it('gives what a build makes before a purchase of the same day, whatever the order they were told in', () => {
    const own = shelf('1', { from: { kind: 'build', id: 2 }, on: null, storeId: null });
    const supplies = [purchase(1, '1', null), own];
    for (const told of [supplies, [...supplies].reverse()])
      expect(figures(peg([demand(1, '1'), demand(2, '1')], told))).toEqual([
        ['build 1', 0, 1, 0, null],
        ['build 2', 0, 1, 0, null],
      ]);
  });

  it('serves what has begun, then the owner’s priority, then the day wanted, then age; the reorder point last', () => {
    const turn = (begun: boolean, priority: number | null, wantedOn: string | null, age: number) => ({
      turn: { begun, priority, wantedOn, age },
    });
    const demands = [
      demand(1, '1', { source: { kind: 'reorder', id: 1 }, ...turn(true, 0, '2000-01-01', 0) }),
      demand(2, '1', turn(false, null, null, 1)),
      demand(3, '1', turn(false, null, '2026-12-02', 9)),
      demand(4, '1', turn(false, null, '2026-12-02', 3)),
      demand(5, '1', turn(false, -1, null, 9)),
      demand(6, '1', turn(false, -2, null, 9)),
      demand(7, '1', turn(true, null, null, 9)),
      demand(8, '1', turn(false, 1, '2000-01-01', 0)),
    ];
    expect([...demands].sort(byTurn).map(({ source }) => source.id)).toEqual([7, 6, 5, 4, 3, 2, 8, 1]);
    expect(figures(peg(demands, [shelf('3')])).map(([name, now]) => [name, now])).toEqual([
      ['build 7', 1],
      ['build 6', 1],
      ['build 5', 1],
      ['build 4', 0],
      ['build 3', 0],
      ['build 2', 0],
      ['build 8', 0],
      ['reorder 1', 0],
    ]);
  });

  it('tells ready, whole on a day and short, and what feeds whom', () => {
    const pegging = peg(
      [demand(1, '5'), demand(2, '4'), demand(3, '9')],
      [purchase(7, '2', null), shelf('6'), purchase(8, '3', '2026-12-09')],
    );
    expect(figures(pegging)).toEqual([
      ['build 1', 5, 0, 0, ''],
      ['build 2', 1, 3, 0, '2026-12-09'],
      ['build 3', 0, 2, 7, null],
    ]);
    expect(pegging.map(({ given }) => given.map(({ supply, quantity }) => [supply.from.id, quantity / SCALE]))).toEqual(
      [
        [[1, 5]],
        [
          [1, 1],
          [8, 3],
        ],
        [[7, 2]],
      ],
    );
    expect([...missingByItem(pegging)]).toEqual([[1, q('7')]]);
  });

  it('pays what a shelf below zero owes before anybody is served', () => {
    const owing = [
      shelf('-4'),
      shelf('6', { from: { kind: 'shelf', id: 2 }, storeId: 2 }),
      purchase(5, '9', '2026-12-04'),
    ];
    expect(figures(peg([demand(1, '5')], owing))).toEqual([
      ['owed 1', 4, 0, 0, ''],
      ['build 1', 2, 3, 0, '2026-12-04'],
    ]);
    expect([...missingByItem(peg([], [shelf('-4')]))]).toEqual([[1, q('4')]]);
  });

  it('keeps to stores, leaves to a source what stands for it alone, and lets nothing feed itself', () => {
    const north = new Set([2]);
    expect(figures(peg([demand(1, '5', { stores: north })], [shelf('9'), shelf('3', { storeId: 2 })]))).toEqual([
      ['build 1', 3, 0, 2, null],
    ]);
    expect(peg([demand(1, '2', { stores: north })], [purchase(4, '2', '2026-12-01')])[0]?.coming).toBe(q('2'));
    const alone = shelf('5', { only: { kind: 'build', id: 2 } });
    expect(figures(peg([demand(1, '5'), demand(2, '5')], [alone])).map(([, now]) => now)).toEqual([0, 5]);
    const other = shelf('5', { only: { kind: 'order', id: 1 } });
    expect(figures(peg([demand(1, '5')], [other])).map(([, now]) => now)).toEqual([0]);
    const own = purchase(1, '5', '2026-12-01', { from: { kind: 'build', id: 1 } });
    expect(figures(peg([demand(1, '5'), demand(2, '5')], [own])).map(([, , coming]) => coming)).toEqual([0, 5]);
    // An order's line of the same number is somebody else.
    expect(peg([demand(1, '5', { source: { kind: 'order', id: 1 } })], [own])[0]?.coming).toBe(q('5'));
  });

  it('offers what may stand in once the part is used up, in its order, counted once and never what is needed itself', () => {
    const alternates = [
      { itemId: 2, ratio: q('2'), decimals: 0 },
      { itemId: 3, ratio: q('1'), decimals: 0 },
    ];
    const stock = [
      shelf('2'),
      shelf('5', { itemId: 2 }),
      shelf('9', { itemId: 3 }),
      purchase(1, '90', '2026-12-01', { itemId: 2 }),
    ];
    const own = demand(9, '7', { itemId: 3 });
    const pegging = peg([demand(1, '4', { alternates }), demand(2, '3', { alternates }), own], stock);
    const offered = pegging.map(({ standIns }) =>
      standIns.map(({ itemId, quantity, standsFor }) => [itemId, quantity / SCALE, standsFor / SCALE]),
    );
    // Two of the first for one: 4 of its 5 do for both that the first lacks. The third item is free by 2.
    expect(offered).toEqual([[[2, 4, 2]], [[3, 2, 2]], []]);
    expect(figures(pegging).map(([, now]) => now)).toEqual([2, 0, 7]);
  });

  it('knows days: now, then the calendar, then nobody knows', () => {
    expect((['2026-12-01', null, '', '2026-11-30'] as WhenThere[]).sort(byDay)).toEqual([
      '',
      '2026-11-30',
      '2026-12-01',
      null,
    ]);
    expect(byDay(null, null)).toBe(0);
    expect([latest([]), latest(['', '2026-12-01', '2026-11-30']), latest(['', null])]).toEqual([
      '',
      '2026-12-01',
      null,
    ]);
  });
});

describe('pegging against the slowest reckoning', () => {
  const DAYS = ['', '2026-12-01', '2026-12-05', null] as const;
  const anyDemand = fc.record({
    itemId: fc.integer({ min: 1, max: 3 }),
    source: fc.integer({ min: 1, max: 4 }),
    kind: fc.constantFrom('build' as const, 'order' as const, 'reorder' as const),
    quantity: fc.integer({ min: 1, max: 9 }),
    begun: fc.boolean(),
    priority: fc.constantFrom(null, -2, -1, 1),
    wantedOn: fc.constantFrom(null, '2026-11-20', '2026-12-01'),
    stores: fc.constantFrom(null, [1], [2], [1, 2]),
    alternates: fc.uniqueArray(
      fc.record({ itemId: fc.integer({ min: 4, max: 6 }), ratio: fc.integer({ min: 1, max: 3 }) }),
      {
        maxLength: 2,
        selector: ({ itemId }) => itemId,
      },
    ),
  });
  const anySupply = fc.record({
    itemId: fc.integer({ min: 1, max: 6 }),
    quantity: fc.integer({ min: -6, max: 14 }),
    kind: fc.constantFrom('shelf' as const, 'purchase' as const, 'build' as const),
    id: fc.integer({ min: 1, max: 4 }),
    on: fc.constantFrom('2026-12-01', '2026-12-05', null),
    storeId: fc.constantFrom(null, 1, 2),
    only: fc.constantFrom(null, null, null, 1, 2),
  });
  const picture = fc
    .tuple(fc.array(anyDemand, { maxLength: 9 }), fc.array(anySupply, { maxLength: 9 }))
    .map(([demands, supplies]): [Demand[], Supply[]] => [
      demands.map((raw, age) => ({
        source: { kind: raw.kind, id: raw.source },
        lineId: age,
        itemId: raw.itemId,
        quantity: (raw.quantity * SCALE) as Quantity,
        decimals: 0,
        turn: { begun: raw.begun, priority: raw.priority, wantedOn: raw.wantedOn, age },
        stores: raw.stores && new Set(raw.stores),
        alternates: raw.alternates.map(({ itemId, ratio }) => ({
          itemId,
          ratio: (ratio * SCALE) as Quantity,
          decimals: 0,
        })),
      })),
      supplies.map((raw) => ({
        from: { kind: raw.kind, id: raw.id },
        itemId: raw.itemId,
        // Only shelves can owe.
        quantity: ((raw.kind === 'shelf' ? raw.quantity : Math.abs(raw.quantity)) * SCALE) as Quantity,
        on: raw.kind === 'shelf' ? '' : raw.on,
        storeId: raw.storeId,
        only: raw.only && raw.quantity > 0 ? { kind: 'build' as const, id: raw.only } : null,
      })),
    ]);

  /** Hands out one unit after the other: for each unit somebody needs, the first that may serve it. */
  function slowly(demands: readonly Demand[], supplies: readonly Supply[]) {
    // Of the same day: shelves as they were told, then what is made, then what is bought, the older first.
    const told = [
      ...supplies.filter(({ from }) => from.kind === 'shelf'),
      ...['build', 'purchase'].flatMap((kind) =>
        [1, 2, 3, 4].flatMap((id) => supplies.filter(({ from }) => from.kind === kind && from.id === id)),
      ),
    ];
    const units = told.flatMap((supply) =>
      Array.from({ length: Math.max(0, supply.quantity / SCALE) }, () => ({ supply, taken: false })),
    );
    const may = (supply: Supply, { source, stores }: Demand) =>
      (supply.only === null || (supply.only.kind === source.kind && supply.only.id === source.id)) &&
      !(supply.from.kind === 'build' && source.kind === 'build' && supply.from.id === source.id) &&
      (stores === null || supply.storeId === null || stores.has(supply.storeId));
    for (const owing of supplies.filter(({ quantity }) => quantity < 0))
      for (let unit = 0; unit < -owing.quantity / SCALE; unit += 1) {
        const first = DAYS.flatMap((day) =>
          units.filter(
            ({ supply, taken }) =>
              !taken && supply.itemId === owing.itemId && supply.only === null && supply.on === day,
          ),
        )[0];
        if (first) first.taken = true;
      }
    const last = ({ source }: Demand) => source.kind === 'reorder';
    const turn = [...demands].sort(
      (a, b) =>
        Number(last(a)) - Number(last(b)) ||
        Number(b.turn.begun) - Number(a.turn.begun) ||
        (a.turn.priority ?? 0) - (b.turn.priority ?? 0) ||
        (a.turn.wantedOn ?? '9').localeCompare(b.turn.wantedOn ?? '9') ||
        a.turn.age - b.turn.age,
    );
    const served = turn.map((one) => {
      const days: WhenThere[] = [];
      for (let unit = 0; unit < one.quantity / SCALE; unit += 1) {
        // What is kept for it alone, then what comes first.
        const first = [true, false].flatMap((kept) =>
          DAYS.flatMap((day) =>
            units.filter(
              ({ supply, taken }) =>
                !taken &&
                supply.itemId === one.itemId &&
                supply.on === day &&
                (supply.only !== null) === kept &&
                may(supply, one),
            ),
          ),
        )[0];
        if (!first) continue;
        first.taken = true;
        days.push(first.supply.on);
      }
      return { one, days };
    });
    return served.map(({ one, days }) => {
      let open = one.quantity / SCALE - days.filter((day) => day === '').length;
      const standIns: [number, number, number][] = [];
      for (const { itemId, ratio } of one.alternates) {
        const each = ratio / SCALE;
        const free = units.filter(
          ({ supply, taken }) =>
            !taken && supply.itemId === itemId && supply.on === '' && supply.only === null && may(supply, one),
        );
        const parts = Math.min(open, Math.floor(free.length / each));
        for (const unit of free.slice(0, parts < open ? free.length : parts * each)) unit.taken = true;
        if (open > 0 && parts > 0) standIns.push([itemId, parts * each, parts]);
        open -= parts;
        if (open === 0) break;
      }
      const whole = days.length === one.quantity / SCALE && !days.includes(null);
      return {
        line: one.lineId,
        now: days.filter((day) => day === '').length,
        coming: days.filter((day) => day !== '').length,
        completeOn: whole ? ([...days].sort().at(-1) ?? '') : null,
        standIns,
      };
    });
  }

  it('gives the same to everybody, in the same turn', () => {
    fc.assert(
      fc.property(picture, ([demands, supplies]) => {
        const quick = peg(demands, supplies).filter(({ demand }) => demand.source.kind !== 'owed');
        expect(
          quick.map(({ demand, now, coming, completeOn, standIns }) => ({
            line: demand.lineId,
            now: now / SCALE,
            coming: coming / SCALE,
            completeOn,
            standIns: standIns.map((one) => [one.itemId, one.quantity / SCALE, one.standsFor / SCALE]),
          })),
        ).toEqual(slowly(demands, supplies));
      }),
      { numRuns: 400 },
    );
  });

  it('never gives anything twice, and what it gives and what is short make up the need', () => {
    fc.assert(
      fc.property(picture, ([demands, supplies]) => {
        const pegging = peg(demands, supplies);
        const given = new Map<Supply, number>();
        for (const { demand, given: own, now, coming, short } of pegging) {
          expect(now + coming + short).toBe(demand.quantity);
          for (const { supply, quantity } of own) given.set(supply, (given.get(supply) ?? 0) + quantity);
        }
        for (const [supply, quantity] of given) expect(quantity).toBeLessThanOrEqual(supply.quantity);
      }),
    );
  });
});
