import { describe, expect, it } from 'vitest';
import { amountFault, percentFault, percentIn, readSold } from './soldLine.ts';
import type { Line } from './typedOrder.ts';

const line = (more: Partial<Line>): Line => ({
  ...{ key: 1, id: null, item: { id: 1, code: 'JAR', name: 'Jar', unit: 'each', decimals: 0, measures: [] } },
  ...{ quantity: '3', price: '', discount: '', wantedOn: '', contents: null, ...more },
});
const worth = (more: Partial<Line>, off = '') => readSold(line(more), '9.99', off, 2).value / 1e6;

describe('a line that is sold', () => {
  it('comes to its own price, or the one typed, less what is taken off it and off the order', () => {
    expect(worth({})).toBeCloseTo(29.97);
    expect(worth({ price: '5' })).toBe(15);
    // 9.99 less 10 % is 8.99, rounded as money is paid.
    expect(worth({ discount: '10' })).toBeCloseTo(26.97);
    expect(worth({ price: '10', discount: '10' }, '50')).toBeCloseTo(13.5);
    expect(worth({ discount: '100' })).toBe(0);
  });

  it('says what is wrong with a discount or an amount, and reads one typed as a price', () => {
    expect([percentFault(''), percentFault('100'), amountFault(''), amountFault('4.5')]).toEqual(
      Array(4).fill(undefined),
    );
    for (const text of ['101', '-1', 'x']) expect(percentFault(text), text).toBeDefined();
    expect(amountFault('-1')).toBeDefined();
    expect(['-10%', '10 %', '2.5%', '10', '9.99', '%'].map(percentIn)).toEqual(['10', '10', '2.5', null, null, null]);
  });
});
