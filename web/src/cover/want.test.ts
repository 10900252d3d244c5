import { expect, it } from 'vitest';
import { wantsOf, wantText } from './want.ts';

it('the question in the address comes back as it went, whatever was typed', () => {
  const wants = [
    { itemId: 12, quantity: '24' },
    { itemId: 7, quantity: '' },
    { itemId: 3, quantity: 'x1.5' },
  ];
  expect(wantsOf(wantText(wants))).toEqual(wants);
  expect(wantsOf('')).toEqual([]);
  expect(wantsOf('nonsense,5x2,x3')).toEqual([{ itemId: 5, quantity: '2' }]);
});
