import { openToPick, type Progress, plannedUse } from '../builds/index.ts';
import type { Need } from '../definitions/index.ts';
import { minus, type Quantity, ZERO } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import type { OrderState } from './kinds.ts';

/** How far a line of an order has come, in the unit of what is sold. */
export interface LineProgress {
  readonly quantity: Quantity;
  readonly shipped: Quantity;
  /** Given up with a reason: it will not be shipped. */
  readonly dropped: Quantity;
}

/** What is still to be shipped of a line. */
export const openOf = ({ quantity, shipped, dropped }: LineProgress): Quantity =>
  minus(minus(quantity, dropped), shipped);

/** The same as the parts see it: a line is like a build that is finished by being shipped. */
const progressOf = (line: LineProgress, outputQuantity: Quantity): Progress => ({
  quantity: minus(line.quantity, line.dropped),
  finished: line.shipped,
  outputQuantity,
});

/**
 * What one thing that leaves for a line still takes from shelves: what it needs for the rest, less what stands in a parcel
 * for it. A quote promises nothing, and neither does an order that is over.
 */
export function openPart(
  state: OrderState,
  need: Need,
  line: LineProgress,
  outputQuantity: Quantity,
  packed: Quantity,
): Quantity {
  return state === 'confirmed' ? openToPick(need, progressOf(line, outputQuantity), packed) : ZERO;
}

/** What shipping `now` more of a line takes of one thing: the whole never depends on how it is parted. */
export const shippedPart = (need: Need, line: LineProgress, outputQuantity: Quantity, now: Quantity): Quantity =>
  plannedUse(need, progressOf(line, outputQuantity), now);

/**
 * Refuses to ship what a line has not left.
 * @throws Refusal `not-positive`, or `more-than-ordered` with what is `left`
 */
export function checkShipping(line: LineProgress, now: Quantity, field?: string): void {
  const left = openOf(line);
  if (now <= 0) throw new Refusal('not-positive', {}, field);
  if (now > left) throw new Refusal('more-than-ordered', { left }, field);
}

export const orderStandings = ['quote', 'open', 'partly-shipped', 'shipped', 'cancelled'] as const;
export type OrderStanding = (typeof orderStandings)[number];

/** How far an order has come by what it was said to be and by its lines. */
export function standingOf(state: OrderState, lines: readonly LineProgress[]): OrderStanding {
  if (state !== 'confirmed') return state;
  const some = lines.some(({ shipped }) => shipped > 0);
  if (lines.some((line) => openOf(line) > 0)) return some ? 'partly-shipped' : 'open';
  return some ? 'shipped' : 'cancelled';
}

/** One thing that leaves for a line, and how much of it is at hand. */
export interface AtHand {
  readonly need: Need;
  readonly ready: Quantity;
}

/**
 * How many of a line could be shipped now: the most of what is open for which every thing is at hand.
 * @param step the smallest quantity that the unit of what is sold has
 */
export function canShip(
  line: LineProgress,
  outputQuantity: Quantity,
  parts: readonly AtHand[],
  step: number,
): Quantity {
  const fits = (now: number) =>
    parts.every(({ need, ready }) => shippedPart(need, line, outputQuantity, now as Quantity) <= ready);
  let [low, high] = [0, Math.trunc(openOf(line) / step)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (fits(middle * step)) low = middle;
    else high = middle - 1;
  }
  return (low * step) as Quantity;
}
