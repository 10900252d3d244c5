import { describe, expect, it } from 'vitest';
import { type Money, type Percent, parseDecimal, type Quantity } from '../number/index.ts';
import { builtCosts, type CostKnown, type Line } from './index.ts';

const q = (text: string) => parseDecimal(text) as Quantity;
const money = (text: string) => parseDecimal(text) as Money;
const part = (itemId: number, quantity: string): Line => ({
  kind: 'part',
  itemId,
  basis: 'per-output',
  quantity: q(quantity),
  waste: 0 as Percent,
  taken: 'picked-first',
  decimals: 0,
});
const made = (...lines: Line[]): CostKnown => ({ own: null, revision: { outputQuantity: q('1'), lines } });
const costs = (own: string | null): CostKnown => ({ own: own === null ? null : money(own), revision: null });

describe('a made part without stock', () => {
  const labour: Line = { kind: 'labour', basis: 'per-output', minutes: q('10'), ratePerHour: money('24') };

  it('costs what its own bill of materials does, level by level', () => {
    const known = new Map<number, CostKnown>([
      [1, made(part(2, '2'), part(3, '1'))],
      [2, made(part(4, '4'), labour)],
      [3, costs('0.05')],
      [4, costs('4.5')],
    ]);
    const built = builtCosts((id) => known.get(id));
    expect(built(2)).toEqual({ cost: money('22'), isWhole: true });
    expect(built(1)).toEqual({ cost: money('44.05'), isWhole: true });
    expect([built(3), built(9)]).toEqual([null, null]);
  });

  it('costs at least what is known of it, where something is not', () => {
    const known = new Map<number, CostKnown>([
      [1, made(part(2, '2'), part(3, '1'))],
      [2, made(part(4, '1'), labour)],
      [3, costs('0')],
      [4, costs(null)],
      [5, { ...made(part(4, '1')), own: money('7') }],
      [6, made(part(5, '2'))],
    ]);
    const built = builtCosts((id) => known.get(id));
    expect(built(2)).toEqual({ cost: money('4'), isWhole: false });
    expect(built(1)).toEqual({ cost: money('8'), isWhole: false });
    // What was known of it when it was last made says more than a part of its bill.
    expect(built(6)).toEqual({ cost: money('14'), isWhole: true });
  });

  it('has none that is too large to be one, and costs nothing for a part nobody knows', () => {
    const known = new Map<number, CostKnown>([
      [1, made(part(4, '900000000'))],
      [2, made(part(99, '3'), labour)],
      [4, costs('900000000')],
    ]);
    const built = builtCosts((id) => known.get(id));
    expect(built(1)).toBe(null);
    expect(built(2)).toEqual({ cost: money('4'), isWhole: false });
  });

  it('that reaches itself has no cost of its own', () => {
    const known = new Map<number, CostKnown>([
      [1, made(part(2, '1'))],
      [2, made(part(1, '1'))],
    ]);
    expect(builtCosts((id) => known.get(id))(1)).toEqual({ cost: 0, isWhole: false });
  });
});
