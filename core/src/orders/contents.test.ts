import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ONE, type Quantity, SCALE, ZERO } from '../number/index.ts';
import { type Content, type Swap, type Wish, withWishes } from './index.ts';

const part = (position: number, itemId: number, amount = 1): Content => ({
  position,
  itemId,
  basis: 'per-output',
  amount: (amount * SCALE) as Quantity,
  waste: ZERO,
});
const base = [part(0, 10, 2), part(1, 11), part(4, 12)];
const wish = (position: number, itemId: number, amount: number): Wish => ({
  position,
  itemId,
  amount: (amount * SCALE) as Quantity,
});
const swaps = new Map<number, readonly Swap[]>([[1, [{ itemId: 21, ratio: ONE }]]]);
const rules = {
  locked: { onOrder: 'locked', swapFor: 'anything' },
  quantities: { onOrder: 'quantities', swapFor: 'anything' },
  listed: { onOrder: 'swaps', swapFor: 'listed' },
  anything: { onOrder: 'swaps', swapFor: 'anything' },
} as const;

describe('the contents of a kit on a line', () => {
  it.each<[keyof typeof rules, string, Wish, string | null]>([
    ['locked', 'the same', wish(0, 10, 2), null],
    ['locked', 'another amount', wish(0, 10, 3), 'kit-locked'],
    ['locked', 'another item', wish(1, 21, 1), 'kit-locked'],
    ['quantities', 'another amount', wish(0, 10, 3), null],
    ['quantities', 'none of it', wish(0, 10, 0), null],
    ['quantities', 'another item', wish(1, 21, 1), 'kit-no-swaps'],
    ['listed', 'an alternate', wish(1, 21, 2), null],
    ['listed', 'the alternate of another part', wish(0, 21, 2), 'kit-swap-unlisted'],
    ['listed', 'any item', wish(1, 99, 1), 'kit-swap-unlisted'],
    ['anything', 'any item', wish(1, 99, 1), null],
    ['anything', 'a part that is not there', wish(3, 99, 1), 'unknown-line'],
  ])('that are %s take %s or refuse it', (rule, _, asked, refused) => {
    const make = () => withWishes(base, [asked], rules[rule], swaps);
    if (refused) expect(make).toThrow(expect.objectContaining({ code: refused }));
    else
      expect(make()).toEqual(
        base.map((own) =>
          own.position === asked.position ? { ...own, itemId: asked.itemId, amount: asked.amount } : own,
        ),
      );
  });

  it('are never nothing at all, and no part is wished twice', () => {
    const none = base.map(({ position, itemId }) => wish(position, itemId, 0));
    expect(() => withWishes(base, none, rules.quantities, swaps)).toThrow(
      expect.objectContaining({ code: 'kit-empty', field: 'contents' }),
    );
    expect(() => withWishes(base, [wish(0, 10, 1), wish(0, 10, 3)], rules.quantities, swaps)).toThrow(
      expect.objectContaining({ code: 'unknown-line', field: 'contents.1.position' }),
    );
  });

  it('are exactly what was wished where it was, the rest as the revision has it, and back again by wishing that', () => {
    const amounts = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(amounts, fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }), (wanted, which) => {
        const wishes = base.flatMap(({ position, itemId }, index) =>
          which[index] ? [wish(position, itemId + 100, (wanted[index] ?? 0) + 1)] : [],
        );
        const filled = withWishes(base, wishes, rules.anything, swaps);
        for (const [index, own] of base.entries())
          expect(filled[index]).toEqual(
            which[index]
              ? { ...own, itemId: own.itemId + 100, amount: (((wanted[index] ?? 0) + 1) * SCALE) as Quantity }
              : own,
          );
        expect(withWishes(base, [], rules.anything, swaps)).toEqual(base);
      }),
    );
  });
});
