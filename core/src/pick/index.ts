import type { Quantity } from '../number/index.ts';
import { Refusal } from '../refusal.ts';

/** A bin that holds some of an item, in walking order. */
export interface BinStock {
  readonly binId: number;
  readonly quantity: Quantity;
}

export interface Taking {
  readonly binId: number;
  readonly quantity: Quantity;
}

/**
 * Refuses a pick that its line cannot take.
 * @throws Refusal `not-positive`, or `more-than-open` with what is `open`
 */
export function checkPick(open: Quantity, quantity: Quantity, field?: string): void {
  if (quantity <= 0) throw new Refusal('not-positive', {}, field);
  if (quantity > open) throw new Refusal('more-than-open', { open }, field);
}

/**
 * Where to take `wanted` from: bins in the order given, each emptied before the next. What no bin can give is taken
 * from `fallback`, so that the posting sees and refuses (or is allowed) the shortage in one place.
 */
export function takeFrom(bins: readonly BinStock[], wanted: Quantity, fallback: number): Taking[] {
  const takings: Taking[] = [];
  let left: number = wanted;
  for (const bin of bins) {
    const quantity = Math.min(left, Math.max(0, bin.quantity)) as Quantity;
    if (quantity > 0) takings.push({ binId: bin.binId, quantity });
    left -= quantity;
  }
  if (left <= 0) return takings;
  const known = takings.find((taking) => taking.binId === fallback);
  if (!known) return [...takings, { binId: fallback, quantity: left as Quantity }];
  return takings.map((taking) =>
    taking === known ? { ...taking, quantity: (taking.quantity + left) as Quantity } : taking,
  );
}
