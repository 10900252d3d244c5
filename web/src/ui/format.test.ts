import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { count, Format, marginWords, negated, shortly } from './format.ts';

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

describe('what is read of figures', () => {
  it('is the margin in tenths of a percent, to the nearest, and a dash where nothing was paid', () => {
    const margin = (sold: string, cost: string) => marginWords(sold, cost, format);
    expect([margin('100', '60'), margin('3', '2'), margin('3', '1'), margin('2', '3')]).toEqual([
      '40.0%',
      '33.3%',
      '66.7%',
      '-50.0%',
    ]);
    // Exactly between two tenths, both sides of zero.
    expect([margin('10000', '9995'), margin('10000', '10005'), margin('10000', '9996')]).toEqual([
      '0.1%',
      '-0.1%',
      '0.0%',
    ]);
    expect([margin('0', '5'), margin('-1', '5'), margin('0.000001', '0')]).toEqual(['–', '–', '100.0%']);
  });

  it('is a name that leaves room for others, cut at a word', () => {
    const forty = 'A hive of nine frames with a flat roof on';
    expect(shortly(forty.slice(0, 40))).toBe(forty.slice(0, 40));
    expect(shortly(forty)).toBe('A hive of nine frames with a flat…');
    expect(shortly('A'.repeat(41))).toBe(`${'A'.repeat(38)}…`);
  });

  it('is what somebody typed, with the company’s own signs', () => {
    const german = new Format({ currency: 'EUR', locale: 'de-DE' });
    expect([german.typed('1234.5 kg'), german.typed('box'), german.typed(' -2.25')]).toEqual([
      '1.234,5 kg',
      'box',
      '-2,25',
    ]);
  });

  it('is a price with all its decimals, and at least those of the currency', () => {
    expect([format.price('2'), format.price('2.5'), format.price('2.3456')]).toEqual(['€2.00', '€2.50', '€2.3456']);
    expect([format.costOrDash('2.5'), format.percent('7'), format.percent('7.129')]).toEqual(['2.500', '7%', '7.13%']);
    expect([format.quantity('2', 'kg', 3), format.quantity('2', 'kg', 6), format.quantity('2.5', 'each', 1)]).toEqual([
      '2.000 kg',
      '2.000 kg',
      '2.5',
    ]);
  });

  it('is a day that says its year from most of a year away, and its month where that begins', () => {
    expect(['2027-09-21', '2027-09-22', '2026-01-29', '2026-01-28'].map((day) => format.day(day))).toEqual([
      'Tue 21 Sept',
      '22 Sept 2027',
      'Thu 29 Jan',
      '28 Jan 2026',
    ]);
    expect(format.day('2101-01-01')).toBe('later than 2100');
    expect(format.longDay('2026-12-09')).toBe('Wednesday 9 December');
    const at = (iso: string) => format.dayOfMonth(Date.parse(`${iso}T00:00:00Z`) / 86_400_000);
    expect([at('2026-12-01'), at('2026-12-07'), at('2026-12-08')]).toEqual(['1 Dec', '7 Dec', '8']);
    const german = new Format({ currency: 'EUR', locale: 'de-DE' });
    expect(german.dayOfMonth(Date.parse('2026-12-01T00:00:00Z') / 86_400_000)).toBe('1.12.');
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
