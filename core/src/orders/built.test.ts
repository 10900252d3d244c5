import { expect, it } from 'vitest';
import { type Quantity, SCALE } from '../number/index.ts';
import { waitsInstead } from './index.ts';

const q = (n: number) => (n * SCALE) as Quantity;
const served = (open: number, ready: number, building = 0) => ({
  open: q(open),
  ready: q(ready),
  building: q(building),
});

it('what is built for an order waits, though the shelf could give it', () => {
  expect(waitsInstead(served(12, 12), q(12))).toBe(q(12));
  expect(waitsInstead(served(12, 5), q(7))).toBe(0);
  expect(waitsInstead(served(12, 5), q(9))).toBe(q(2));
  expect(waitsInstead(served(12, 8, 4), q(2))).toBe(q(2));
});
