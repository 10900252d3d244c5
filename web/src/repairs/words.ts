import type { RepairRow } from '@yosegi/contract';
import type { Tone } from '../ui/Chip.tsx';

/** Where a repair stands, as a person says it. */
export function standsAs({ state, waiting, declined }: Pick<RepairRow, 'state' | 'waiting' | 'declined'>): string {
  if (state === 'given-back') return 'given back';
  if (state === 'ready') return declined === null ? 'ready' : 'ready to return unrepaired';
  if (state === 'asked') return 'customer to decide';
  if (waiting.length > 0) return 'short of parts';
  return state === 'on-bench' ? 'on the bench' : state === 'agreed' ? 'agreed, to start' : 'to inspect';
}

export function toneOf({ state, waiting }: Pick<RepairRow, 'state' | 'waiting'>): Tone {
  if (state === 'ready') return 'ok';
  if (state === 'given-back') return 'held';
  if (state === 'asked' || waiting.length > 0) return 'short';
  return 'coming';
}

/** The groups of the list, in the order of what to see to first. */
export const groups: readonly (readonly [title: string, isIn: (row: RepairRow) => boolean])[] = [
  ['Ready to give back', ({ state }) => state === 'ready'],
  ['On the bench', ({ state }) => state === 'on-bench'],
  ['Agreed, to be started', ({ state }) => state === 'agreed'],
  ['To inspect', ({ state }) => state === 'taken-in'],
  ['With the customer', ({ state }) => state === 'asked'],
];

/** How the repairs that are here stand, in a sentence. */
export function hereWords(rows: readonly RepairRow[]): string {
  if (rows.length === 0) return 'No repairs here.';
  const parts = groups.flatMap(([title, isIn]) => {
    const own = rows.filter(isIn).length;
    return own === 0 ? [] : `${own} ${title.charAt(0).toLowerCase()}${title.slice(1)}`;
  });
  const late = rows.filter((row) => row.late).length;
  const all = rows.length === 1 ? '1 repair here' : `${rows.length} repairs here`;
  return `${all}: ${parts.join(', ')}${late > 0 ? `; ${late} late` : ''}.`;
}
