import {
  add,
  HUNDRED_PERCENT,
  type Money,
  minus,
  type Percent,
  type Quantity,
  worthForText,
  ZERO,
} from '../number/index.ts';

/** Of one thing that came back for a line, how much of it went back to the customer again. */
export interface SentBack {
  readonly quantity: Quantity;
  readonly sentBack: Quantity;
}

/** How many of a line we keep: what went back to the customer is not kept, and a kit goes back only as a whole. */
export function keptOf(
  { quantity, isKit }: { readonly quantity: Quantity; readonly isKit: boolean },
  pieces: readonly SentBack[],
): Quantity {
  if (!isKit) return minus(quantity, add(ZERO, ...pieces.map(({ sentBack }) => sentBack)));
  const isAway = pieces.length > 0 && pieces.every((piece) => piece.sentBack === piece.quantity);
  return isAway ? ZERO : quantity;
}

/**
 * What is owed to the customer: a percentage of what was paid for what we keep, to the nearest millionth.
 * @param price paid for one
 * @returns millionths of the currency, however large
 */
export function creditOwed(kept: Quantity, price: Money, credit: Percent): bigint {
  const whole = BigInt(HUNDRED_PERCENT);
  return (worthForText(kept, price) * BigInt(credit) + whole / 2n) / whole;
}
