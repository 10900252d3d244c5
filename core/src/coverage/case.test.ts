import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PartLine } from '../definitions/index.ts';
import type { Demand, Supply } from '../demand/index.ts';
import { add, type Percent, type Quantity, SCALE, ZERO } from '../number/index.ts';
import {
  type Change,
  changed,
  deliveriesOf,
  isLate,
  outcomeOf,
  overTime,
  shortStretches,
  standings,
  World,
} from './index.ts';
import { calendar, type SmallWorld, smallWorld } from './small-world.ts';

const q = (n: number) => (n * SCALE) as Quantity;
const ITEMS = [1, 2, 3];
const wants = (id: number, itemId: number, n: number, wantedOn: string | null, others: number[] = []): Demand => ({
  source: { kind: id > 50 ? 'order' : 'build', id },
  lineId: id,
  itemId,
  quantity: q(n),
  decimals: 0,
  turn: { begun: false, priority: null, wantedOn, age: id },
  stores: null,
  alternates: others.map((other) => ({ itemId: other, ratio: q(2), decimals: 0 })),
});
const bought = (id: number, itemId: number, n: number, on: string | null): Supply => ({
  from: { kind: 'purchase', id },
  itemId,
  quantity: q(n),
  on,
  storeId: null,
  only: null,
});
const world = (stock: Record<number, number>, demands: Demand[], supplies: Supply[]) =>
  smallWorld({
    items: ITEMS,
    revisionOf: () => undefined,
    stockOf: (id) => ({ onHand: q(stock[id] ?? 0), promised: ZERO }),
    comingOf: () => [],
    decimalsOf: () => 0,
    more: { demands, supplies },
  } satisfies SmallWorld);

describe('an item over time', () => {
  it('has what its days take and bring, and says when it is short', () => {
    const some = world(
      { 1: 10 },
      [wants(1, 1, 24, '2026-11-25'), wants(61, 1, 8, '2026-12-09'), wants(62, 1, 4, '2026-12-09')],
      [bought(7, 1, 14, '2026-12-05'), bought(8, 1, 20, '2026-12-21'), bought(9, 1, 3, null)],
    );
    const time = overTime(some, 1);
    expect(time.days.map(({ on, free }) => [on, free / SCALE])).toEqual([
      ['2026-11-25', -14],
      ['2026-12-05', 0],
      ['2026-12-09', -12],
      ['2026-12-21', 8],
    ]);
    expect(time.days[2]?.takes.map(({ source, quantity }) => [source.id, quantity / SCALE])).toEqual([
      [61, 8],
      [62, 4],
    ]);
    expect(time.undated.map(({ id }) => id)).toEqual([9]);
    expect(shortStretches(time)).toEqual([
      { from: '2026-11-25', until: '2026-12-05', most: q(14) },
      { from: '2026-12-09', until: '2026-12-21', most: q(12) },
    ]);
    const never = overTime(changed(some, [{ what: 'gone', kind: 'purchase', id: 8 }]), 1);
    expect(shortStretches(never).at(-1)?.until).toBeNull();
  });

  it('conserves: the shelf and all that comes less all that is taken is what is free in the end', () => {
    const day = fc.constantFrom(null, '2026-11-20', '2026-11-25', '2026-12-01', '2026-12-09');
    const some = fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), day), { maxLength: 8 });
    fc.assert(
      fc.property(fc.integer({ min: -5, max: 20 }), some, some, (stock, takes, brings) => {
        const time = overTime(
          world(
            { 1: stock },
            takes.map(([n, on], at) => wants(at + 1, 1, n, on)),
            brings.map(([n, on], at) => bought(at + 1, 1, n, on)),
          ),
          1,
        );
        const total = (all: readonly { quantity: Quantity }[]) => add(ZERO, ...all.map(({ quantity }) => quantity));
        const dated = brings.filter(([, on]) => on !== null).reduce((sum, [n]) => sum + n, 0);
        const taken = takes.reduce((sum, [n]) => sum + n, 0);
        expect(time.days.at(-1)?.free).toBe(q(stock + dated - taken));
        expect(total(time.days.flatMap(({ brings: own }) => own))).toBe(q(dated));
        expect(total(time.undated)).toBe(q(brings.length === 0 ? 0 : brings.reduce((sum, [n]) => sum + n, 0) - dated));
        expect(time.days.map(({ on }) => on)).toEqual([...new Set(time.days.map(({ on }) => on))].sort());
        expect(time.days[0]?.on).toBe(calendar.today);
      }),
    );
  });
});

