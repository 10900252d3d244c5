import { describe, expect, it } from 'vitest';
import { count, Format, negated } from './format.ts';

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

  it('write no coins that a currency does not have', () => {
    const yen = new Format({ currency: 'JPY', locale: 'en' });
    expect([yen.money('1200'), yen.unitCost('1200.25'), yen.amount('1200.6')]).toEqual(['¥1,200', '¥1,200.3', '1,201']);
    expect([yen.currencyDecimals, yen.currencySign, yen.costOrDash(null)]).toEqual([0, '¥', '–']);
    expect(negated('-0.000001')).toBe('0.000001');
  });

  it('name days and counts', () => {
    expect(format.day('2026-12-09')).toBe('Wed 9 Dec');
    expect([count(1, 'build'), count(3, 'build'), count(0, 'kit')]).toEqual(['1 build', '3 builds', '0 kits']);
  });
});
