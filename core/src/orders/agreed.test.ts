import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  formatDecimal,
  type Money,
  type Percent,
  parseMoney,
  parsePercent,
  parseQuantity,
  ZERO,
} from '../number/index.ts';
import { agreedPrice, orderSum } from './index.ts';

const sold = (quantity: string, list: string, discount = '0') => ({
  quantity: parseQuantity(quantity, 6),
  list: parseMoney(list),
  discount: parsePercent(discount),
});
const of = (lines: readonly ReturnType<typeof sold>[], discount = '0', freight = '0', decimals = 2) => {
  const sum = orderSum(lines, { discount: parsePercent(discount), freight: parseMoney(freight) }, decimals);
  return [sum.amounts, sum.lines, sum.takenOff, sum.total].map((some) =>
    Array.isArray(some) ? some.map(formatDecimal).join(' ') : formatDecimal(some as bigint),
  );
};

describe('what an order comes to', () => {
  it('is the sum of what is printed, each line rounded once, less its discount, with the freight', () => {
    // 3 × 9.99 less 10 % is 26.973; half of 29.37 is 14.685.
    expect(of([sold('3', '9.99', '10'), sold('4', '0.6')], '50', '4.5')).toEqual([
      '26.97 2.4',
      '29.37',
      '14.69',
      '19.18',
    ]);
    expect(of([sold('7', '6.9', '10')], '5', '12.5')).toEqual(['43.47', '43.47', '2.17', '53.8']);
    // Unit prices may have more decimals than the currency.
    expect(of([sold('1000', '0.0125')])).toEqual(['12.5', '12.5', '0', '12.5']);
    expect(of([sold('3', '100', '10')], '33', '0', 0)).toEqual(['270', '270', '89', '181']);
    expect(of([])).toEqual(['', '0', '0', '0']);
  });

  it('gives what one brings more decimals than are paid', () => {
    const off = { line: parsePercent('10'), order: parsePercent('5') };
    expect(formatDecimal(agreedPrice(parseMoney('6.9'), off))).toBe('5.8995');
  });

  it('adds up whatever is taken off, and no line brings less than nothing', () => {
    const percent = fc.integer({ min: 0, max: 100_000_000 }).map((amount) => amount as Percent);
    const line = fc.record({
      quantity: fc.integer({ min: 0, max: 1_000_000_000 }).map((amount) => parseQuantity(formatDecimal(amount), 6)),
      list: fc.integer({ min: 0, max: 5_000_000_000 }).map((amount) => amount as Money),
      discount: percent,
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), percent, fc.nat(90_000_000), (lines, discount, freight) => {
        const sum = orderSum(lines, { discount, freight: freight as Money }, 2);
        expect(sum.lines).toBe(sum.amounts.reduce((all, amount) => all + amount, 0n));
        expect(sum.total).toBe(sum.lines - sum.takenOff + BigInt(freight));
        for (const amount of [...sum.amounts, sum.takenOff]) expect(amount % 10_000n).toBe(0n);
        expect(sum.takenOff >= 0n && sum.takenOff <= sum.lines).toBe(true);
        // What one brings, times how many, is what is printed, to half a cent a line and half a millionth a piece.
        const brought = lines.reduce(
          (all, one) => all + (agreedPrice(one.list, { line: one.discount, order: discount }) * one.quantity) / 1e6,
          0,
        );
        const slack = 5001 * (lines.length + 1) + lines.reduce((all, one) => all + one.quantity / 1e6, 0);
        expect(Math.abs(brought - Number(sum.lines - sum.takenOff))).toBeLessThanOrEqual(slack);
      }),
    );
  });

  it('is less nothing where nothing is taken off', () => {
    expect(agreedPrice(parseMoney('9.99'), { line: ZERO, order: ZERO })).toBe(parseMoney('9.99'));
  });
});
