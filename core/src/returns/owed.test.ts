import { describe, expect, it } from 'vitest';
import { parseMoney, parsePercent, parseQuantity } from '../number/index.ts';
import { creditOwed, isOfWholeKits, keptOf } from './owed.ts';

const q = (text: string) => parseQuantity(text, 6);

describe('what is owed for what came back', () => {
  it('is a percentage of the price for what is kept', () => {
    expect(creditOwed(q('2'), parseMoney('20'), parsePercent('70'), 2)).toBe(28_000_000n);
    // Three at 0.335 were printed as 1.01; half of that is 0.51, of which no customer is paid a fraction.
    expect(creditOwed(q('3'), parseMoney('0.335'), parsePercent('50'), 2)).toBe(510_000n);
    expect(creditOwed(q('3'), parseMoney('0.335'), parsePercent('50'), 0)).toBe(1_000_000n);
    expect(creditOwed(q('3'), parseMoney('19.99'), parsePercent('0'), 2)).toBe(0n);
  });

  const away = (partId: number, quantity: string, sentBack: string) => ({
    partId,
    quantity: q(quantity),
    sentBack: q(sentBack),
  });

  it('is nothing for what went back to the customer', () => {
    const pieces = [away(1, '2', '2'), away(1, '4', '1')];
    expect(keptOf({ quantity: q('6'), isKit: false }, pieces)).toBe(q('3'));
  });

  it('is nothing for whole kits that went back, however many lots their parts are of', () => {
    const two = { quantity: q('2'), isKit: true };
    const one = [away(1, '4', '2'), away(2, '1', '1'), away(2, '1', '0')];
    expect(keptOf(two, one)).toBe(q('1'));
    expect(isOfWholeKits(two.quantity, one)).toBe(true);
    const torn = [away(1, '4', '3'), away(2, '1', '1'), away(2, '1', '0')];
    expect(keptOf(two, torn)).toBe(q('1'));
    expect(isOfWholeKits(two.quantity, torn)).toBe(false);
    // One whole kit, and a part of the other: one is kept, whichever part is named first.
    for (const parts of [
      [away(1, '4', '3'), away(2, '2', '1')],
      [away(2, '2', '1'), away(1, '4', '3')],
    ])
      expect(keptOf(two, parts)).toBe(q('1'));
    for (const parts of [
      [away(1, '4', '4'), away(2, '2', '0')],
      [away(2, '2', '0'), away(1, '4', '4')],
    ])
      expect(keptOf(two, parts)).toBe(q('2'));
    const half = [away(1, '4', '1'), away(2, '2', '0')];
    expect(keptOf(two, half)).toBe(q('2'));
    expect(isOfWholeKits(two.quantity, half)).toBe(false);
    const all = [away(1, '4', '4'), away(2, '2', '2')];
    expect(keptOf(two, all)).toBe(0);
    expect(isOfWholeKits(two.quantity, all)).toBe(true);
    // Of three kits with ten grams each that were weighed as 29, not even one is whole by itself.
    expect(isOfWholeKits(q('3'), [away(1, '0.029', '0.01')])).toBe(false);
    expect(keptOf(two, [])).toBe(q('2'));
    expect(isOfWholeKits(two.quantity, [])).toBe(true);
  });
});
