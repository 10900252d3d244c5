import { expect, it } from 'vitest';
import { fitsInBars } from './bars.ts';

it('knows what bars carry', () => {
  for (const text of ['MAIN/A1', 'B-0012', '4006381333931', 'a b']) expect(fitsInBars(text), text).toBe(true);
  for (const text of ['', 'MAIN/Б1', 'Süd/1', 'a\tb', 'x'.repeat(49)]) expect(fitsInBars(text), text).toBe(false);
});
