import { divide, type Quantity, SCALE, stepOf, toExact } from '../number/index.ts';

/** What may stand in for a part. */
export interface Alternate {
  readonly itemId: number;
  /** How much of it does for one of the part, in millionths. */
  readonly ratio: Quantity;
  /** Decimals of its unit. */
  readonly decimals: number;
}

/** Some of an alternate that stands in for a part. */
export interface StandIn {
  readonly itemId: number;
  /** How much of the alternate is used, in its unit. */
  readonly quantity: Quantity;
  /** How much of the part that does for, in the part's unit. */
  readonly standsFor: Quantity;
}

/** What is left of an item, never below zero. */
export type FreeLeft = (itemId: number) => Quantity;

/**
 * Covers `missing` of a part by its alternates in their order: whole steps of the part's unit, each taking `ratio` of the
 * alternate, rounded up to its unit. An alternate that cannot give all of what it is asked for is used up by it.
 * @param free what is left of each alternate, never below zero
 */
export function coverByAlternates(
  alternates: readonly Alternate[],
  missing: Quantity,
  partDecimals: number,
  free: FreeLeft,
): { readonly used: readonly (StandIn & { readonly left: Quantity })[]; readonly open: Quantity } {
  let open: number = Math.max(0, missing);
  const used: (StandIn & { left: Quantity })[] = [];
  for (const { itemId, ratio, decimals } of alternates) {
    if (open <= 0) break;
    const there = free(itemId);
    const standsFor = doesFor(there, ratio, decimals, partDecimals, open as Quantity);
    const quantity = takenOf(standsFor, ratio, decimals);
    used.push({ itemId, standsFor, quantity, left: (standsFor < open ? 0 : there - quantity) as Quantity });
    open -= standsFor;
  }
  return { used, open: open as Quantity };
}

/** How much of a part, in its whole steps and up to `most`, so much of an alternate does for. */
export function doesFor(
  there: Quantity,
  ratio: Quantity,
  decimals: number,
  partDecimals: number,
  most: Quantity,
): Quantity {
  // Only whole steps of the alternate can be taken, so that a part of one helps nobody.
  const whole = Math.floor(there / stepOf(decimals)) * stepOf(decimals);
  const step = BigInt(stepOf(partDecimals));
  const steps = (BigInt(whole) * BigInt(SCALE)) / (BigInt(ratio) * step);
  const wanted = BigInt(most) / step;
  return toExact((steps < wanted ? steps : wanted) * step) as Quantity;
}

/** How much of an alternate does for so much of a part, rounded up to its unit. */
export function takenOf(standsFor: Quantity, ratio: Quantity, decimals: number): Quantity {
  const step = BigInt(stepOf(decimals));
  return toExact(divide(BigInt(standsFor) * BigInt(ratio), BigInt(SCALE) * step, 'up') * step) as Quantity;
}
