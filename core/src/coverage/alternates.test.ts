import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Alternate, type PartLine, type Revision, required } from '../definitions/index.ts';
import { type Percent, parseDecimal, type Quantity, SCALE, stepOf } from '../number/index.ts';
import { canMake, canMakeWith, cover as coverWorld, type Wanted } from './index.ts';
import { type SmallWorld, smallWorld } from './small-world.ts';

type CoverageInput = Omit<SmallWorld, 'items'> & { readonly wanted: readonly Wanted[] };
const ITEMS = [1, 2, 3, 100, 101, 102, 103, 104];
const cover = ({ wanted, ...world }: CoverageInput, finishedFirst = false) =>
  coverWorld(smallWorld({ ...world, items: ITEMS }), { wanted, finishedFirst });

const q = (text: string) => parseDecimal(text) as Quantity;
const part = (itemId: number, quantity: string, alternates: Alternate[] = [], decimals = 0): PartLine => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(quantity),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals,
  alternates,
});
const alternate = (itemId: number, ratio = '1', decimals = 0): Alternate => ({ itemId, ratio: q(ratio), decimals });
const revision = (...lines: PartLine[]): Revision => ({ outputQuantity: q('1'), lines });
const of = (amounts: Record<number, string>) => (itemId: number) => q(amounts[itemId] ?? '0');

/** One step after the other, each by the plainest search: what can be made when alternates stand in. */
function slowly(made: Revision, free: (itemId: number) => number, step: number, most: number): number {
  let count = 0;
  while (count + step <= most) {
    const left = new Map<number, number>();
    const there = (itemId: number) => left.get(itemId) ?? free(itemId);
    const lacks = new Map<number, number>();
    const lines = made.lines as PartLine[];
    const needs = new Map<number, number>();
    for (const line of lines) {
      const need = required(line, (count + step) as Quantity, made.outputQuantity);
      needs.set(line.itemId, (needs.get(line.itemId) ?? 0) + need);
    }
    for (const [itemId, need] of needs) {
      if (need > free(itemId)) lacks.set(itemId, need - free(itemId));
      left.set(itemId, Math.max(0, free(itemId) - need));
    }
    for (const [itemId, lack] of lacks) {
      let open = lack;
      const own = lines.filter((line) => line.itemId === itemId);
      const size = stepOf(own[0]?.decimals ?? 0);
      const seen = new Set<number>();
      for (const { itemId: other, ratio, decimals } of own.flatMap((line) => line.alternates ?? [])) {
        if (seen.has(other) || open === 0) continue;
        seen.add(other);
        const costs = (does: number) => {
          const exact = (BigInt(does) * BigInt(ratio) + BigInt(SCALE) - 1n) / BigInt(SCALE);
          return Number(exact) % stepOf(decimals) === 0
            ? Number(exact)
            : (Math.floor(Number(exact) / stepOf(decimals)) + 1) * stepOf(decimals);
        };
        let does = 0;
        while (does + size <= open && costs(does + size) <= there(other)) does += size;
        left.set(other, does < open ? 0 : there(other) - costs(does));
        open -= does;
      }
      if (open > 0) return count;
    }
    count += step;
  }
  return count;
}

