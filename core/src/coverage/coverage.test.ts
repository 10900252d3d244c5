import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PartLine, type Revision, required } from '../definition/index.ts';
import { type Percent, parseDecimal, type Quantity, SCALE, stepOf } from '../number/index.ts';
import { allot, type CoverageInput, canMake, cover, type OpenBuild } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const line = (itemId: number, quantity: string, more: Partial<PartLine> = {}): PartLine => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(quantity),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals: 0,
  ...more,
});

const arbitraryLine = fc
  .record({
    itemId: fc.integer({ min: 1, max: 4 }),
    basis: fc.constantFrom('per-output' as const, 'per-run' as const),
    thousandths: fc.integer({ min: 1, max: 4000 }),
    waste: fc.constantFrom(0, 4, 7.5),
  })
  .map(({ itemId, basis, thousandths, waste }) => {
    const decimals = itemId % 2 ? 3 : 0;
    const quantity = decimals ? thousandths * 1000 : Math.ceil(thousandths / 1000) * SCALE;
    return line(itemId, '0', { basis, quantity: quantity as Quantity, waste: (waste * SCALE) as Percent, decimals });
  });
const arbitraryRevision: fc.Arbitrary<Revision> = fc.record({
  outputQuantity: fc.constantFrom(q('1'), q('5'), q('0.5')),
  lines: fc.array(arbitraryLine, { minLength: 1, maxLength: 6 }),
});
const arbitraryFree = fc.array(fc.integer({ min: 0, max: 30_000 }), { minLength: 5, maxLength: 5 });

/** Counts up one step at a time until some part no longer suffices. */
function slowlyCanMake(revision: Revision, free: readonly number[], step: number, most: number): number {
  let made = 0;
  while (made + step <= most) {
    const needs = new Map<number, number>();
    for (const part of revision.lines as PartLine[]) {
      const need = required(part, (made + step) as Quantity, revision.outputQuantity);
      needs.set(part.itemId, (needs.get(part.itemId) ?? 0) + need);
    }
    if ([...needs].some(([itemId, need]) => need > (free[itemId] ?? 0))) return made;
    made += step;
  }
  return made;
}

describe('canMake', () => {
  it('agrees with counting up one at a time', () => {
    fc.assert(
      fc.property(arbitraryRevision, arbitraryFree, fc.constantFrom(0, 1), (revision, thousandths, decimals) => {
        const free = thousandths.map((amount) => amount * 1000);
        const most = q('60');
        const can = canMake(revision, (itemId) => (free[itemId] ?? 0) as Quantity, decimals);
        const slow = slowlyCanMake(revision, free, stepOf(decimals), most);
        expect(Math.min(can.quantity ?? most, most)).toBe(slow);
      }),
    );
  });

  it('counts the smallest steps of the product, of parts that are needed more than once, and of none', () => {
    const made = (lines: PartLine[], free: Record<number, string>, decimals = 0) =>
      canMake({ outputQuantity: q('1'), lines }, (id) => q(free[id] ?? '0'), decimals);
    const none = { quantity: null, limitedBy: null };
    expect(made([], {})).toEqual(none);
    expect(made([line(1, '0')], {})).toEqual(none);
    expect(made([line(1, '0'), line(1, '0')], { 1: '5' })).toEqual(none);
    expect(made([line(1, '2', { basis: 'per-run' })], { 1: '2' })).toEqual(none);
    expect(made([line(1, '1', { basis: 'per-run' }), line(1, '1', { basis: 'per-run' })], { 1: '2' })).toEqual(none);
    expect(made([line(1, '1', { basis: 'per-run' }), line(1, '2')], { 1: '6' })).toEqual({
      quantity: q('2'),
      limitedBy: 1,
    });
    expect(made([line(1, '1'), line(1, '2')], { 1: '3' })).toEqual({ quantity: q('1'), limitedBy: 1 });
    expect(made([line(1, '1'), line(1, '2')], { 1: '2' })).toEqual({ quantity: 0, limitedBy: 1 });
    expect(made([line(1, '0.5', { decimals: 3 })], { 1: '1.3' }, 1)).toEqual({ quantity: q('2.6'), limitedBy: 1 });
    expect(made([line(1, '0.5', { decimals: 3 }), line(1, '0.5', { decimals: 3 })], { 1: '1.3' }, 1)).toEqual({
      quantity: q('1.3'),
      limitedBy: 1,
    });
    expect(made([line(2, '1'), line(1, '1')], { 1: '4', 2: '4' }).limitedBy).toBe(2);
    expect(made([line(1, '1')], { 1: '-3' })).toEqual({ quantity: 0, limitedBy: 1 });
    // Labour and charges need no parts.
    const labour = { kind: 'labour' as const, basis: 'per-output' as const, minutes: q('5'), ratePerHour: 0 as never };
    expect(canMake({ outputQuantity: q('1'), lines: [labour, line(1, '1')] }, () => q('7'), 0)).toEqual({
      quantity: q('7'),
      limitedBy: 1,
    });
  });

  it('is limited by the part that runs out first', () => {
    const revision = {
      outputQuantity: q('1'),
      lines: [line(1, '1'), line(2, '10'), line(3, '2', { basis: 'per-run' })],
    };
    const free = new Map([
      [1, q('17')],
      [2, q('400')],
      [3, q('2')],
    ]);
    expect(canMake(revision, (id) => free.get(id) ?? q('0'), 0)).toEqual({ quantity: q('17'), limitedBy: 1 });
    free.set(3, q('1'));
    expect(canMake(revision, (id) => free.get(id) ?? q('0'), 0)).toEqual({ quantity: 0, limitedBy: 3 });
  });
});

