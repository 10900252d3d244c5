import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HUNDRED_PERCENT, type Money, type Percent, parseDecimal, type Quantity, SCALE } from '../number/index.ts';
import {
  balanceShares,
  definitionCost,
  findCycle,
  type Line,
  marginOf,
  type PartLine,
  priceForMargin,
  required,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const percent = (text: string) => parseDecimal(text) as Percent;
const part = (line: Partial<PartLine> = {}): PartLine => ({
  kind: 'part',
  itemId: 1,
  basis: 'per-output',
  quantity: q('1'),
  waste: percent('0'),
  taken: 'picked-first',
  decimals: 0,
  ...line,
});

describe('required', () => {
  it('adds waste and rounds the total up, once', () => {
    expect(required(part({ quantity: q('0.46'), waste: percent('4'), decimals: 3 }), q('24'), q('1'))).toBe(
      q('11.482'),
    );
    expect(required(part({ quantity: q('1'), waste: percent('5') }), q('3'), q('1'))).toBe(q('4'));
  });

  it('is fixed per run, and nothing for nothing', () => {
    const fixed = part({ basis: 'per-run', quantity: q('2') });
    expect([q('0'), q('1'), q('500')].map((made) => required(fixed, made, q('150')))).toEqual([0, q('2'), q('2')]);
  });

  it('never asks for less than the exact need nor for a whole step more, and never falls as more is made', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e7 }),
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 0, max: 4 }),
        fc.integer({ min: 1, max: 1e6 }),
        fc.integer({ min: 1, max: 1e6 }),
        (quantity, waste, decimals, made, output) => {
          const line = part({ quantity: quantity as Quantity, waste: (waste * 10_000) as Percent, decimals });
          const need = required(line, made as Quantity, output as Quantity);
          const step = 10 ** (6 - decimals);
          const top = BigInt(made) * BigInt(line.quantity) * BigInt(HUNDRED_PERCENT + line.waste);
          const bottom = BigInt(output) * BigInt(HUNDRED_PERCENT);
          expect(need % step).toBe(0);
          expect(BigInt(need) * bottom >= top && BigInt(need - step) * bottom < top).toBe(true);
          expect(required(line, (made + 1) as Quantity, output as Quantity)).toBeGreaterThanOrEqual(need);
        },
      ),
    );
  });
});

describe('cost', () => {
  it('adds parts, labour and charges for a run and divides by the output', () => {
    const lines: Line[] = [
      part({ itemId: 1, quantity: q('0.46'), waste: percent('4'), decimals: 3 }),
      { kind: 'labour', basis: 'per-output', minutes: q('20'), ratePerHour: money('24') },
      { kind: 'charge', basis: 'per-run', amount: money('1.5') },
      { kind: 'note' },
    ];
    const cost = definitionCost({ outputQuantity: q('2'), lines }, () => money('5'));
    expect(cost.lines).toEqual([money('2.392'), money('8'), money('1.5'), 0]);
    expect(cost).toMatchObject({
      parts: money('2.392'),
      labour: money('8'),
      charges: money('1.5'),
      total: money('11.892'),
      perUnit: money('5.946'),
    });
  });

  it('by any unit costs equals a slow sum in fractions, to the rounding of each line', () => {
    const anyLine = fc.oneof(
      fc.record({
        quantity: fc.integer({ min: 1, max: 1e9 }),
        waste: fc.integer({ min: 0, max: 5000 }),
        basis: fc.constantFrom('per-output', 'per-run'),
        itemId: fc.integer({ min: 1, max: 5 }),
      }),
      fc.record({ minutes: fc.integer({ min: 1, max: 1e9 }), rate: fc.integer({ min: 0, max: 1e9 }) }),
      fc.record({ amount: fc.integer({ min: 0, max: 1e9 }) }),
    );
    const costs = fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 5, maxLength: 5 });
    const input = [fc.array(anyLine, { maxLength: 8 }), costs, fc.integer({ min: 1e6, max: 1e9 })] as const;
    fc.assert(
      fc.property(...input, (specs, unitCosts, output) => {
        // Everything over 10^18 in big integers; nothing is rounded until the very end.
        let exact = 0n;
        const lines = specs.map((spec): Line => {
          if ('itemId' in spec) {
            const { quantity, basis, itemId } = spec;
            const waste = spec.waste * 10_000;
            const cost = unitCosts[itemId - 1] ?? 0;
            exact += BigInt(quantity) * BigInt(cost) * BigInt(100e6 + (basis === 'per-run' ? 0 : waste)) * 10_000n;
            return part({ quantity: quantity as Quantity, basis, itemId, waste: waste as Percent, decimals: 6 });
          }
          if ('minutes' in spec) {
            exact += (BigInt(spec.minutes) * BigInt(spec.rate) * 10n ** 12n) / 60n;
            return {
              kind: 'labour',
              basis: 'per-run',
              minutes: spec.minutes as Quantity,
              ratePerHour: spec.rate as Money,
            };
          }
          exact += BigInt(spec.amount) * 10n ** 18n;
          return { kind: 'charge', basis: 'per-output', amount: spec.amount as Money };
        });
        const cost = definitionCost({ outputQuantity: output as Quantity, lines }, (id) => unitCosts[id - 1] as Money);
        const off = BigInt(cost.total) * 10n ** 18n - exact;
        expect(off < 0n ? -off : off).toBeLessThanOrEqual(BigInt(lines.length) * 10n ** 18n);
        expect(cost.parts + cost.labour + cost.charges).toBe(cost.total);
        expect(Math.abs((cost.perUnit * output) / 1e6 - cost.total)).toBeLessThanOrEqual(output / 1e6 + 1e-3);
      }),
    );
  });

  it('turns a margin into a price and back', () => {
    expect(marginOf(money('168'), money('104.816'))).toBe(percent('37.609524'));
    expect(priceForMargin(money('60'), percent('40'))).toBe(money('100'));
    expect(priceForMargin(money('60'), HUNDRED_PERCENT)).toBeNull();
    expect(marginOf(money('0'), money('3'))).toBeNull();
  });
});

