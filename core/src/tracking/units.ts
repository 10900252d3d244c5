import { utcDay } from '../days/index.ts';
/** Where one unit is in its life with us. */
export const unitStates = [
  /** Here to be repaired, and not ours. */
  'customer’s',
  'in stock',
  'in work',
  'in a parcel',
  'sold',
  /** A customer sent it back, and nobody has decided about it yet. */
  'returned',
  /** Used up in something else that was built. */
  'built in',
  'scrapped',
  /** Never ours: it was repaired and went back. */
  'given back',
] as const;
/** Beside those, what stands only in postings that were undone: nobody lists it, but what was done to it can be read. */
export const everyUnitState = [...unitStates, 'never ours'] as const;
export type UnitState = (typeof everyUnitState)[number];

/**
 * The last day of a warranty of so many months that begins on `day`: the same day of a later month, or that month's last
 * where it has none. @param day ISO
 */
export function monthsAfter(day: string, months: number): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  const last = new Date(Date.UTC(year, month - 1 + months + 1, 0));
  last.setUTCDate(Math.min(date, last.getUTCDate()));
  return utcDay(last);
}

/** The months of a warranty as somebody wrote them into a field of an item: "24", "24 months"; null for anything else. */
export function readMonths(text: string): number | null {
  const [, months] = /^\s*(\d{1,3})(\s*(months?|mon\.?))?\s*$/i.exec(text) ?? [];
  return months === undefined ? null : Number(months);
}
