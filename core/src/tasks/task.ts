import { type Money, type Quantity, SCALE } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** How far a task has come. */
export const taskStates = ['open', 'doing', 'done', 'skipped'] as const;
export type TaskState = (typeof taskStates)[number];

/** Whether nothing more of it is to be done. */
export const isOver = (state: TaskState) => state === 'done' || state === 'skipped';

const MINUTE = 60_000;
/** A day has so many minutes, for whoever works through it. */
export const MINUTES_OF_DAY = (24 * 60 * SCALE) as Quantity;

/** Minutes of a clock that ran from one moment to another: whole ones, at least one. */
export const clockedMinutes = (from: Date, to: Date): Quantity =>
  (Math.max(1, Math.round((to.getTime() - from.getTime()) / MINUTE)) * SCALE) as Quantity;

/**
 * Refuses minutes that nobody can have worked on one day.
 * @param before what the person worked on that day already
 * @throws Refusal `not-positive`, `minutes-of-day` with what is `left` of the day
 */
export function checkMinutes(minutes: Quantity, before: Quantity, field: string): void {
  if (minutes <= 0) throw new Refusal('not-positive', {}, field);
  const left = Math.max(0, MINUTES_OF_DAY - before) as Quantity;
  if (minutes > left) throw new Refusal('minutes-of-day', { left }, field);
}

/** What was spent on a task, minutes or money, and what of it is booked. */
export interface Spent<T extends number> {
  readonly total: T;
  readonly booked: T;
  /** Nothing more is spent on it: it is done, or was skipped. */
  readonly isOver: boolean;
  /** All of it goes with what is finished next, for it came up with what is on the bench now. */
  readonly isDue?: boolean;
}

/** What is known of a task: minutes of labour, the price of a charge as agreed or invoiced. */
export interface TaskFacts {
  readonly kind: 'labour' | 'charge';
  readonly state: TaskState;
  readonly taken: Quantity;
  readonly price: Money | null;
  /** Of its minutes or its price, what was finished has booked. */
  readonly booked: number;
  /**
   * Of a task that was added on the bench, the minutes or the money planned for it: it may come after portions that were
   * finished without it, so that no plan for a portion knows of it. Null for what the definition says.
   */
  readonly added: number | null;
}

/** What was spent on a task; undefined where it is as planned: done without a minute written down, at no other price. */
export function spentOn({ kind, state, taken, price, booked, added }: TaskFacts): Spent<number> | undefined {
  if (state === 'skipped') return { total: 0, booked, isOver: true };
  const spent = kind === 'charge' ? price : taken > 0 ? taken : null;
  if (spent !== null) return { total: spent, booked, isOver: kind === 'charge' || isOver(state) };
  return added === null ? undefined : { total: added, booked, isOver: true, isDue: true };
}

/**
 * What a finish books of a task: as planned while nothing is known of it. Of a task that is over, its share of what was
 * spent by what is finished then, and all of it with the last. Of one that goes on, what was written down and is not booked,
 * with the last; until then, and where nothing is left of that, at least what the plan has up to now, less what is booked.
 * @param planned what the plan has for this portion, and for those before it
 * @param share finished before and now, of how many
 */
export function portionOf<T extends number>(
  planned: { readonly now: T; readonly before: T },
  spent: Spent<number> | undefined,
  share: { readonly finished: Quantity; readonly now: Quantity; readonly quantity: Quantity; readonly closes: boolean },
): T {
  if (!spent || (spent.total === 0 && !spent.isOver)) return planned.now;
  const after = BigInt(share.finished) + BigInt(share.now);
  const isAll = share.closes || spent.isDue === true;
  const due = Number(isAll ? BigInt(spent.total) : (BigInt(spent.total) * after) / BigInt(share.quantity));
  const isKnown = spent.isOver || (isAll && due > spent.booked);
  return Math.max(0, (isKnown ? due : Math.max(due, planned.before + planned.now)) - spent.booked) as T;
}
