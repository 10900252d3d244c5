import type { ReturnDetail } from '@yosegi/contract';
import { expect, it } from 'vitest';
import { pieceName, pileWords, stateTone, waitedWords } from './words.ts';

const waits = (waiting: number, days: number) => ({ waiting, days }) as ReturnDetail;

it('says what waits to be decided, and the longest of it', () => {
  expect(pileWords([])).toBe('No returns to deal with.');
  expect(pileWords([waits(1, 0)])).toBe('1 returned item to deal with.');
  expect(pileWords([waits(2, 3), waits(1, 12), waits(0, 1)])).toBe(
    '3 returned items to deal with, the longest for 12 days.',
  );
  expect([waitedWords({ days: 0 }), waitedWords({ days: 1 }), waitedWords({ days: 9 })]).toEqual([
    'since today',
    'for 1 day',
    'for 9 days',
  ]);
});

it('names a thing with its serial, or its lot', () => {
  const named = (lot: string | null, serial: string | null) => pieceName({ name: 'Scale', lot, serial });
  expect([named(null, 'S-1'), named('L1', null), named('L1', 'S-1'), named(null, null)]).toEqual([
    'Scale S-1',
    'Scale, lot L1',
    'Scale S-1',
    'Scale',
  ]);
});

it('shows each state in its own tone', () => {
  expect((['announced', 'waiting', 'settled', 'called-off'] as const).map(stateTone)).toEqual([
    'coming',
    'short',
    'ok',
    'held',
  ]);
});
