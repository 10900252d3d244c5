import type { Board, BoardCard } from '@yosegi/contract';
import { formatDecimal, readForText, sumForText } from '@yosegi/core/number';
import { count } from '../ui/format.ts';

/** Where a card can stand: a person's day, or what is later or on no day. */
export interface Spot {
  readonly personId: number | null;
  /** A day of the board; null for later and never. */
  readonly day: string | null;
}
export const keyOf = ({ personId, day }: Spot) => `${personId ?? ''}|${day ?? ''}`;
export const spotIn = (key: string): Spot => {
  const [person = '', day = ''] = key.split('|');
  return { personId: person === '' ? null : Number(person), day: day || null };
};
/** A card stays itself while it moves. */
export const cardKey = (card: BoardCard) => `${card.buildId}|${card.personId ?? ''}|${card.day ?? ''}`;

/** Where a card is shown: what is late stands on the first day, what is after the last one under later. */
export function shownAt({ personId, day }: BoardCard, { days }: Board): Spot {
  const last = days.at(-1) ?? '';
  const shown = day === null || day > last ? null : (days.find((one) => one >= day) ?? null);
  return { personId, day: shown };
}

/** Rows in the order of the board: my own work first, what is nobody's last. */
export const rowsOf = ({ people }: Board, me: number | undefined) => [
  ...people.filter(({ id }) => id === me),
  ...people.filter(({ id }) => id !== me),
  { id: null, name: 'Unassigned' },
];

export const minutesOf = (cards: readonly BoardCard[]): string =>
  formatDecimal(sumForText(cards.map(({ minutes }) => readForText(minutes))));

/** The spot beside another, where there is one. */
export function beside(spot: Spot, key: string, board: Board, me: number | undefined): Spot | null {
  const rows = rowsOf(board, me).map(({ id }) => id);
  const columns = [...board.days, null];
  const [row, column] = [rows.indexOf(spot.personId), columns.indexOf(spot.day)];
  const [down, right] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[key] ?? [0, 0];
  const personId = rows[row + (down ?? 0)];
  const day = columns[column + (right ?? 0)];
  return personId === undefined || day === undefined || (down === 0 && right === 0) ? null : { personId, day };
}

/** What the board comes to for one person today, in a sentence. */
export function todayWords(board: Board, me: number | undefined): string {
  const [first] = board.days;
  const mine = board.cards.filter((card) => card.personId === me && shownAt(card, board).day === first);
  const open = board.cards.filter(({ personId }) => personId === null).length;
  const nobodys = open === 0 ? '' : ` ${count(open, 'task')} ${open === 1 ? 'is' : 'are'} unassigned.`;
  const day = first === board.today ? 'today' : 'on the next working day';
  if (mine.length === 0) return `You have nothing ${day}.${nobodys}`;
  const blocked = mine.filter(({ blocks }) => blocks.length > 0).length;
  const waits = blocked === 0 ? '' : blocked === mine.length ? ', all on hold' : `, ${blocked} on hold`;
  return `You have ${count(mine.length, 'task')} ${day}${waits}: ${Math.round(Number(minutesOf(mine)))} of ${board.benchMinutes} minutes.${nobodys}`;
}
