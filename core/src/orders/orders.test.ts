import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Need } from '../definitions/index.ts';
import { lessDiscount } from '../definitions/index.ts';
import {
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
import { canShip, checkShipping, type LineProgress, openOf, openPart, shippedPart, standingOf } from './index.ts';

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
