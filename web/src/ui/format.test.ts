import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { count, Format, negated } from './format.ts';

// How a day is written depends on how far it is from today.
beforeEach(() => vi.useFakeTimers({ now: new Date('2026-11-25T09:00:00'), toFake: ['Date'] }));
afterEach(() => vi.useRealTimers());

const format = new Format({ currency: 'EUR', locale: 'en-GB' });

describe('formats', () => {
  it('show decimal texts as they are, never through a float', () => {
    expect(format.number('9007199254.740993', 2)).toBe('9,007,199,254.740993');
    expect(format.quantity('0.1', 'kg', 3)).toBe('0.100 kg');
    expect(format.quantity('1234', 'each')).toBe('1,234');
    expect(format.exactMoney('219.795045')).toBe('€219.795045');
  });

  it('follow the company', () => {
    const german = new Format({ currency: 'CHF', locale: 'de-CH' });
    expect(german.money('1234.5')).toMatch(/CHF.1.234\.50/);
    expect(format.money('1234.5')).toBe('€1,234.50');
    expect(format.unitCost('2.475')).toBe('€2.475');
  });

  it('write days in figures where months have other names, with the weekday in the language of the texts', () => {
    const german = new Format({ currency: 'EUR', locale: 'de-DE' });
    expect([german.day('2026-12-09'), german.longerDay('2025-12-10'), german.longDay('2026-12-09')]).toEqual([
      'Wed 9.12.',
      '10.12.2025',
      'Wednesday 9.12.',
    ]);
    expect([german.percent('12.5'), format.percent('12.5', 2), german.ago('2026-11-24T09:00:00')]).toEqual([
      '12,5%',
      '12.50%',
      'yesterday',
    ]);
  });

  it('write no coins that a currency does not have', () => {
    const yen = new Format({ currency: 'JPY', locale: 'en' });
    expect([yen.money('1200'), yen.unitCost('1200.25'), yen.amount('1200.6')]).toEqual(['¥1,200', '¥1,200.3', '1,201']);
    expect([yen.currencyDecimals, yen.currencySign, yen.costOrDash(null)]).toEqual([0, '¥', '–']);
    expect(negated('-0.000001')).toBe('0.000001');
  });

  it('name days and counts', () => {
    expect([format.day('2026-12-09'), format.day('2025-12-10'), format.day('soon')]).toEqual([
      'Wed 9 Dec',
      '10 Dec 2025',
      'soon',
    ]);
    expect([count(1, 'build'), count(3, 'build'), count(0, 'kit')]).toEqual(['1 build', '3 builds', '0 kits']);
  });
});

describe('days and how long ago, in other time zones', () => {
  afterEach(() => {
    vi.unstubAllEnvs();
    vi.useRealTimers();
  });

  it.each(['Pacific/Kiritimati', 'Pacific/Pago_Pago', 'Europe/London', 'America/Sao_Paulo'])('%s', (zone) => {
    vi.stubEnv('TZ', zone);
    expect([format.day('2026-12-09'), format.longerDay('2026-03-29')]).toEqual(['Wed 9 Dec', '29 Mar 2026']);
    const ago = (now: Date, then: Date) => {
      vi.useFakeTimers({ now });
      return format.ago(then.toISOString());
    };
    // A quarter past midnight, by the clock on this wall.
    const now = new Date(2026, 11, 9, 0, 15);
    expect(now.getHours()).toBe(0);
    expect(ago(now, new Date(2026, 11, 9, 0, 14, 30))).toBe('this minute');
    expect(ago(now, new Date(2026, 11, 8, 23, 15, 40))).toBe('59 minutes ago');
    expect(ago(now, new Date(2026, 11, 8, 22, 20))).toBe('1 hour ago');
    expect(ago(now, new Date(2026, 11, 8, 0, 15))).toBe('yesterday');
    expect(ago(now, new Date(2026, 11, 7, 23, 50))).toBe('2 days ago');
    expect(ago(now, new Date(2026, 11, 10, 2, 0))).toBe('tomorrow');
  });
});