interface World {
  wanted: { itemId: number; quantity: Quantity }[];
  revisions: Revision[];
  onHand: number[];
  promised: number[];
}
const inputOf = (world: World): CoverageInput => ({
  wanted: world.wanted,
  revisionOf: (itemId) => world.revisions[itemId - 100],
  stockOf: (itemId) => ({
    onHand: ((world.onHand[itemId] ?? 0) * 1000) as Quantity,
    promised: ((world.promised[itemId] ?? 0) * 1000) as Quantity,
  }),
  comingOf: () => [],
  decimalsOf: () => 0,
});

describe('cover', () => {
  const world = fc.record({
    wanted: fc.array(
      fc.record({
        itemId: fc.integer({ min: 100, max: 102 }),
        quantity: fc.integer({ min: 1, max: 30 }).map((n) => (n * SCALE) as Quantity),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    revisions: fc.array(arbitraryRevision, { minLength: 3, maxLength: 3 }),
    onHand: arbitraryFree,
    promised: arbitraryFree,
  });

  it('adds shared components up, serves products in turn and never counts a part twice', () => {
    fc.assert(
      fc.property(world, (some) => {
        const answer = cover(inputOf(some));
        const left = some.onHand.map((amount, id) => Math.max(0, amount - (some.promised[id] ?? 0)) * 1000);
        const needed = new Map<number, number>();
        for (const [index, { itemId, quantity }] of some.wanted.entries()) {
          const revision = some.revisions[itemId - 100] as Revision;
          const now = slowlyCanMake(revision, left, SCALE, quantity);
          expect(answer.products[index]?.now).toBe(now);
          for (const part of revision.lines as PartLine[]) {
            left[part.itemId] = (left[part.itemId] ?? 0) - required(part, now as Quantity, revision.outputQuantity);
            const need = required(part, quantity, revision.outputQuantity);
            needed.set(part.itemId, (needed.get(part.itemId) ?? 0) + need);
          }
        }
        expect(left.every((amount) => amount >= 0)).toBe(true);
        for (const component of answer.components) {
          expect(component.needed).toBe(needed.get(component.itemId));
          expect(component.short).toBe(Math.max(0, component.needed - component.free));
        }
      }),
    );
  });

  it('says when what is coming makes it whole, after promises that come first', () => {
    const input: CoverageInput = {
      wanted: [{ itemId: 100, quantity: q('10') }],
      revisionOf: () => ({ outputQuantity: q('1'), lines: [line(1, '1')] }),
      stockOf: () => ({ onHand: q('4'), promised: q('6') }),
      comingOf: () => [
        { itemId: 1, quantity: q('9'), date: '2026-12-09' },
        { itemId: 1, quantity: q('3'), date: '2026-12-01' },
      ],
      decimalsOf: () => 0,
    };
    const answer = cover(input);
    expect(answer.components).toEqual([
      {
        itemId: 1,
        needed: q('10'),
        free: q('-2'),
        promised: q('6'),
        coming: q('12'),
        short: 0,
        wholeOn: '2026-12-09',
        alternates: [],
      },
    ]);
    expect(answer.products[0]).toMatchObject({ now: 0, limitedBy: 1, wholeOn: '2026-12-09' });
    expect(cover({ ...input, comingOf: () => [{ itemId: 1, quantity: q('99'), date: null }] }).wholeOn).toBeNull();
  });

  it('is whole at exactly enough, on the last day of all, and lists what is scarcest first', () => {
    const there = new Map([
      [1, ['10', '0']],
      [2, ['10', '4']],
      [3, ['0', '9']],
      [4, ['0', '0']],
    ]);
    const input: CoverageInput = {
      wanted: [
        { itemId: 100, quantity: q('10') },
        { itemId: 101, quantity: q('3') },
        { itemId: 102, quantity: q('2') },
      ],
      revisionOf: (itemId) => ({
        outputQuantity: q('1'),
        lines: { 100: [line(1, '1')], 101: [line(3, '1')], 102: [line(2, '4')] }[itemId] ?? [],
      }),
      stockOf: (itemId) => ({ onHand: q(there.get(itemId)?.[0] ?? '0'), promised: q('0') }),
      comingOf: (itemId) =>
        itemId === 3
          ? [
              { itemId, quantity: q('3'), date: '2026-12-09' },
              { itemId, quantity: q('6'), date: '2026-12-01' },
            ]
          : [],
      decimalsOf: () => 0,
    };
    const answer = cover(input);
    expect(answer.products.map(({ now, wholeOn, limitedBy }) => [now, wholeOn, limitedBy])).toEqual([
      [q('10'), '', null],
      [0, '2026-12-01', 3],
      [q('2'), '', null],
    ]);
    expect(answer.wholeOn).toBe('2026-12-01');
    expect(answer.components.map(({ itemId, short, wholeOn }) => [itemId, short, wholeOn])).toEqual([
      [3, 0, '2026-12-01'],
      [1, 0, ''],
      [2, 0, ''],
    ]);
    const more = cover({ ...input, wanted: [...input.wanted, { itemId: 101, quantity: q('6') }] });
    expect([more.wholeOn, more.products[3]?.wholeOn]).toEqual(['2026-12-09', '2026-12-09']);
    const short = cover({ ...input, wanted: [...input.wanted, { itemId: 102, quantity: q('1') }] });
    expect(short.components.map(({ itemId, short: by }) => [itemId, by])).toEqual([
      [2, q('2')],
      [3, 0],
      [1, 0],
    ]);
    expect(short.wholeOn).toBeNull();
    expect(cover({ ...input, wanted: [] })).toEqual({ products: [], components: [], wholeOn: '' });
    // Those without a day come after all that have one, and short before coming, each by item.
    const later = cover({
      ...input,
      wanted: [4, 3, 5, 2, 1].map((n) => ({ itemId: 100 + n, quantity: q('2') })),
      revisionOf: (itemId) => ({ outputQuantity: q('1'), lines: [line(itemId - 100, '1')] }),
      stockOf: (itemId) => ({ onHand: q(itemId === 5 ? '2' : '0'), promised: q('0') }),
      comingOf: (itemId) =>
        itemId === 3 || itemId === 1
          ? [
              { itemId, quantity: q('1'), date: null },
              { itemId, quantity: q('1'), date: '2026-12-01' },
            ]
          : [],
    });
    expect(later.components.map(({ itemId, wholeOn }) => [itemId, wholeOn])).toEqual([
      [2, null],
      [4, null],
      [1, null],
      [3, null],
      [5, ''],
    ]);
  });

  it('knows a product without a definition', () => {
    const input = {
      ...inputOf({ wanted: [], revisions: [], onHand: [], promised: [] }),
      wanted: [{ itemId: 5, quantity: q('1') }],
    };
    expect(cover(input).products[0]).toMatchObject({ now: 0, hasDefinition: false, wholeOn: null });
  });
});

describe('allot', () => {
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
    expect(second?.short.get(1)).toEqual({ quantity: q('3'), isComing: true, wholeOn: '2026-12-05' });
    const [all] = allot([one(1, '3')], new Map(), []);
    expect(all?.short.get(1)).toEqual({ quantity: q('3'), isComing: false, wholeOn: null });
    const [part] = allot([one(1, '3')], new Map(), [come('2', '2026-12-05')]);
    expect(part?.short.get(1)).toEqual({ quantity: q('3'), isComing: true, wholeOn: null });
  });

  it('never waits for what it makes itself, and leaves that to others', () => {
    const arrivals = [come('9', '2026-12-02', 1), come('9', '2026-12-07')];
    const [maker, other] = allot([one(1, '3'), one(2, '3')], new Map(), arrivals);
    expect(maker?.short.get(1)?.wholeOn).toBe('2026-12-07');
    expect(other?.short.get(1)?.wholeOn).toBe('2026-12-02');
    // What is given to one is not there for the next; what comes without a day comes last.
    const used = allot([one(1, '9'), one(2, '1'), one(3, '1')], new Map(), [
      come('1', null),
      come('9', '2026-12-01'),
      come('1', '2026-12-03'),
    ]);
    expect(used.map(({ short }) => short.get(1)?.wholeOn)).toEqual(['2026-12-01', '2026-12-03', null]);
    expect(used[2]?.short.get(1)?.isComing).toBe(true);
  });

  it('serves the older of two that are due on one day, and none without a day before one with', () => {
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
    expect(first?.short.get(1)).toEqual({ quantity: q('2'), isComing: true, wholeOn: '2026-12-01' });
    expect(second?.short.get(1)).toEqual({ quantity: q('4'), isComing: true, wholeOn: '2026-12-04' });
    expect(third?.short.get(1)).toEqual({ quantity: q('9'), isComing: true, wholeOn: null });
  });
});
