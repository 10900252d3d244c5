import { Refusal } from '../refusal/index.ts';
import type { Percent, Quantity } from './amounts.ts';
import { formatDecimal, SCALE, stepOf } from './decimal.ts';

/** An amount of which there must be some: the same rule for a form, a row of a file and a message. @throws Refusal `not-positive` */
export function positive<T extends number>(amount: T, field?: string): T {
  if (amount <= 0) throw new Refusal('not-positive', {}, field);
  return amount;
}

/** An amount that may be nothing. @throws Refusal `negative` */
export function fromZero<T extends number>(amount: T, field?: string): T {
  if (amount < 0) throw new Refusal('negative', {}, field);
  return amount;
}

/** A percentage from zero to `most` percent. @throws Refusal `out-of-range` */
export function percentTo(percent: Percent, most: number, field?: string): Percent {
  if (percent < 0 || percent > most * SCALE) throw new Refusal('out-of-range', { least: 0, most }, field);
  return percent;
}

/** A quantity that can be counted in a unit with `decimals`; nothing is rounded. @throws Refusal `too-many-decimals` */
export function countedIn(quantity: Quantity, decimals: number, field?: string): Quantity {
  if (quantity % stepOf(decimals) !== 0)
    throw new Refusal('too-many-decimals', { typed: formatDecimal(quantity), decimals }, field);
  return quantity;
}
