import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { dayOf, utcDay } from './index.ts';

describe('the company’s day of a moment', () => {
  afterEach(() => vi.unstubAllEnvs());

  it('is the one on the wall where it is reckoned, also of an evening', () => {
    const said = (zone: string) => {
      vi.stubEnv('TZ', zone);
      return dayOf('2026-11-26T02:30:00.000Z');
    };
    expect(['UTC', 'America/New_York', 'Pacific/Kiritimati', 'Pacific/Pago_Pago'].map(said)).toEqual([
      '2026-11-26',
      '2026-11-25',
      '2026-11-26',
      '2026-11-25',
    ]);
  });

  it('is the same for a date and its text, and the day that holds it', () => {
    const moments = fc.date({ min: new Date('2000-01-01'), max: new Date('2100-01-01'), noInvalidDate: true });
    fc.assert(
      fc.property(moments, fc.constantFrom('UTC', 'America/St_Johns', 'Asia/Kathmandu'), (moment, zone) => {
        vi.stubEnv('TZ', zone);
        const day = dayOf(moment);
        expect(dayOf(moment.toISOString())).toBe(day);
        const begins = new Date(`${day}T00:00:00`).getTime();
        expect(moment.getTime() - begins).toBeGreaterThanOrEqual(0);
        expect(moment.getTime() - begins).toBeLessThan(25 * 3_600_000);
      }),
    );
    expect(utcDay(new Date('2026-11-26T23:59:00Z'))).toBe('2026-11-26');
  });
});
