import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  currencyText,
  decimalsOf,
  formatDecimal,
  lineAmount,
  type Money,
  parseMoney,
  parseQuantity,
  type Quantity,
  readForText,
  sumForText,
  toCurrency,
} from './index.ts';

const amount = (quantity: string, price: string, decimals = 2) =>
  currencyText(lineAmount(parseQuantity(quantity, 6), parseMoney(price), decimals), decimals);

describe('money on papers', () => {
  it('is rounded to the currency once, on the line', () => {
    expect([decimalsOf('EUR'), decimalsOf('JPY'), decimalsOf('KWD')]).toEqual([2, 0, 3]);
    // Three screws at 0.0845 are 0.2535, and not three times what one would be rounded to.
    expect([amount('3', '0.0845'), amount('3', '0.0845', 0), amount('3', '0.0845', 3)]).toEqual(['0.25', '0', '0.254']);
    // Rounding to millionths before would make 0.005 of what is less.
    expect(amount('0.4999', '0.010001')).toBe('0.00');
    expect([currencyText(5_000_000, 2), currencyText(-1_250_000, 3), currencyText(845_00, 2)]).toEqual([
      '5.00',
      '-1.250',
      '0.0845',
    ]);
  });

  it('adds up: a total is the sum of what is printed', () => {
    const lines = fc.array(fc.tuple(fc.nat({ max: 9e9 }), fc.nat({ max: 9e9 })), { maxLength: 20 });
    fc.assert(
      fc.property(lines, fc.constantFrom(0, 2, 3), (all, decimals) => {
        const amounts = all.map(([quantity, price]) => lineAmount(quantity as Quantity, price as Money, decimals));
        const printed = amounts.map((one) => currencyText(one, decimals));
        for (const text of printed) expect(text.split('.')[1]?.length ?? 0).toBe(decimals);
        expect(formatDecimal(sumForText(printed.map(readForText)))).toBe(formatDecimal(sumForText(amounts)));
        for (const [index, [quantity, price]] of all.entries()) {
          const exact = BigInt(quantity) * BigInt(price);
          const off = exact - (amounts[index] ?? 0n) * 1_000_000n;
          expect(2n * (off < 0n ? -off : off)).toBeLessThanOrEqual(10n ** BigInt(12 - decimals));
        }
        expect(toCurrency(sumForText(amounts), decimals)).toBe(sumForText(amounts));
      }),
    );
  });
});
