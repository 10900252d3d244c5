import { dayAfter, LATER } from '../days/index.ts';
import type { WhenThere } from './demand.ts';

/**
 * The day on which goods that are complete on a day are with whoever wanted them: the one answer of screens, papers and
 * messages.
 * @param completeOn '' now, null when nobody knows
 * @param transportDays how long they are on their way; 0 where they are fetched, or nobody said
 */
export function arrivesOn(completeOn: WhenThere, transportDays: number, today: string): WhenThere {
  if (transportDays === 0 || completeOn === null || completeOn >= LATER) return completeOn;
  return dayAfter(completeOn === '' ? today : completeOn, transportDays);
}

/** Whether something arrives after the day it was wanted; what nobody knows a day for does. */
export const isTooLate = (arrives: WhenThere, wantedOn: string | null, today: string): boolean =>
  wantedOn !== null && (arrives === null || (arrives || today) > wantedOn);