describe('alternates', () => {
  it('or none: what is left is what the parts leave, of whatever is made', () => {
    const made = revision(part(1, '2'), part(2, '1'));
    const can = (most: string | null) => {
      const { quantity, left } = canMakeWith(made, of({ 1: '9', 2: '5' }), 0, most === null ? null : q(most));
      return [quantity, ...left];
    };
    expect(can(null)).toEqual([q('4'), [1, q('1')], [2, q('1')]]);
    expect(can('3')).toEqual([q('3'), [1, q('3')], [2, q('2')]]);
    const free = canMakeWith({ ...made, lines: [] }, of({}), 0, null);
    expect([free.quantity, free.left.size]).toEqual([null, 0]);
  });

  it('come after the part itself, in their order, by their ratio', () => {
    const made = revision(part(1, '2', [alternate(2, '2'), alternate(3)]));
    const free = of({ 1: '5', 2: '7', 3: '4' });
    expect(canMake(made, free, 0).quantity).toBe(q('2'));
    // 5 of the part, 3 by six of the first alternate, 4 by the second: 12 in all.
    const can = canMakeWith(made, free, 0, q('99'));
    expect(can.quantity).toBe(q('6'));
    expect([...can.left]).toEqual([
      [1, 0],
      [2, 0],
      [3, 0],
    ]);
  });

  it('are never taken from what another line needs as its part, and not for two parts at once', () => {
    const shared = revision(part(1, '1', [alternate(3)]), part(2, '1', [alternate(3)]), part(3, '1'));
    expect(canMakeWith(shared, of({ 1: '0', 2: '0', 3: '9' }), 0, q('99')).quantity).toBe(q('3'));
  });

  it('make as many as can be made where nothing bounds it, and take labour for no part', () => {
    const labour = { kind: 'labour' as const, basis: 'per-output' as const, minutes: q('5'), ratePerHour: 0 as never };
    expect(canMakeWith({ outputQuantity: q('1'), lines: [labour] }, of({}), 0, null)).toEqual({
      quantity: null,
      left: new Map(),
    });
    expect(canMakeWith({ outputQuantity: q('1'), lines: [labour] }, of({}), 0, q('7')).quantity).toBe(q('7'));
    const made = { outputQuantity: q('1'), lines: [labour, part(1, '1', [alternate(2, '1', 3)]), part(3, '1')] };
    expect(canMakeWith(made, of({ 1: '2', 2: '1.5', 3: '9' }), 0, null)).toEqual({
      quantity: q('3'),
      left: new Map([
        [1, 0],
        [2, q('0.5')],
        [3, q('6')],
      ]),
    });
    // Of a part in tenths an alternate does for tenths.
    const tenths = revision(part(1, '0.1', [alternate(2)], 1), part(3, '1', [], 0));
    expect(canMakeWith(tenths, of({ 1: '0.3', 2: '1', 3: '99' }), 0, null).quantity).toBe(q('13'));
  });

  it('agree with counting up one at a time', () => {
    const ratio = fc.constantFrom('1', '2', '0.5', '1.5', '0.333');
    const line = fc
      .record({
        itemId: fc.integer({ min: 1, max: 3 }),
        quantity: fc.integer({ min: 1, max: 4 }),
        others: fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: 5 }), ratio), {
          maxLength: 3,
          selector: ([id]) => id,
        }),
      })
      .map(({ itemId, quantity, others }) =>
        part(
          itemId,
          String(quantity),
          others.filter(([id]) => id !== itemId).map(([id, r]) => alternate(id, r, id % 2)),
          itemId % 2,
        ),
      );
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 4 }),
        fc.array(fc.integer({ min: 0, max: 300 }), { minLength: 6, maxLength: 6 }),
        (lines, tenths) => {
          const made = { outputQuantity: q('1'), lines };
          const free = (itemId: number) => ((tenths[itemId] ?? 0) * 100_000) as Quantity;
          const can = canMakeWith(made, free, 0, q('40'));
          expect(can.quantity).toBe(slowly(made, free, SCALE, q('40')));
          for (const [itemId, left] of can.left) expect(left >= 0 && left <= free(itemId)).toBe(true);
          const unbounded = canMakeWith(made, free, 0, null).quantity;
          expect(unbounded === null ? q('40') : Math.min(unbounded, q('40'))).toBe(can.quantity);
          expect(can.quantity ?? 0).toBeGreaterThanOrEqual(
            Math.min(q('40'), canMake(made, free, 0).quantity ?? q('40')),
          );
        },
      ),
    );
  });
});

