import type { Quantity } from '../number/index.ts';
import { type Heap, type Spot, spotKey } from './state.ts';

/**
 * Where to take `wanted` from: places in the order given, each emptied before the next. What no place can give is taken
 * from `fallback`, so that the posting sees and refuses (or is allowed) the shortage in one place.
 */
export function takeFrom(standing: readonly Heap[], wanted: Quantity, fallback: Spot): Heap[] {
  const takings: Heap[] = [];
  let left: number = wanted;
  for (const { spot, quantity } of standing) {
    const taken = Math.min(left, Math.max(0, quantity)) as Quantity;
    if (taken > 0) takings.push({ spot, quantity: taken });
    left -= taken;
  }
  if (left <= 0) return takings;
  const key = spotKey(fallback);
  const known = takings.find(({ spot }) => spotKey(spot) === key);
  if (!known) return [...takings, { spot: fallback, quantity: left as Quantity }];
  return takings.map((taking) =>
    taking === known ? { ...taking, quantity: (taking.quantity + left) as Quantity } : taking,
  );
}
