import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseQuantity, type Quantity, ZERO } from '../number/index.ts';
import { quantityChanges, type Wanted } from './index.ts';

const q = (amount: string) => parseQuantity(amount, 6);
const line = (id: number, itemId: number, quantity: string, dropped = '0'): Wanted => ({
  ...{ id, itemId, quantity: q(quantity), dropped: q(dropped) },
});

describe('what changed in an order', () => {
  it('is another quantity, one given up, one that went and one that came', () => {
    const before = [line(1, 10, '5'), line(2, 11, '3'), line(3, 12, '2'), line(4, 13, '1')];
    const after = [line(1, 10, '8'), line(2, 11, '3', '2'), line(4, 13, '1'), line(5, 14, '0.5')];
    expect(quantityChanges(before, after)).toEqual([
      { itemId: 10, before: q('5'), after: q('8') },
      { itemId: 11, before: q('3'), after: q('1') },
      { itemId: 12, before: q('2'), after: ZERO },
      { itemId: 14, before: ZERO, after: q('0.5') },
    ]);
  });

  it('tells one item in another’s place as one that went and one that came', () => {
    expect(quantityChanges([line(1, 10, '5')], [line(1, 11, '5')])).toEqual([
      { itemId: 10, before: q('5'), after: ZERO },
      { itemId: 11, before: ZERO, after: q('5') },
    ]);
  });

  it('leads from what was wanted of each item to what is', () => {
    const lines = fc.uniqueArray(
      fc
        .record({ id: fc.nat(6), itemId: fc.nat(3), quantity: fc.integer({ min: 1, max: 9 }), given: fc.nat(9) })
        .map(({ id, itemId, quantity, given }) =>
          line(id, itemId, String(quantity), String(Math.min(quantity, given))),
        ),
      { selector: ({ id }) => id },
    );
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const of = (all: readonly Wanted[], item: number) =>
          all.filter(({ itemId }) => itemId === item).reduce((sum, one) => sum + one.quantity - one.dropped, 0);
        const changes = quantityChanges(before, after);
        for (const item of [0, 1, 2, 3]) {
          const change = changes.filter(({ itemId }) => itemId === item);
          const by = change.reduce((sum, one) => sum + (one.after as number) - (one.before as Quantity), 0);
          expect(of(before, item) + by).toBe(of(after, item));
        }
      }),
    );
  });
});
