import { describe, expect, it } from 'vitest';
import { readPricedLine } from './pricedLine.ts';

const screw = { unit: 'each', decimals: 0, measures: [{ name: 'box', one: '200' }] };
const read = (quantity: string, cost: string, mayBeEmpty = false) =>
  readPricedLine(screw, { quantity, cost }, { mayBeEmpty });

describe('a line of something bought', () => {
  it('takes packs, and is worth quantity × cost exactly', () => {
    expect(read('2 box', '0.333333')).toEqual({ quantity: 400e6, value: 133_333_200 });
    expect(read('3', '')).toEqual({ quantity: 3e6, value: 0 });
  });

  it('says at which of its fields something is wrong', () => {
    expect(read('0', '1')).toMatchObject({ quantityError: 'Enter an amount above zero.' });
    expect(read('', '1', true)).toEqual({ quantity: 0, value: 0 });
    expect(read('-1', '1', true)).toMatchObject({ quantityError: 'This can’t be below zero.' });
    expect(read('1.5', 'x')).toMatchObject({
      quantityError: expect.stringContaining('this unit has none'),
      costError: expect.stringContaining('not a number'),
    });
    expect(read('1', '-1')).toMatchObject({ costError: 'This can’t be below zero.' });
    expect(read('999999999', '999999999')).toMatchObject({ costError: expect.stringContaining('too large') });
  });
});

it('what is received says what one costs, and nothing typed is not nothing', () => {
  const item = { unit: 'each', decimals: 0, measures: [] };
  const read = (quantity: string, cost: string) =>
    readPricedLine(item, { quantity, cost }, { mayBeEmpty: true, asksCost: true });
  expect(read('2', '')).toMatchObject({ costError: expect.stringContaining('Enter the unit price') });
  expect(read('2', '0').costError).toBeUndefined();
  expect(read('', '').costError).toBeUndefined();
});
