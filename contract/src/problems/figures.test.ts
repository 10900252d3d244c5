import { parseQuantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { afterEach, expect, it } from 'vitest';
import { writeFiguresAs } from './figures.ts';
import { wordedOf, wordsOf } from './index.ts';

afterEach(() => writeFiguresAs('en'));

const open = new Refusal('more-than-open', { open: parseQuantity('1234.5', 1) });

it('refusals write figures as they are typed in the company, for one answer or from then on', () => {
  expect(wordsOf(open)).toBe('Only 1234.5 is still open on this line.');
  expect(wordedOf(open, 'de-DE').detail).toBe('Only 1234,5 is still open on this line.');
  expect(wordsOf(open)).toBe('Only 1234.5 is still open on this line.');
  writeFiguresAs('de-DE');
  expect(wordsOf(open)).toBe('Only 1234,5 is still open on this line.');
  expect(wordsOf(new Refusal('not-a-number', { typed: 'x' }))).toBe(
    '“x” is not a number. Enter digits, like 12 or 0,5.',
  );
});

it('refusals write days so, too', () => {
  const frozen = new Refusal('revision-waits', { day: '2026-12-09' });
  expect(wordedOf(frozen, 'en-GB').detail).toContain('comes into use on 9 Dec 2026 and');
  expect(wordedOf(frozen, 'de-DE').detail).toContain('comes into use on 09.12.2026');
});
