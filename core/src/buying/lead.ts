import { dayAfter, dayNumber, dayOfNumber, daysBetween, type WorkCalendar, workedOff } from '../days/index.ts';

/** One delivery of something that was ordered. Days are ISO days. */
export interface Delivery {
  readonly sentOn: string;
  readonly cameOn: string;
  /** The day it was expected; null when nobody had said. */
  readonly expectedOn: string | null;
}

/** What deliveries of the past say of the next. */
export interface LearntLead {
  /** How many deliveries it was learnt from. */
  readonly deliveries: number;
  /** Days from sending to coming in: half came within this. */
  readonly usual: number;
  /** Nine of ten came within this. */
  readonly slow: number;
  /** How many of those with a day came on it or before. */
  readonly onTime: number;
  readonly withDay: number;
}

/** Learns from the newest deliveries; null when there is none. @param most how many of the newest count */
export function learnLead(deliveries: readonly Delivery[], most = 20): LearntLead | null {
  const newest = [...deliveries].sort((a, b) => b.cameOn.localeCompare(a.cameOn)).slice(0, most);
  if (newest.length === 0) return null;
  const days = newest.map(({ sentOn, cameOn }) => Math.max(0, daysBetween(sentOn, cameOn))).sort((a, b) => a - b);
  // Nearest rank: a day count that really happened, never one in between.
  const within = (share: number) => days[Math.max(0, Math.ceil(share * days.length) - 1)] ?? 0;
  const withDay = newest.filter(({ expectedOn }) => expectedOn !== null);
  return {
    deliveries: newest.length,
    usual: within(0.5),
    slow: within(0.9),
    onTime: withDay.filter(({ cameOn, expectedOn }) => cameOn <= (expectedOn ?? '')).length,
    withDay: withDay.length,
  };
}

/** The days that a delivery is reckoned to take, and whether they were stated or learnt. */
export interface ExpectedLead {
  readonly days: number;
  readonly from: 'stated' | 'learnt';
}

/**
 * What to reckon with: what the supplier states, or what was learnt where that is longer or nothing is stated.
 * @param learns whether what was learnt counts beside what is stated
 */
export function leadFor(stated: number | null, learnt: LearntLead | null, learns: boolean): ExpectedLead | null {
  if (learnt !== null && (stated === null || (learns && learnt.usual > stated)))
    return { days: learnt.usual, from: 'learnt' };
  return stated === null ? null : { days: stated, from: 'stated' };
}

/**
 * The day on which something is expected that is ordered today: after so many days, moved on to the next on which the supplier
 * delivers and we work; where there is no such day, on which we work.
 * @param deliveryDays days of the week, Monday is 1
 */
export function expectedOn(days: number, { today, workDays }: WorkCalendar, deliveryDays: ReadonlySet<number>): string {
  const both = new Set([...workDays].filter((day) => deliveryDays.has(day)));
  return dayOfNumber(workedOff(dayNumber(dayAfter(today, days)), 1, both.size > 0 ? both : workDays));
}
