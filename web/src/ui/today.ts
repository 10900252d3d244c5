import { dayOf as dayHere } from '@yosegi/core/days';
import { useSyncExternalStore } from 'react';

/** Where the company counts its days, as an IANA zone; before it is known, as this machine does. */
let zone: string | undefined;
let day = new Intl.DateTimeFormat('en-CA');

/** From now on, days are counted in this zone, wherever the browser is. */
export function countDaysIn(timeZone: string): void {
  if (zone === timeZone) return;
  zone = timeZone;
  day = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
}

/** The zone of the company, to write moments in. */
export const companyZone = (): string | undefined => zone;

/** The company's day of a moment, as an ISO day. */
export function dayOf(moment: Date | string): string {
  const date = typeof moment === 'string' ? new Date(moment) : moment;
  return zone === undefined ? dayHere(date) : day.format(date);
}

/** Today as an ISO day, as the company counts days. */
export const today = (): string => dayOf(new Date());

/** How often it is looked whether another day has begun, in milliseconds. */
const LOOK_MS = 20_000;

/** Today, and tomorrow once it is: what is drawn by it is drawn anew then. */
export const useToday = (): string => useSyncExternalStore(listen, today);

function listen(listener: () => void): () => void {
  const timer = setInterval(listener, LOOK_MS);
  // A machine that slept wakes up on another day.
  document.addEventListener('visibilitychange', listener);
  return () => {
    clearInterval(timer);
    document.removeEventListener('visibilitychange', listener);
  };
}
