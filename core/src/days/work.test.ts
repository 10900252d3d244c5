import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { begunBy, benchDays, dayAfter, dayNumber, dayOfNumber, LATER, workedOff } from './index.ts';

const FIVE = new Set([1, 2, 3, 4, 5]);
const after = (day: string, days: number, workDays: ReadonlySet<number> = FIVE) =>
  dayOfNumber(workedOff(dayNumber(day), days, workDays));

describe('working days', () => {
  it('are those of the week that the company works on', () => {
    // A Wednesday, a Friday, a Saturday.
    expect(after('2026-11-25', 1)).toBe('2026-11-25');
    expect(after('2026-11-25', 4)).toBe('2026-11-30');
    expect(after('2026-11-27', 2)).toBe('2026-11-30');
    expect(after('2026-11-28', 1)).toBe('2026-11-30');
    expect(after('2026-11-28', 6)).toBe('2026-12-07');
    expect(after('2026-11-25', 3, new Set([7]))).toBe('2026-12-13');
  });

  it('are counted as one by one', () => {
    const week = fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 });
    const day = fc.integer({ min: 18_000, max: 24_000 });
    fc.assert(
      fc.property(day, fc.integer({ min: 1, max: 40 }), week, (from, days, worked) => {
        const workDays = new Set(worked);
        let [at, done] = [from - 1, 0];
        while (done < days) {
          at += 1;
          if (workDays.has(new Date(dayOfNumber(at)).getUTCDay() || 7)) done += 1;
        }
        expect(workedOff(from, days, workDays)).toBe(at);
        // Begun a day later than that it is done later.
        const last = begunBy(from, days, workDays);
        expect(workedOff(last, days, workDays) <= from && workedOff(last + 1, days, workDays) > from).toBe(true);
      }),
    );
  });

  it('end in a day beyond all plans, however many they are', () => {
    expect([after('2026-11-25', 1e15), after('2999-12-31', 3), dayAfter('2100-12-31', 1)]).toEqual([
      LATER,
      LATER,
      LATER,
    ]);
    expect(dayAfter('2100-12-30', 1)).toBe('2100-12-31');
    const most = benchDays(9e15, 1, null);
    expect(after('2026-11-25', most)).toBe(LATER);
    expect(dayOfNumber(begunBy(dayNumber('2026-11-25'), most, new Set([7])))).toMatch(/^\d{4}-\d{2}-\d{2}$/);
  });

  it('of labour are whole ones, at least one and at least what the bill of materials says', () => {
    expect([0, 1, 480, 481, 960].map((minutes) => benchDays(minutes * 1e6, 480, null))).toEqual([1, 1, 1, 2, 2]);
    expect([benchDays(30e6, 480, 3), benchDays(2000e6, 480, 3)]).toEqual([3, 5]);
  });
});
