import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { Percent, Quantity } from '../number/index.ts';
import { byWorry, type Worrying } from './worry.ts';

const one = (part: Partial<Worrying>): Worrying => ({
  faults: [],
  canMake: 5 as Quantity,
  margin: 40 as Percent,
  ...part,
});

it('what loses money comes first, then what cannot be made, then what earns least', () => {
  const lossy = one({ faults: ['unpriced-part', 'below-cost'], margin: -3 as Percent });
  const archived = one({ faults: ['archived-part'] });
  const draft = one({ faults: ['none-in-use'] });
  const out = one({ canMake: 0 as Quantity });
  const thin = one({ margin: 5 as Percent });
  const unsold = one({ margin: null });
  const unlimited = one({ canMake: null, margin: 90 as Percent });
  const sorted = [unsold, unlimited, thin, out, draft, archived, lossy].sort(byWorry);
  expect(sorted).toEqual([lossy, archived, draft, out, thin, unlimited, unsold]);
});

it('is an order: it never contradicts itself', () => {
  const worrying = fc.record({
    faults: fc.subarray(['below-cost', 'beyond-reckoning', 'archived-part', 'unpriced-part', 'none-in-use'] as const),
    canMake: fc.option(fc.integer({ min: 0, max: 3 }).map((n) => n as Quantity)),
    margin: fc.option(fc.integer({ min: -5, max: 5 }).map((n) => n as Percent)),
  });
  fc.assert(
    fc.property(worrying, worrying, worrying, (a, b, c) => {
      expect(Math.sign(byWorry(a, b))).toBe(-Math.sign(byWorry(b, a)) + 0);
      if (byWorry(a, b) <= 0 && byWorry(b, c) <= 0) expect(byWorry(a, c)).toBeLessThanOrEqual(0);
    }),
  );
});
