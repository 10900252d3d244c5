import { dayAfter, LATER } from '../days/index.ts';
import type { WhenThere } from './demand.ts';

/**
 * The day on which goods that are complete on a day are with whoever wanted them: the one answer of screens, papers and
 * messages.
 * @param wholeOn '' now, null when nobody knows
 * @param transportDays how long they are on their way; 0 where they are fetched, or nobody said
 */
export function arrivesOn(wholeOn: WhenThere, transportDays: number, today: string): WhenThere {
  if (transportDays === 0 || wholeOn === null || wholeOn >= LATER) return wholeOn;
  return dayAfter(wholeOn === '' ? today : wholeOn, transportDays);
}

/** Whether something arrives after the day it was wanted; what nobody knows a day for does. */
export const isTooLate = (arrives: WhenThere, wantedOn: string | null, today: string): boolean =>
  wantedOn !== null && (arrives === null || (arrives || today) > wantedOn);
