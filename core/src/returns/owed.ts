import { groupBy } from '../lists/index.ts';
import {
  add,
  HUNDRED_PERCENT,
  least,
  lineAmount,
  type Money,
  minus,
  ONE,
  type Percent,
  type Quantity,
  sumForText,
  toCurrency,
  toExact,
  ZERO,
} from '../number/index.ts';

/** Of one thing that came back for a line, how much of it went back to the customer again. */
export interface SentBack {
  /** Of the kit, where it is a part of one: what is of several lots is one part. */
  readonly partId: number;
  readonly quantity: Quantity;
  readonly sentBack: Quantity;
}

/** So many of a line that came back, as one thing or as the parts of a kit. */
export interface LineBack {
  readonly quantity: Quantity;
  readonly isKit: boolean;
}

/** How many of a line we keep: what went back to the customer is not kept. Of kits only whole ones went back. */
export function keptOf({ quantity, isKit }: LineBack, pieces: readonly SentBack[]): Quantity {
  if (isKit) return minus(quantity, kitsAway(quantity, pieces));
  return minus(quantity, add(ZERO, ...pieces.map(({ sentBack }) => sentBack)));
}

/** Whether what went back of a kit's parts is that of whole kits, so that nothing of one is parted from the rest. */
export function isOfWholeKits(quantity: Quantity, pieces: readonly SentBack[]): boolean {
  const kits = BigInt(kitsAway(quantity, pieces));
  return partsOf(pieces).every(({ all, away }) => away * BigInt(quantity) === kits * all);
}

/** Whole kits of which all parts went back. */
function kitsAway(quantity: Quantity, pieces: readonly SentBack[]): Quantity {
  const parts = partsOf(pieces);
  if (parts.length === 0) return ZERO;
  const whole = BigInt(ONE);
  const counts = parts.map(({ all, away }) => (away * BigInt(quantity)) / (all * whole));
  return toExact(counts.reduce((fewest, count) => least(fewest, count)) * whole) as Quantity;
}

const partsOf = (pieces: readonly SentBack[]) =>
  [...groupBy(pieces, ({ partId }) => partId).values()].map((own) => ({
    all: sumForText(own.map((piece) => piece.quantity)),
    away: sumForText(own.map((piece) => piece.sentBack)),
  }));

/**
 * What is owed to the customer: a percentage of what was paid for what we keep, rounded to the currency once.
 * @param price paid for one
 * @param decimals of the currency
 * @returns millionths of the currency, however large
 */
export function creditOwed(kept: Quantity, price: Money, credit: Percent, decimals: number): bigint {
  const paid = lineAmount(kept, price, decimals);
  return toCurrency((paid * BigInt(credit)) / BigInt(HUNDRED_PERCENT), decimals);
}