describe('take-apart shares', () => {
  const line = fc.record({
    typed: fc.option(
      fc.integer({ min: 0, max: 1500 }).map((hundredths) => ((hundredths * SCALE) / 100) as Percent),
      { nil: null },
    ),
    cost: fc.integer({ min: 0, max: 1e10 }).map((cost) => cost as Money),
    comesBack: fc.boolean(),
  });

  it('sum to exactly 100.00, typed ones stand, what stays gone has none', () => {
    fc.assert(
      fc.property(fc.array(line, { maxLength: 5 }), (lines) => {
        const all = [...lines, { typed: null, cost: 7 as Money, comesBack: true }];
        const shares = balanceShares(all);
        expect(shares.reduce((a, b) => a + b, 0)).toBe(HUNDRED_PERCENT);
        all.forEach(({ typed, comesBack }, index) => {
          if (!comesBack) expect(shares[index]).toBe(0);
          else if (typed !== null) expect(shares[index]).toBe(typed);
        });
      }),
    );
  });

  it('takes a sum that is a hundred to the last digit, and leaves nothing for those who typed none', () => {
    const typed = (text: string) => ({ typed: percent(text), cost: 3 as Money, comesBack: true });
    const shares = balanceShares([typed('33.33'), typed('66.67')]);
    expect(shares).toEqual([percent('33.33'), percent('66.67')]);
    expect(balanceShares([typed('100'), { ...typed('0'), typed: null }])).toEqual([percent('100'), 0]);
    expect(balanceShares([{ ...typed('0'), comesBack: false }])).toEqual([0]);
  });

  it('says what the typed ones come to where that cannot be', () => {
    const typed = (text: string) => ({ typed: percent(text), cost: 0 as Money, comesBack: true });
    expect(() => balanceShares([typed('60'), typed('50')])).toThrow(
      expect.objectContaining({ code: 'shares-over', field: 'share', facts: { sum: percent('110') } }),
    );
    expect(() => balanceShares([typed('60')])).toThrow(
      expect.objectContaining({ code: 'shares-under', field: 'share', facts: { sum: percent('60') } }),
    );
  });

  it('refuses a sum that cannot be a hundred', () => {
    const typed = (text: string) => ({ typed: percent(text), cost: 0 as Money, comesBack: true });
    expect(() => balanceShares([typed('60'), typed('50')])).toThrow(expect.objectContaining({ code: 'shares-over' }));
    expect(() => balanceShares([typed('60'), typed('39.99')])).toThrow(
      expect.objectContaining({ code: 'shares-under' }),
    );
  });
});

describe('findCycle', () => {
  it('names the path', () => {
    const graph = new Map([
      [1, [2, 3]],
      [3, [4]],
      [4, [5, 1]],
    ]);
    expect(findCycle(1, (id) => graph.get(id) ?? [])).toEqual([1, 3, 4, 1]);
    expect(findCycle(2, (id) => graph.get(id) ?? [])).toBeNull();
    expect(findCycle(7, () => [7])).toEqual([7, 7]);
  });

  it('finds one exactly when the item can be reached from itself', () => {
    const edges = fc.array(fc.tuple(fc.integer({ min: 0, max: 8 }), fc.integer({ min: 0, max: 8 })), { maxLength: 20 });
    fc.assert(
      fc.property(edges, (pairs) => {
        const next = (id: number) => pairs.filter(([from]) => from === id).map(([, to]) => to);
        const reached = new Set(next(0));
        for (const id of reached) for (const to of next(id)) reached.add(to);
        const path = findCycle(0, next);
        expect(path !== null).toBe(reached.has(0));
        for (const [index, to] of path?.slice(1).entries() ?? []) expect(next(path?.[index] ?? -1)).toContain(to);
      }),
    );
  });
});
