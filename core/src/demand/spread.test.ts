import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Quantity, SCALE } from '../number/index.ts';
import { spreadPromises } from './index.ts';

const units = (n: number) => (n * SCALE) as Quantity;

describe('what of each place is promised', () => {
  it('is taken in picking order, and nothing of what is held', () => {
    const places = [
      { quantity: units(3), usable: true },
      { quantity: units(9), usable: false },
      { quantity: units(4), usable: true },
    ];
    expect(spreadPromises(places, units(5))).toEqual([units(3), 0, units(2)]);
    expect(spreadPromises(places, units(50))).toEqual([units(3), 0, units(4)]);
  });

  it('is never more than stands there, and in all as much as is promised or can be taken', () => {
    const place = fc.record({
      quantity: fc.integer({ min: -5e9, max: 5e9 }).map((n) => n as Quantity),
      usable: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(place, { maxLength: 8 }), fc.nat(2e10), (places, promised) => {
        const shares = spreadPromises(places, promised as Quantity);
        const usable = places.reduce((sum, one) => sum + (one.usable ? Math.max(0, one.quantity) : 0), 0);
        expect(shares.reduce((a, b) => a + b, 0)).toBe(Math.min(promised, usable));
        shares.forEach((share, index) => {
          expect(share).toBeGreaterThanOrEqual(0);
          expect(share).toBeLessThanOrEqual(Math.max(0, places[index]?.quantity ?? 0));
        });
      }),
    );
  });
});
