import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  divide,
  formatDecimal,
  mulDiv,
  parseDecimal,
  readExact,
  readForText,
  splitByWeight,
  unitCostOf,
  worthOf,
} from './index.ts';

const scaled = fc.integer({ min: -999_999_999_000_000, max: 999_999_999_000_000 });
const refusal = (code: string) => expect.objectContaining({ code });

describe('decimals', () => {
  it('reads what it writes', () => {
    fc.assert(
      fc.property(scaled, (value) => {
        expect(parseDecimal(formatDecimal(value))).toBe(value);
      }),
    );
  });

  it.each([
    ['4.800', 4_800_000],
    ['.5', 500_000],
    ['7.', 7_000_000],
    [' 12 ', 12_000_000],
    ['-0', 0],
    ['0012.10', 12_100_000],
  ])('reads %s', (text, value) => expect(parseDecimal(text, 3)).toBe(value));

  it.each(['', '.', '-', 'twelve', '1e3', '1,5', '1 000', '0x10', '--1', 'NaN', '１'])(
    'refuses %j as a number',
    (text) => expect(() => parseDecimal(text)).toThrow(refusal('not-a-number')),
  );

  it('never rounds: more decimals than the unit allows are refused, trailing zeros are not decimals', () => {
    expect(() => parseDecimal('1.5', 0, 'quantity')).toThrow(
      expect.objectContaining({ code: 'too-many-decimals', field: 'quantity', facts: { typed: '1.5', decimals: 0 } }),
    );
    expect(parseDecimal('1.500', 1)).toBe(1_500_000);
  });

  it('refuses a thousand million, of either sign, and takes all below', () => {
    const tooLarge = expect.objectContaining({
      code: 'too-large',
      field: 'price',
      facts: { largest: 999_999_999_000_000 },
    });
    for (const text of ['1000000000', '-1000000000']) expect(() => parseDecimal(text, 6, 'price')).toThrow(tooLarge);
    expect(parseDecimal('999999999.999999')).toBe(999_999_999_999_999);
    expect(parseDecimal('-999999999.999999')).toBe(-999_999_999_999_999);
    const long = 'x'.repeat(60);
    expect(() => parseDecimal(long)).toThrow(expect.objectContaining({ facts: { typed: long.slice(0, 40) } }));
    expect(() => parseDecimal(`0.${'1'.repeat(60)}`)).toThrow(
      expect.objectContaining({ facts: { typed: `0.${'1'.repeat(38)}`, decimals: 6 } }),
    );
    expect(() => readExact('9007199254.740992')).toThrow(
      expect.objectContaining({ code: 'too-large', facts: { largest: Number.MAX_SAFE_INTEGER } }),
    );
    expect(readExact('9007199254.740991')).toBe(Number.MAX_SAFE_INTEGER);
    expect(readForText('9007199254740993.5')).toBe(9_007_199_254_740_993_500_000n);
    expect(parseDecimal('999999999')).toBe(999_999_999_000_000);
  });

  it('keeps the decimals asked for', () => {
    expect(formatDecimal(2_400_000, 2)).toBe('2.40');
    expect(formatDecimal(2_475_000, 2)).toBe('2.475');
    expect(formatDecimal(-1, 0)).toBe('-0.000001');
  });
});

describe('mulDiv', () => {
  it.each([
    [7n, 2n, 3n, 4n, 4n],
    [-7n, 2n, -4n, -3n, -4n],
    [7n, -2n, -4n, -3n, -4n],
    [-7n, -2n, 3n, 4n, 4n],
    [1n, 3n, 0n, 1n, 0n],
    [2n, 3n, 0n, 1n, 1n],
    [-1n, 3n, -1n, 0n, 0n],
    [-2n, 3n, -1n, 0n, -1n],
    [6n, 3n, 2n, 2n, 2n],
    [-6n, 3n, -2n, -2n, -2n],
    [0n, 3n, 0n, 0n, 0n],
    [1n, 2n, 0n, 1n, 1n],
    [-1n, 2n, -1n, 0n, -1n],
  ])('%d ÷ %d is %d down, %d up and %d nearest', (top, bottom, down, up, nearest) => {
    expect([divide(top, bottom, 'down'), divide(top, bottom, 'up'), divide(top, bottom, 'nearest')]).toEqual([
      down,
      up,
      nearest,
    ]);
  });

  it('costs and worths are rounded to the nearest millionth, and none is the cost of nothing', () => {
    expect(worthOf(1_500_000 as never, 1 as never)).toBe(2);
    expect(worthOf(-1_500_000 as never, 1 as never)).toBe(-2);
    expect(unitCostOf(10 as never, 3_000_000 as never)).toBe(3);
    expect(unitCostOf(11 as never, 3_000_000 as never)).toBe(4);
    expect(unitCostOf(11 as never, 0 as never)).toBe(0);
    expect(formatDecimal(0)).toBe('0');
  });

  it('rounds as asked, within one of the exact result', () => {
    fc.assert(
      fc.property(scaled, fc.integer({ min: -9999, max: 9999 }), fc.integer({ min: 10_000, max: 1e9 }), (a, b, c) => {
        const [down, near, up] = (['down', 'nearest', 'up'] as const).map((rounding) => mulDiv(a, b, c, rounding));
        expect(BigInt(down ?? 0) * BigInt(c)).toBeLessThanOrEqual(BigInt(a) * BigInt(b));
        expect(BigInt(up ?? 0) * BigInt(c)).toBeGreaterThanOrEqual(BigInt(a) * BigInt(b));
        expect([down, up]).toContain(near);
        expect((up ?? 0) - (down ?? 0)).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('takes halves away from zero', () => {
    expect([mulDiv(1, 1, 2, 'nearest'), mulDiv(-1, 1, 2, 'nearest'), mulDiv(3, 1, 2, 'nearest')]).toEqual([1, -1, 2]);
  });

  it('refuses what no exact integer can hold', () => {
    expect(() => mulDiv(Number.MAX_SAFE_INTEGER, 2, 1, 'nearest')).toThrow(refusal('too-large'));
  });
});

describe('splitByWeight', () => {
  const weights = fc.array(fc.integer({ min: 0, max: 1e12 }), { minLength: 1, maxLength: 40 });

  it('sums to the total exactly, in whole steps, none further than a step from its share', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), weights, fc.constantFrom(1, 10_000), (pieces, parts, step) => {
        const total = pieces * step;
        const split = splitByWeight(total, parts, step);
        expect(split.reduce((a, b) => a + b, 0)).toBe(total);
        const sum = parts.reduce((a, b) => a + b, 0);
        split.forEach((share, index) => {
          expect(share % step === 0).toBe(true);
          const exact = sum === 0 ? total / parts.length : (total * (parts[index] ?? 0)) / sum;
          expect(Math.abs(share - exact)).toBeLessThan(step * 1.001 + Math.abs(exact) * 1e-9);
        });
      }),
    );
  });

  it('gives the odd piece to the largest remainder', () => {
    expect(splitByWeight(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(splitByWeight(10, [15, 25, 60])).toEqual([2, 2, 6]);
    expect(splitByWeight(10, [])).toEqual([]);
  });
});
