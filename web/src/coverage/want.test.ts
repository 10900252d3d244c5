import fc from 'fast-check';
import { expect, it } from 'vitest';
import { coverOf, wantsOf, wantText } from './want.ts';

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

it('keeps a comma in a typed quantity, since without it another quantity would be asked for', () => {
  const typed = ['1,000', '1,5 kg', '5%', '%2C', ',,'].map((quantity) => ({ itemId: 12, quantity }));
  expect(wantsOf(wantText(typed))).toEqual(typed);
  const search = new URL(coverOf(typed), 'http://yosegi.example').searchParams;
  expect(wantsOf(search.get('want') ?? '')).toEqual(typed);
  const want = fc.record({ itemId: fc.nat(), quantity: fc.stringMatching(/^[0-9,.%xC2 ]*$/) });
  fc.assert(
    fc.property(fc.array(want), (wants) => {
      expect(wantsOf(wantText(wants))).toEqual(wants);
    }),
  );
});
