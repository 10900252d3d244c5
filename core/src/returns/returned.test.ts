import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money, Quantity } from '../number/index.ts';
import { worthReturned } from './index.ts';

const q = (units: number) => (units * 1e6) as Quantity;
const left = (units: number, value: number, returned = 0) => ({
  quantity: q(units),
  value: value as Money,
  returned: q(returned),
});

describe('what is returned', () => {
  it('is worth its part of what left, and never more of it comes back than left', () => {
    expect(worthReturned(left(3, 10), q(1))).toBe(3);
    expect(worthReturned(left(3, 10, 1), q(1))).toBe(3);
    expect(worthReturned(left(3, 10, 2), q(1))).toBe(4);
    const code = (of: string) => expect.objectContaining({ code: of, field: 'quantity' });
    expect(() => worthReturned(left(3, 10, 2), q(2), 'quantity')).toThrow(code('more-than-shipped'));
    expect(() => worthReturned(left(3, 10), q(0), 'quantity')).toThrow(code('not-positive'));
  });

  it('is worth all together exactly what left, in whatever portions it comes', () => {
    const portions = fc.array(fc.integer({ min: 1, max: 1e9 }), { minLength: 1, maxLength: 9 });
    fc.assert(
      fc.property(portions, fc.integer({ min: 0, max: 1e12 }), (parts, value) => {
        const quantity = parts.reduce((sum, part) => sum + part, 0) as Quantity;
        let returned = 0;
        let worth = 0;
        for (const part of parts) {
          worth += worthReturned({ quantity, value: value as Money, returned: returned as Quantity }, part as Quantity);
          returned += part;
        }
        expect(worth).toBe(value);
      }),
    );
  });
});
