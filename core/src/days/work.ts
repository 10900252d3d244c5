import { LATER } from './calendar.ts';
import { utcDay } from './moment.ts';

/** Which days of the week a company works on, and the day it is. */
export interface WorkCalendar {
  /** ISO day. */
  readonly today: string;
  /** Monday is 1, Sunday 7; at least one. */
  readonly workDays: ReadonlySet<number>;
}

const DAY = 86_400_000;
/** {@link LATER} as {@link dayNumber} counts. */
const LATER_NUMBER = Date.parse(LATER) / DAY;
/** More working days than there are until then. */
const MOST_DAYS = 100_000;

/** Days since 1970 of an ISO day; quicker to reckon with than its text. */
export const dayNumber = (iso: string): number => Date.parse(`${iso}T00:00:00Z`) / DAY;
/** The ISO day of a number that {@link dayNumber} gives; {@link LATER} where it is beyond. */
export const dayOfNumber = (day: number): string => (day >= LATER_NUMBER ? LATER : utcDay(new Date(day * DAY)));

/** Monday is 1; the first of January 1970 was a Thursday. */
const weekdayOf = (day: number) => ((day + 3) % 7) + 1;

/**
 * The day on which work is done that can begin on a day and takes so many working days, the first of them included: work
 * that takes one is done on the day it begins, or on the next working day.
 * @param from days since 1970
 * @param days at least one
 */
export function workedOff(from: number, days: number, workDays: ReadonlySet<number>): number {
  const perWeek = workDays.size;
  let day = from;
  while (!workDays.has(weekdayOf(day))) day += 1;
  const rest = days - 1;
  day += Math.floor(rest / perWeek) * 7;
  for (let left = rest % perWeek; left > 0; left -= 1) {
    do day += 1;
    while (!workDays.has(weekdayOf(day)));
  }
  return Math.min(day, LATER_NUMBER);
}

/**
 * Working days that so much labour takes.
 * @param minutes in millionths
 * @param perDay bench minutes of a working day
 * @param least as the definition says; null for one
 * @returns never more than there are days to plan for
 */
export const benchDays = (minutes: number, perDay: number, least: number | null): number =>
  Math.min(MOST_DAYS, Math.max(1, least ?? 1, Math.ceil(minutes / 1_000_000 / perDay)));

/**
 * The last day on which work that takes so many working days can begin to be done by a day: the other way round of
 * {@link workedOff}.
 * @param by days since 1970
 * @param days at least one
 */
export function begunBy(by: number, days: number, workDays: ReadonlySet<number>): number {
  const perWeek = workDays.size;
  let day = by;
  while (!workDays.has(weekdayOf(day))) day -= 1;
  const rest = days - 1;
  day -= Math.floor(rest / perWeek) * 7;
  for (let left = rest % perWeek; left > 0; left -= 1) {
    do day -= 1;
    while (!workDays.has(weekdayOf(day)));
  }
  return day;
}
