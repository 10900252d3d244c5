import type { Kit } from '@yosegi/contract';
import { expect, it } from 'vitest';
import { amountFault, changesIn, wishesOf, withAmount, withItem } from './kit.ts';

const item = (id: number, decimals = 0) => ({ id, unit: decimals ? 'kg' : 'each', decimals, measures: [] }) as never;
const part = (position: number, id: number, amount: string, base = id, baseAmount = amount) => ({
  position,
  item: item(id),
  base: item(base),
  amount,
  baseAmount,
  missing: '0',
  completeOn: '',
  alternates: [],
});
const kit = {
  onOrder: 'swaps',
  swapFor: 'anything',
  outputQuantity: '1',
  parts: [part(0, 10, '2'), part(3, 11, '1')],
} as Kit;

it('only what differs from the bill of materials is a change, and putting it back takes it out', () => {
  const more = withAmount(kit, null, 0, '5');
  expect(wishesOf(more)).toEqual([{ position: 0, itemId: 10, amount: '5' }]);
  expect(withAmount(kit, more, 0, '2')).toEqual([]);
  const swapped = withItem(kit, more, 3, item(21, 2), '0.333');
  expect(wishesOf(swapped)).toEqual([
    { position: 0, itemId: 10, amount: '5' },
    { position: 3, itemId: 21, amount: '0.34' },
  ]);
  expect(wishesOf(withItem(kit, swapped, 3, item(11), null))).toEqual([{ position: 0, itemId: 10, amount: '5' }]);
  expect(wishesOf(null)).toBeNull();
});

it('a change made before stays while another is typed', () => {
  const before = { ...kit, parts: [part(0, 20, '4', 10, '2'), part(3, 11, '1')] } as Kit;
  expect(changesIn(before)).toBe(1);
  expect(wishesOf(withAmount(before, null, 3, '0'))).toEqual([
    { position: 0, itemId: 20, amount: '4' },
    { position: 3, itemId: 11, amount: '0' },
  ]);
});

it('what cannot be read is said, and left out of what is only asked', () => {
  const typed = withAmount(kit, null, 0, 'many');
  expect(amountFault('many', item(10))).toBeDefined();
  expect(amountFault('0', item(10))).toBeUndefined();
  expect(wishesOf(typed, true)).toEqual([]);
});
