import type { ReturnDetail, ReturnPiece, ReturnRow } from '@yosegi/contract';
import type { Outcome, SettledBy } from '@yosegi/core/returns';
import { count } from '../ui/format.ts';

/** What becomes of something, as a choice and as a fact. */
export const settledWords: Record<SettledBy, string> = {
  shelf: 'back to the shelf',
  scrap: 'scrap it',
  'sent-back': 'send it back',
  damaged: 'damaged',
  missing: 'missing',
  'not-ours': 'wrong item in the box',
};
export const outcomeWords: Record<Outcome, string> = {
  shelf: 'back to the shelf',
  apart: 'taken apart',
  rework: 'being refreshed',
  scrap: 'scrapped',
  'sent-back': 'sent back',
  damaged: 'damaged',
  missing: 'missing',
  'not-ours': 'wrong item in the box',
};

export const stateWords: Record<ReturnRow['state'], string> = {
  announced: 'announced',
  waiting: 'to decide',
  settled: 'processed',
  'called-off': 'cancelled',
};
export const stateTone = (state: ReturnRow['state']) =>
  (({ announced: 'coming', waiting: 'short', settled: 'ok', 'called-off': 'held' }) as const)[state];

/** How long it has waited, in words. */
export const waitedWords = ({ days }: Pick<ReturnRow, 'days'>) =>
  days === 0 ? 'since today' : `for ${count(days, 'day')}`;

/** One thing with its lot or serial. */
export const pieceName = ({ name, lot, serial }: Pick<ReturnPiece, 'name' | 'lot' | 'serial'>) =>
  serial ? `${name} ${serial}` : lot ? `${name}, lot ${lot}` : name;

/** The conclusion of what waits. */
export function pileWords(returns: readonly ReturnDetail[]): string {
  if (returns.length === 0) return 'No returns to deal with.';
  const things = returns.reduce((sum, one) => sum + one.waiting, 0);
  const oldest = Math.max(...returns.map(({ days }) => days));
  const since = oldest === 0 ? '' : `, the longest for ${count(oldest, 'day')}`;
  return `${count(things, 'returned item')} to deal with${since}.`;
}
