import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type PartLine, type Revision, required } from '../definitions/index.ts';
import { type Percent, parseDecimal, type Quantity, SCALE, stepOf } from '../number/index.ts';
import { canMake, cover as coverWorld, type Wanted } from './index.ts';
import { type SmallWorld, smallWorld } from './small-world.ts';

type CoverageInput = Omit<SmallWorld, 'items'> & { readonly wanted: readonly Wanted[] };
const ITEMS = [0, 1, 2, 3, 4, 5, 100, 101, 102, 103, 104, 105];
const cover = ({ wanted, ...world }: CoverageInput) => coverWorld(smallWorld({ ...world, items: ITEMS }), { wanted });

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
    expect(answer.components).toMatchObject([
      {
        itemId: 1,
        needed: q('10'),
        free: q('-2'),
        promised: q('6'),
        coming: q('12'),
        short: 0,
        completeOn: '2026-12-09',
        alternates: [],
      },
    ]);
    expect(answer.products[0]).toMatchObject({ now: 0, limitedBy: 1, partsOn: '2026-12-09', completeOn: '2026-12-09' });
    expect(cover({ ...input, comingOf: () => [{ itemId: 1, quantity: q('99'), date: null }] }).completeOn).toBeNull();
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
    expect(answer.products.map(({ now, partsOn, limitedBy }) => [now, partsOn, limitedBy])).toEqual([
      [q('10'), '', null],
      [0, '2026-12-01', 3],
      [q('2'), '', null],
    ]);
    expect(answer.completeOn).toBe('2026-12-01');
    expect(answer.components.map(({ itemId, short, completeOn }) => [itemId, short, completeOn])).toEqual([
      [3, 0, '2026-12-01'],
      [1, 0, ''],
      [2, 0, ''],
    ]);
    const more = cover({ ...input, wanted: [...input.wanted, { itemId: 101, quantity: q('6') }] });
    expect([more.completeOn, more.products[3]?.completeOn]).toEqual(['2026-12-09', '2026-12-09']);
    const short = cover({ ...input, wanted: [...input.wanted, { itemId: 102, quantity: q('1') }] });
    expect(short.components.map(({ itemId, short: by }) => [itemId, by])).toEqual([
      [2, q('2')],
      [3, 0],
      [1, 0],
    ]);
    expect(short.completeOn).toBeNull();
    expect(cover({ ...input, wanted: [] })).toEqual({ products: [], components: [], completeOn: '' });
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
    expect(later.components.map(({ itemId, completeOn }) => [itemId, completeOn])).toEqual([
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
    expect(cover(input).products[0]).toMatchObject({ now: 0, hasDefinition: false, completeOn: null });
  });
});
