import { utcDay } from './moment.ts';

/** Whether a day has passed; a day that nobody knows has not. What was due on it and is still open is late. */
export const isPast = (day: string | null, today: string): boolean => day !== null && day < today;

/** Whether a text is a day of the calendar in the years that anything here is about, as YYYY-MM-DD. */
export function isDay(text: string): boolean {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text) ?? [];
  if (year === undefined || Number(year) < 1900 || Number(year) > 2999) return false;
  const date = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day)));
  return utcDay(date) === text;
}

/**
 * Every day beyond what anybody plans for: later than 2100. It is a day like any other, so that one enormous quantity has a
 * place in a plan.
 */
export const LATER = '2101-01-01';

/** Whole days from one ISO day to another. */
export const daysBetween = (from: string, to: string) =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);

/** The ISO day so many days after another, or {@link LATER}. */
export function dayAfter(day: string, days: number): string {
  const at = Date.parse(`${day}T00:00:00Z`) + days * 86_400_000;
  return at >= Date.parse(LATER) ? LATER : utcDay(new Date(at));
}