describe('a case', () => {
  const some = world(
    { 1: 5, 2: 9 },
    [wants(1, 1, 5, '2026-11-27', [2]), wants(61, 1, 5, '2026-12-04', [2]), wants(62, 2, 1, null)],
    [bought(7, 1, 5, '2026-12-03')],
  );
  const before = standings(some);
  const outcome = (...changes: Change[]) => {
    const { moved, late } = outcomeOf(before, standings(changed(some, changes)), calendar.today);
    return {
      moved: moved.map(({ source, before: was, completeOn }) => [source.id, was, completeOn]),
      late: late.map(({ source }) => source.id),
    };
  };

  it('of nothing moves nobody', () => {
    expect(outcome()).toEqual({ moved: [], late: [] });
    expect(changed(some, [])).toBe(some);
  });

  it('moves whom a late or lost supply keeps waiting, and says who is late then', () => {
    expect(outcome({ what: 'day', kind: 'purchase', id: 7, on: '2026-12-09' })).toEqual({
      moved: [[61, '2026-12-03', '2026-12-09']],
      late: [61],
    });
    expect(outcome({ what: 'gone', kind: 'purchase', id: 7 })).toEqual({
      moved: [[61, '2026-12-03', null]],
      late: [61],
    });
    // What is no more changes nothing.
    expect(outcome({ what: 'gone', kind: 'purchase', id: 99 })).toEqual({ moved: [], late: [] });
  });

  it('takes what is missing from the shelves, and no more than they have', () => {
    expect(outcome({ what: 'missing', itemId: 1, quantity: q(2) }).moved).toEqual([
      [1, '', '2026-12-03'],
      [61, '2026-12-03', null],
    ]);
    const empty = changed(some, [{ what: 'missing', itemId: 1, quantity: q(99) }]);
    expect(empty.usable(1)).toBe(0);
    // Where several stores have some, the fullest lacks it first, and one below zero lacks nothing more.
    const [one] = [...some.known.items.values()].filter(({ id }) => id === 1);
    if (!one) throw new Error('no item');
    const stock = new Map([
      [1, q(2)],
      [2, q(5)],
      [3, q(-1)],
    ]);
    const stores = new World({ ...some.known, items: new Map(some.known.items).set(1, { ...one, stock }) });
    const left = (n: number) =>
      [...(changed(stores, [{ what: 'missing', itemId: 1, quantity: q(n) }]).known.items.get(1)?.stock ?? [])].map(
        ([, there]) => there / SCALE,
      );
    expect([left(4), left(6), left(9)]).toEqual([
      [2, 1, -1],
      [1, 0, -1],
      [0, 0, -1],
    ]);
  });

  it('uses an alternate for the last in turn, by its ratio', () => {
    const other = changed(some, [{ what: 'instead', itemId: 1, other: 2, quantity: q(4) }]);
    expect([other.promised(1), other.promised(2)]).toEqual([q(6), q(9)]);
    expect(outcome({ what: 'instead', itemId: 1, other: 2, quantity: q(5) })).toEqual({
      // Two of it for each of five is one more than there is; whoever wants it itself comes after them.
      moved: [
        [61, '2026-12-03', null],
        [62, '', null],
      ],
      late: [61],
    });
  });

  it('serves somebody first', () => {
    expect(outcome({ what: 'first', source: { kind: 'order', id: 61 } })).toEqual({
      moved: [
        [1, '', '2026-12-03'],
        [61, '2026-12-03', ''],
      ],
      late: [1],
    });
  });

  it('serves somebody last, and has a whole supplier late', () => {
    expect(outcome({ what: 'last', source: { kind: 'build', id: 1 } }).moved).toEqual([
      [1, '', '2026-12-03'],
      [61, '2026-12-03', ''],
    ]);
    const ofTwo = changed(some, [{ what: 'late', supplierId: 3, days: 2 }]);
    expect(ofTwo.known.supplies).toEqual(some.known.supplies);
    const supplies = new Map([...some.known.supplies].map(([key, one]) => [key, { ...one, supplierId: 3 }]));
    const known = new World({ ...some.known, supplies });
    const late = (days: number | null) => changed(known, [{ what: 'late', supplierId: 3, days }]);
    expect(
      late(4)
        .comingOf(1)
        .map(({ on }) => on),
    ).toEqual(['2026-12-07']);
    expect(
      late(null)
        .comingOf(1)
        .map(({ on }) => on),
    ).toEqual([null]);
    expect(deliveriesOf(known, late(4))).toEqual([{ lineId: 7, on: '2026-12-07' }]);
    expect(deliveriesOf(known, late(null))).toEqual([]);
    expect(deliveriesOf(known, known)).toEqual([]);
  });

  it('asks nobody to deliver earlier or later what was not ordered yet', () => {
    const supplies = new Map([...some.known.supplies].map(([key, one]) => [key, { ...one, isDraft: true }]));
    const drafts = new World({ ...some.known, supplies });
    const later = changed(drafts, [{ what: 'day', kind: 'purchase', id: 7, on: '2026-12-09' }]);
    expect([...later.known.supplies.values()].map(({ on }) => on)).toContain('2026-12-09');
    expect(deliveriesOf(drafts, later)).toEqual([]);
  });

  it('is late by the last day that any of it is wanted', () => {
    const two = (last: string) =>
      world({ 1: 5 }, [wants(61, 1, 5, '2026-11-27'), wants(61, 1, 5, last)], [bought(7, 1, 5, '2026-12-03')]);
    const late = (last: string) => standings(two(last)).map((one) => [one.wantedOn, isLate(one, calendar.today)]);
    expect([late('2026-12-02'), late('2026-12-03'), late('2026-12-04')]).toEqual([
      [['2026-12-02', true]],
      [['2026-12-03', false]],
      [['2026-12-04', false]],
    ]);
    // And by the day it is with the customer: it is a day on its way.
    const far = { ...wants(61, 1, 5, '2026-12-03'), transport: 1 };
    const way = world({ 1: 4 }, [far], [bought(7, 1, 5, '2026-12-03')]);
    expect(standings(way).map((one) => [one.completeOn, isLate(one, calendar.today)])).toEqual([['2026-12-04', true]]);
    // In whatever order its lines stand.
    const other = world({ 1: 5 }, [wants(61, 1, 2, '2026-12-04'), wants(61, 1, 2, '2026-11-27')], []);
    expect(standings(other).map(({ wantedOn }) => wantedOn)).toEqual(['2026-12-04']);
    const items = (first: string, second: string) =>
      standings(world({ 1: 5, 2: 5 }, [wants(61, 1, 2, first), wants(61, 2, 2, second)], [])).map(
        (one) => one.wantedOn,
      );
    expect([items('2026-12-04', '2026-11-27'), items('2026-11-27', '2026-12-04')]).toEqual([
      ['2026-12-04'],
      ['2026-12-04'],
    ]);
  });

  it('builds more of what has a definition in use, after everybody else', () => {
    const part: PartLine = {
      kind: 'part',
      itemId: 1,
      basis: 'per-output',
      quantity: q(2),
      waste: 0 as Percent,
      taken: 'picked-first',
      decimals: 0,
    };
    const made = smallWorld({
      items: ITEMS,
      revisionOf: (id) => (id === 3 ? { outputQuantity: q(1), lines: [part] } : undefined),
      stockOf: (id) => ({ onHand: q(id === 1 ? 9 : 0), promised: ZERO }),
      comingOf: () => [],
      decimalsOf: () => 0,
      more: { demands: [wants(61, 3, 2, '2026-12-04'), wants(62, 1, 5, null)], supplies: [] },
    });
    const more = (n: number) => changed(made, [{ what: 'build', itemId: 3, quantity: q(n), on: '2026-12-01' }]);
    const whole = (some: World) =>
      standings(some).map(({ source, completeOn }) => [source.id < 0 ? 'case' : source.id, completeOn]);
    expect(whole(made)).toEqual([
      [61, null],
      [62, ''],
    ]);
    // Four of the nine parts make two of it today; who was promised five of them has them.
    expect(new Map(whole(more(2)) as [unknown, string][])).toEqual(
      new Map<unknown, string>([['case', calendar.today], [62, ''], [61, calendar.today]]), // biome-ignore format: as one reads it
    );
    expect(changed(made, [{ what: 'build', itemId: 2, quantity: q(1), on: null }]).known).toEqual(made.known);
    // Several come after each other, in the steps of what they need.
    const fine = new World({
      ...made.known,
      items: new Map([...made.known.items].map(([id, item]) => [id, { ...item, decimals: id === 1 ? 3 : 0 }])),
    });
    const two = [1, 2].map((n): Change => ({ what: 'build', itemId: 3, quantity: q(n), on: null }));
    const planned = [...changed(fine, two).known.demands.values()].filter(({ source }) => source.id < 0);
    expect(planned.map(({ quantity, decimals }) => [quantity / SCALE, decimals])).toEqual([
      [2, 3],
      [4, 3],
    ]);
    const [first, second] = planned.map(({ turn, source }) => ({ age: turn.age, id: source.id }));
    expect(first?.age).toBeGreaterThan(1e13);
    expect(second?.age).toBeGreaterThan(first?.age ?? 0);
    expect(second?.id).not.toBe(first?.id);
  });

  it('is late where it is whole after the day it was wanted, or nobody knows', () => {
    const standing = (completeOn: string | null, wantedOn: string | null) => ({
      source: { kind: 'order' as const, id: 1 },
      completeOn,
      wantedOn,
    });
    const days = [
      standing('', '2026-11-25'),
      standing('', '2026-11-24'),
      standing(null, '2026-12-01'),
      standing(null, null),
    ];
    expect(days.map((one) => isLate(one, calendar.today))).toEqual([false, true, true, false]);
  });
});
