import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Money, Quantity } from '../number/index.ts';
import { worthReturned } from './index.ts';

const q = (units: number) => (units * 1e6) as Quantity;
const left = (units: number, value: number, returned = 0, returnedValue = 0) => ({
  quantity: q(units),
  value: value as Money,
  returned: q(returned),
  returnedValue: returnedValue as Money,
});

describe('what is returned', () => {
  it('is worth its part of what left, and never more of it comes back than left', () => {
    expect(worthReturned(left(3, 10), q(1))).toBe(3);
    expect(worthReturned(left(3, 10, 1, 3), q(1))).toBe(3);
    expect(worthReturned(left(3, 10, 2, 6), q(1))).toBe(4);
    const code = (of: string) => expect.objectContaining({ code: of, field: 'quantity' });
    expect(() => worthReturned(left(3, 10, 2), q(2), 'quantity')).toThrow(code('more-than-shipped'));
    expect(() => worthReturned(left(3, 10), q(0), 'quantity')).toThrow(code('not-positive'));
  });

  it('is worth all together exactly what left, in whatever portions it comes, and whichever are undone and come again', () => {
    const portions = fc.array(fc.integer({ min: 1, max: 1e9 }), { minLength: 1, maxLength: 9 });
    const undone = fc.array(fc.nat(8), { maxLength: 6 });
    fc.assert(
      fc.property(portions, fc.integer({ min: 0, max: 1e12 }), undone, (parts, value, gone) => {
        const quantity = parts.reduce((sum, part) => sum + part, 0) as Quantity;
        let here: { part: number; worth: number }[] = [];
        const come = (part: number) => {
          const returned = here.reduce((sum, one) => sum + one.part, 0) as Quantity;
          const returnedValue = here.reduce((sum, one) => sum + one.worth, 0) as Money;
          const left = { quantity, value: value as Money, returned, returnedValue };
          here.push({ part, worth: worthReturned(left, part as Quantity) });
        };
        for (const part of parts) come(part);
        for (const at of gone) {
          const again = here[at];
          if (!again) continue;
          here = here.filter((one) => one !== again);
          come(again.part);
        }
        // One after the other is gone, and comes again in the end.
        const all = here.map(({ part }) => part);
        here = here.slice(Math.ceil(here.length / 2));
        for (const part of all.slice(0, all.length - here.length)) come(part);
        expect(here.reduce((sum, { worth }) => sum + worth, 0)).toBe(value);
      }),
    );
  });

  it('is what the others leave of it, where an earlier portion was undone', () => {
    // 11 for three are 3, 4 and 4; the first is undone, and the two others come as one.
    expect(worthReturned(left(3, 11, 1, 4), q(2))).toBe(7);
    expect(worthReturned(left(3, 1, 1, 1), q(1))).toBe(0);
  });
});
