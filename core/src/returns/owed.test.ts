import { describe, expect, it } from 'vitest';
import { parseMoney, parsePercent, parseQuantity } from '../number/index.ts';
import { creditOwed, keptOf } from './owed.ts';

const q = (text: string) => parseQuantity(text, 6);

describe('what is owed for what came back', () => {
  it('is a percentage of the price for what is kept', () => {
    expect(creditOwed(q('2'), parseMoney('20'), parsePercent('70'))).toBe(28_000_000n);
    expect(creditOwed(q('0.5'), parseMoney('0.000001'), parsePercent('100'))).toBe(1n);
    expect(creditOwed(q('3'), parseMoney('19.99'), parsePercent('0'))).toBe(0n);
  });

  it('is nothing for what went back to the customer, of a kit only when all of it did', () => {
    const pieces = [
      { quantity: q('2'), sentBack: q('2') },
      { quantity: q('4'), sentBack: q('1') },
    ];
    expect(keptOf({ quantity: q('6'), isKit: false }, pieces)).toBe(q('3'));
    expect(keptOf({ quantity: q('2'), isKit: true }, pieces)).toBe(q('2'));
    const all = pieces.map(({ quantity }) => ({ quantity, sentBack: quantity }));
    expect(keptOf({ quantity: q('2'), isKit: true }, all)).toBe(0);
    expect(keptOf({ quantity: q('2'), isKit: true }, [])).toBe(q('2'));
  });
});
