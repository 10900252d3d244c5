import { describe, expect, it } from 'vitest';
import { amountFault, percentFault, percentIn, sumTyped } from './soldLine.ts';
import type { Line } from './typedOrder.ts';

const line = (more: Partial<Line>): Line => ({
  ...{ key: 1, id: null, item: { id: 1, code: 'JAR', name: 'Jar', unit: 'each', decimals: 0, measures: [] } },
  ...{ quantity: '3', price: '', discount: '', wantedOn: '', contents: null, ...more },
});
const head = { orderDiscount: '', freight: '' };
const sum = (more: Partial<Line>, over: Partial<typeof head> = {}) => {
  const { amounts, total } = sumTyped({ ...head, ...over, lines: [line(more)] }, ['9.99'], 2);
  return [amounts[0], total].map((amount) => Number(amount) / 1e6);
};

describe('a line that is sold', () => {
  it('comes to its own price, or the one typed, less what is taken off it and off the order', () => {
    expect(sum({})).toEqual([29.97, 29.97]);
    expect(sum({ price: '5' })).toEqual([15, 15]);
    // 3 × 9.99 less 10 % is 26.973, as money is paid.
    expect(sum({ discount: '10' })).toEqual([26.97, 26.97]);
    expect(sum({ price: '10', discount: '10' }, { orderDiscount: '50', freight: '4.5' })).toEqual([27, 18]);
    expect(sum({ discount: '100' })).toEqual([0, 0]);
  });

  it('counts for nothing while it cannot be read', () => {
    for (const more of [{ discount: 'x' }, { price: 'x' }, { quantity: 'x' }]) expect(sum(more)).toEqual([0, 0]);
    expect(sum({}, { orderDiscount: 'x', freight: '-' })).toEqual([29.97, 29.97]);
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
