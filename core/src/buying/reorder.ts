import { dayAfter, daysBetween } from '../days/index.ts';
import { add, type Quantity, ZERO } from '../number/index.ts';

/** What was used of an item on one day: gone into builds or shipped. */
export interface DayOfUse {
  /** ISO day. */
  readonly on: string;
  readonly quantity: Quantity;
}

/** A point at which to order again, with what it rests on. */
export interface ReorderProposal {
  /** The most that was used in any so many days in a row: what has to be there when it is ordered. */
  readonly point: Quantity;
  /** The first day of the days in which that was used. */
  readonly from: string;
  /** All that was used in the time looked at, for the use per week. */
  readonly used: Quantity;
}

/**
 * The point at which to order something again, so that it does not run out while a slow delivery is on its way, even where
 * as much is used as ever was: the most that was used in any `days` days in a row.
 * @param uses by day, in any order; days of the same date are added up
 * @param days how long a slow delivery takes; at least one
 * @returns null where nothing was used
 */
export function proposeReorder(uses: readonly DayOfUse[], days: number): ReorderProposal | null {
  const window = Math.max(1, days);
  const sorted = [...uses].filter(({ quantity }) => quantity > 0).sort((a, b) => a.on.localeCompare(b.on));
  let most: { point: Quantity; from: string } | null = null;
  // The days in which most was used begin with one on which something was.
  for (const [index, { on }] of sorted.entries()) {
    const within = sorted.slice(index).filter((use) => daysBetween(on, use.on) < window);
    const point = add(ZERO, ...within.map(({ quantity }) => quantity));
    if (most === null || point > most.point) most = { point, from: on };
  }
  return most && { ...most, used: add(ZERO, ...sorted.map(({ quantity }) => quantity)) };
}

/** Days of use that are looked at: half a year, so that seasons show and old habits don't. */
export const DAYS_OF_USE = 182;
export const useSince = (today: string): string => dayAfter(today, -DAYS_OF_USE);