describe('cover', () => {
  const input = (more: Partial<CoverageInput>): CoverageInput => ({
    wanted: [],
    revisionOf: (id) => (id >= 100 ? revision(part(1, '1')) : undefined),
    stockOf: () => undefined,
    comingOf: () => [],
    decimalsOf: () => 0,
    ...more,
  });
  const want = (itemId: number, quantity: string) => ({ itemId, quantity: q(quantity) });
  const days = [
    { itemId: 1, quantity: q('5'), date: '2026-12-01' },
    { itemId: 1, quantity: q('5'), date: '2026-12-08' },
  ];

  it('keeps the day of a product when another is added behind it', () => {
    const first = cover(input({ wanted: [want(100, '5')], comingOf: () => days }));
    const both = cover(input({ wanted: [want(100, '5'), want(101, '5')], comingOf: () => days }));
    expect(first.products.map(({ completeOn }) => completeOn)).toEqual(['2026-12-01']);
    expect(both.products.map(({ completeOn }) => completeOn)).toEqual(['2026-12-01', '2026-12-08']);
    expect(both.components[0]?.completeOn).toBe('2026-12-08');
    expect(both.completeOn).toBe('2026-12-08');
  });

  it('never makes a product later by adding others behind it, and none earlier than those before it need', () => {
    const some = fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 5 });
    const arrivals = fc.array(fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 28 })), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(some, arrivals, (quantities, raw) => {
        const coming = raw.map(([n, day]) => ({
          itemId: 1,
          quantity: (n * SCALE) as Quantity,
          date: `2026-12-${String(day).padStart(2, '0')}`,
        }));
        const wanted = quantities.map((n, index) => want(100 + index, String(n)));
        const all = cover(input({ wanted, comingOf: () => coming }));
        for (const [index] of wanted.entries()) {
          const alone = cover(input({ wanted: wanted.slice(0, index + 1), comingOf: () => coming }));
          expect(alone.products[index]?.completeOn).toBe(all.products[index]?.completeOn);
          const sum = quantities.slice(0, index + 1).reduce((a, b) => a + b, 0);
          let there = 0;
          const day = [...coming]
            .sort((a, b) => (a.date < b.date ? -1 : 1))
            .find(({ quantity }) => {
              there += quantity / SCALE;
              return there >= sum;
            });
          expect(all.products[index]?.partsOn).toBe(day?.date ?? null);
        }
      }),
    );
  });

  it('says which alternates help and how far, counting nothing of them twice or as free', () => {
    const answer = cover(
      input({
        wanted: [want(100, '10'), want(101, '10')],
        revisionOf: (id) => (id >= 100 ? revision(part(1, '1', [alternate(2, '2'), alternate(3)])) : undefined),
        stockOf: (id) => ({ onHand: q({ 1: '4', 2: '9', 3: '30' }[id] ?? '0'), promised: q(id === 3 ? '22' : '0') }),
      }),
    );
    expect(answer.components).toMatchObject([
      {
        itemId: 1,
        short: q('16'),
        alternates: [
          { itemId: 2, quantity: q('8'), standsFor: q('4') },
          { itemId: 3, quantity: q('8'), standsFor: q('8') },
        ],
      },
    ]);
    expect(answer.products.map(({ now, nowWithAlternates }) => [now, nowWithAlternates])).toEqual([
      [q('4'), q('10')],
      [0, q('6')],
    ]);
  });

  it('lets nothing stand in that is taken from the shelf for itself', () => {
    const answer = cover(
      input({
        wanted: [want(2, '6'), want(100, '10')],
        revisionOf: (id) => (id === 100 ? revision(part(1, '1', [alternate(2)])) : undefined),
        stockOf: (id) => ({ onHand: q(id === 2 ? '8' : '0'), promised: q('0') }),
      }),
      true,
    );
    expect(answer.products[0]).toMatchObject({ fromShelf: q('6'), toMake: 0 });
    expect(answer.components).toMatchObject([{ itemId: 1, alternates: [{ itemId: 2, quantity: q('2') }] }]);
    expect(answer.products[1]).toMatchObject({ nowWithAlternates: q('2') });
  });

  it('calls a shelf that owes more than it holds what it is: below zero, and first in line for what comes', () => {
    const answer = cover(
      input({ wanted: [want(100, '3')], stockOf: () => ({ onHand: q('2'), promised: q('41') }), comingOf: () => days }),
    );
    expect(answer.components[0]).toMatchObject({ free: q('-39'), promised: q('41'), coming: q('10'), short: q('32') });
  });
});
