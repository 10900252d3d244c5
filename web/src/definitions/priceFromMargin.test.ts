import { type Money, parseMoney } from '@yosegi/core/number';
import { describe, expect, it } from 'vitest';
import { priceAndMargin } from './priceFromMargin.ts';

const cost = parseMoney('7.01');
const fromMargin = (text: string, decimals: number, of: Money = cost) =>
  priceAndMargin({ at: 'margin', text }, null, of, decimals);

describe('price and margin', () => {
  it('rounds a price from a margin up to the smallest coin of the currency', () => {
    expect(fromMargin('30', 2)).toMatchObject({ price: '10.02', fault: undefined });
    expect(fromMargin('30', 0).price).toBe('11');
    expect(fromMargin('30', 3).price).toBe('10.015');
  });

  it('tells the margin of a typed price, and nothing without one', () => {
    expect(priceAndMargin({ at: 'price', text: ' 14.02 ' }, null, cost, 2)).toMatchObject({ margin: '50.0' });
    expect(priceAndMargin(null, null, cost, 2)).toEqual({ price: '', margin: '', fault: undefined });
    expect(priceAndMargin({ at: 'price', text: '0' }, '9', cost, 2)).toMatchObject({ price: '0', margin: '' });
  });

  it('says what cannot be, and loses nothing of it', () => {
    expect(fromMargin('100', 2)).toMatchObject({ margin: '100', fault: expect.stringContaining('below 100') });
    expect(fromMargin('a lot', 2)).toMatchObject({ fault: expect.stringContaining('not a number') });
    expect(priceAndMargin({ at: 'price', text: '0.000001' }, null, parseMoney('999999999'), 2)).toMatchObject({
      margin: '',
    });
  });
});
