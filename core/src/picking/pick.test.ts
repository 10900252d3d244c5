import { describe, expect, it } from 'vitest';
import { spotOf, takeFrom } from '../ledger/index.ts';
import { parseDecimal, type Quantity } from '../number/index.ts';
import { checkPick } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const at = (binId: number, quantity: string) => ({ spot: spotOf(1, binId), quantity: q(quantity) });

describe('a pick', () => {
  it('is of something, and of no more than is open', () => {
    const code = (code: string) => expect.objectContaining({ code, field: 'quantity' });
    expect(() => checkPick(q('5'), 0 as Quantity, 'quantity')).toThrow(code('not-positive'));
    expect(() => checkPick(q('5'), -q('1') as Quantity, 'quantity')).toThrow(code('not-positive'));
    expect(() => checkPick(q('5'), q('6'), 'quantity')).toThrow(code('more-than-open'));
    expect(() => checkPick(q('5'), q('5'), 'quantity')).not.toThrow();
  });

  it('empties each place before the next, passes over what has nothing, and leaves the rest to one place', () => {
    const there = [at(1, '2'), at(2, '0'), at(3, '-4'), at(4, '3')];
    const bins = (wanted: string, fallback = 4) =>
      takeFrom(there, q(wanted), spotOf(1, fallback)).map(({ spot, quantity }) => [spot.binId, quantity]);
    expect(bins('2')).toEqual([[1, q('2')]]);
    expect(bins('3')).toEqual([
      [1, q('2')],
      [4, q('1')],
    ]);
    expect(bins('5')).toEqual([
      [1, q('2')],
      [4, q('3')],
    ]);
    expect(bins('9')).toEqual([
      [1, q('2')],
      [4, q('7')],
    ]);
    expect(bins('9', 2)).toEqual([
      [1, q('2')],
      [4, q('3')],
      [2, q('4')],
    ]);
    expect(bins('0')).toEqual([]);
  });
});
