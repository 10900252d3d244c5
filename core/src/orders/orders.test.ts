import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Need } from '../definitions/index.ts';
import { Posting, type StockState, spotKey, spotOf } from '../ledger/index.ts';
import {
  add,
  HUNDRED_PERCENT,
  type Money,
  ONE,
  type Percent,
  parseDecimal,
  parsePercent,
  type Quantity,
  SCALE,
  ZERO,
} from '../number/index.ts';
import {
  canShip,
  checkShipping,
  type LineProgress,
  lessDiscount,
  openOf,
  openPart,
  postShipment,
  shippedPart,
  standingOf,
} from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const line = (quantity: string, shipped = '0', dropped = '0'): LineProgress => ({
  quantity: q(quantity),
  shipped: q(shipped),
  dropped: q(dropped),
});
const need = (quantity: string, more: Partial<Need> = {}): Need => ({
  basis: 'per-output',
  quantity: q(quantity),
  waste: ZERO,
  decimals: 0,
  ...more,
});

describe('a line of an order', () => {
  it('is open for what has neither left nor been given up', () => {
    expect(openOf(line('10', '4', '1'))).toBe(q('5'));
    expect(() => checkShipping(line('10', '4', '1'), q('6'), 'quantity')).toThrow(
      expect.objectContaining({ code: 'more-than-ordered', facts: { left: q('5') }, field: 'quantity' }),
    );
    expect(() => checkShipping(line('10'), ZERO, 'quantity')).toThrow(
      expect.objectContaining({ code: 'not-positive' }),
    );
  });

  it('promises nothing as a quote or once it is cancelled', () => {
    expect(openPart('quote', need('2'), line('3'), ONE, ZERO)).toBe(ZERO);
    expect(openPart('cancelled', need('2'), line('3'), ONE, ZERO)).toBe(ZERO);
    expect(openPart('confirmed', need('2'), line('3'), ONE, ZERO)).toBe(q('6'));
    expect(openPart('confirmed', need('2'), line('3', '1'), ONE, q('3'))).toBe(q('1'));
  });

  it('says of its order how far it has come', () => {
    expect(standingOf('quote', [line('1')])).toBe('quote');
    expect(standingOf('confirmed', [line('2'), line('1')])).toBe('open');
    expect(standingOf('confirmed', [line('2', '1'), line('1')])).toBe('partly-shipped');
    expect(standingOf('confirmed', [line('2', '2'), line('1', '0', '1')])).toBe('shipped');
    expect(standingOf('confirmed', [line('2', '0', '2')])).toBe('cancelled');
    expect(standingOf('cancelled', [line('2')])).toBe('cancelled');
  });

  const needs = fc.record({
    basis: fc.constantFrom('per-output' as const, 'per-run' as const),
    quantity: fc.integer({ min: 1, max: 5_000_000 }).map((n) => n as Quantity),
    waste: fc.integer({ min: 0, max: 2000 }).map((n) => (n * 10_000) as Percent),
    decimals: fc.integer({ min: 0, max: 3 }),
  });

  it('takes by parts exactly what the whole takes, however it is parted', () => {
    fc.assert(
      fc.property(needs, fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }), (own, portions) => {
        const quantity = (portions.reduce((sum, n) => sum + n, 0) * SCALE) as Quantity;
        let [shipped, left] = [0, 0];
        for (const portion of portions) {
          const at = { quantity, shipped: shipped as Quantity, dropped: ZERO };
          left += shippedPart(own, at, ONE, (portion * SCALE) as Quantity);
          shipped += portion * SCALE;
          // What has left and what is still open are the whole, at every step.
          const now = { quantity, shipped: shipped as Quantity, dropped: ZERO };
          expect(left + openPart('confirmed', own, now, ONE, ZERO)).toBe(
            shippedPart(own, { quantity, shipped: ZERO, dropped: ZERO }, ONE, quantity),
          );
        }
      }),
    );
  });

  it('can be shipped as far as every thing is at hand, and not one more', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.array(fc.tuple(needs, fc.integer({ min: 0, max: 60 })), { minLength: 1, maxLength: 4 }),
        (quantity, parts) => {
          const own = { quantity: (quantity * SCALE) as Quantity, shipped: ZERO, dropped: ZERO };
          const hand = parts.map(([need, ready]) => ({ need, ready: (ready * SCALE) as Quantity }));
          const fits = (n: number) =>
            hand.every(({ need, ready }) => shippedPart(need, own, ONE, (n * SCALE) as Quantity) <= ready);
          let most = 0;
          for (let n = 1; n <= quantity; n += 1) if (fits(n)) most = n;
          expect(canShip(own, ONE, hand, SCALE)).toBe(most * SCALE);
        },
      ),
    );
  });
});

describe('a price', () => {
  it('less a discount is rounded to what money is paid in, and without one stays what it is', () => {
    const price = parseDecimal('12.345') as Money;
    expect(lessDiscount(price, ZERO as number as Percent, 2)).toBe(price);
    expect(lessDiscount(price, parsePercent('10'), 2)).toBe(parseDecimal('11.11'));
    expect(lessDiscount(price, parsePercent('10'), 0)).toBe(parseDecimal('11'));
    expect(lessDiscount(price, HUNDRED_PERCENT as Percent, 2)).toBe(0);
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
