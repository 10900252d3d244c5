import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter } from '../days/index.ts';
import { type Quantity, SCALE } from '../number/index.ts';
import { type DayOfUse, proposeReorder, useSince } from './index.ts';

const q = (n: number) => (n * SCALE) as Quantity;
const use = (on: string, n: number): DayOfUse => ({ on, quantity: q(n) });

describe('a reorder point', () => {
  it('looks back on half a year, from the same weekday on', () => {
    expect(useSince('2026-11-23')).toBe('2026-05-25');
  });

  it('is the most that was used while a slow delivery would have been on its way', () => {
    const uses = [use('2026-06-01', 4), use('2026-06-20', 10), use('2026-06-24', 6), use('2026-06-30', 5)];
    expect(proposeReorder(uses, 7)).toEqual({ point: q(16), from: '2026-06-20', used: q(25) });
    expect(proposeReorder(uses, 11)).toEqual({ point: q(21), from: '2026-06-20', used: q(25) });
    expect(proposeReorder(uses, 1)?.point).toBe(q(10));
    expect(proposeReorder([use('2026-06-01', 3), use('2026-06-01', 4)], 0)?.point).toBe(q(7));
    expect(proposeReorder([], 7)).toBeNull();
    expect(proposeReorder([use('2026-06-01', 0)], 7)).toBeNull();
  });

  it('never lets it run out, whenever it was ordered at the point and came within that time', () => {
    const anyUse = fc.array(fc.tuple(fc.nat(60), fc.integer({ min: 1, max: 9 })), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(anyUse, fc.integer({ min: 1, max: 20 }), (raw, days) => {
        const uses = raw.map(([day, n]) => use(dayAfter('2026-06-01', day), n));
        const point = proposeReorder(uses, days)?.point ?? 0;
        const usedIn = (first: number) =>
          raw.reduce((sum, [day, n]) => (day >= first && day < first + days ? sum + n : sum), 0);
        const windows = Array.from({ length: 61 }, (_, first) => usedIn(first));
        expect(point).toBe(q(Math.max(...windows)));
      }),
    );
  });
});
