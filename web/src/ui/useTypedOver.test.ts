import { expect, it } from 'vitest';
import { follow } from './useTypedOver.ts';

const bin = (code: string, walk: string) => ({ code, walk });
const begun = { typed: bin('A1', '1'), base: bin('A1', '1'), version: 3 };

it('what nobody has typed over follows what others save', () => {
  expect(follow(begun, bin('A1', '7'), 4)).toEqual({ typed: bin('A1', '7'), base: bin('A1', '7'), version: 4 });
});

it('what was typed stays, with the version it was typed over', () => {
  const typed = { ...begun, typed: bin('A9', '1') };
  expect(follow(typed, bin('A1', '7'), 4)).toBe(typed);
});

it('what was saved as it was typed is nobody else’s change', () => {
  const typed = { ...begun, typed: bin('A9', '1') };
  expect(follow(typed, bin('A9', '1'), 4)).toEqual({ typed: bin('A9', '1'), base: bin('A9', '1'), version: 4 });
});

it('what was saved is shown as the server wrote it, once that is there', () => {
  const saved = { typed: bin('A9', '01'), base: bin('A9', '01'), version: 4 };
  expect(follow(saved, bin('A1', '1'), 3)).toBe(saved);
  expect(follow(saved, bin('A9', '1'), 4)).toEqual({ typed: bin('A9', '1'), base: bin('A9', '1'), version: 4 });
});

it('an older answer that comes late changes nothing', () => {
  expect(follow(begun, bin('A0', '0'), 2)).toBe(begun);
});
