import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Posting, type StockState, spotKey, spotOf } from '../ledger/index.ts';
import { add, type Money, type Quantity, SCALE, ZERO } from '../number/index.ts';
import { keepFor, partKept, postShipment } from './index.ts';

const units = (n: number) => (n * SCALE) as Quantity;

describe('what a build makes for orders', () => {
  const kept = (quantity: number, done = 0) => ({ quantity: units(quantity), kept: units(done) });

  it('goes to the first in turn, and beyond them all to anybody', () => {
    const orders = [kept(4, 1), kept(3), kept(2)];
    expect(keepFor(units(5), orders)).toEqual([units(3), units(2), 0]);
    expect(keepFor(units(50), orders)).toEqual([units(3), units(3), units(2)]);
  });

  it('stays with what goes ahead of the build, first in turn first', () => {
    expect(partKept(units(4), [kept(4, 1), kept(3), kept(2)])).toEqual([
      { stays: units(4), goes: 0 },
      { stays: units(1), goes: units(2) },
      { stays: 0, goes: units(2) },
    ]);
  });

  const orders = fc.array(
    fc.tuple(fc.nat(9), fc.nat(9)).map(([open, done]) => kept(open + done, done)),
    { maxLength: 6 },
  );

  it('is never more than each wants, nor more than there is, and nothing of it is lost when a build is parted', () => {
    fc.assert(
      fc.property(orders, fc.nat(40), (own, n) => {
        const gets = keepFor(units(n), own);
        const open = own.map(({ quantity, kept: done }) => quantity - done);
        expect(add(ZERO, ...gets)).toBe(
          Math.min(
            units(n),
            open.reduce((a, b) => a + b, 0),
          ),
        );
        gets.forEach((got, index) => {
          expect(got).toBeLessThanOrEqual(open[index] ?? 0);
        });
        for (const [index, { stays, goes }] of partKept(units(n), own).entries()) {
          expect(stays + goes).toBe(own[index]?.quantity);
          expect(stays).toBeGreaterThanOrEqual(own[index]?.kept ?? 0);
        }
      }),
    );
  });
});

describe('a shipment', () => {
  const stock = fc.array(fc.tuple(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 0, max: 999_999_999 })), {
    minLength: 1,
    maxLength: 4,
  });

  it('costs exactly what leaves the shelves, and leaves them with the rest', () => {
    fc.assert(
      fc.property(stock, fc.integer({ min: 1, max: 99 }), (items, share) => {
        const state: StockState = {
          items: new Map(
            items.map(([n, value], index) => [
              index,
              { quantity: (n * SCALE) as Quantity, value: value as Money, lastCost: ZERO as number as Money },
            ]),
          ),
          spots: new Map(items.map(([n], index) => [spotKey(spotOf(index, 1)), (n * SCALE) as Quantity])),
          serials: new Map(),
        };
        const posting = new Posting(state);
        const leaving = items.map(([n], index) => ({
          lineId: index % 2,
          partId: index,
          takings: [{ spot: spotOf(index, 1), quantity: (Math.ceil((n * share) / 100) * SCALE) as Quantity }],
        }));
        const { costs, total } = postShipment(posting, leaving);
        const posted = posting.close();
        const before = items.reduce((sum, [, value]) => sum + value, 0);
        const left = [...posted.items.values()].reduce((sum, item) => sum + item.value, 0);
        expect(left + total).toBe(before);
        expect(add(0 as Money, ...costs.values())).toBe(total);
        expect(posted.values.map(({ kind, amount }) => [kind, amount])).toEqual(total > 0 ? [['shipped', -total]] : []);
        for (const [index, item] of posted.items)
          if (item.quantity === 0) expect([index, item.value]).toEqual([index, 0]);
      }),
    );
  });
});
