import { type Money, minus, type Quantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** What left of one thing with a shipment, and how much of it has come back before. */
export interface Left {
  readonly quantity: Quantity;
  /** What it was worth, all together. */
  readonly value: Money;
  readonly returned: Quantity;
  /** What that was worth as it came back. */
  readonly returnedValue: Money;
}

/**
 * What comes back of it is worth exactly its part of what left: however it is returned in portions, and whichever of them are
 * undone and come again, all of them together are worth what left, to the last millionth.
 * @throws Refusal `not-positive`, `more-than-shipped` with what may still come back as `left`
 */
export function worthReturned(
  { quantity, value, returned, returnedValue }: Left,
  now: Quantity,
  field?: string,
): Money {
  if (now <= 0) throw new Refusal('not-positive', {}, field);
  const left = minus(quantity, returned);
  if (now > left) throw new Refusal('more-than-shipped', { left }, field);
  const upTo = Number((BigInt(value) * BigInt(returned + now)) / BigInt(quantity));
  return Math.max(0, upTo - returnedValue) as Money;
}
