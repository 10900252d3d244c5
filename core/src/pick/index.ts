import type { Quantity } from '../number/index.ts';
import { Refusal } from '../refusal.ts';
import { type Place, placeKey, type Standing } from '../stock/index.ts';

/**
 * Refuses a pick that its line cannot take.
 * @throws Refusal `not-positive`, or `more-than-open` with what is `open`
 */
export function checkPick(open: Quantity, quantity: Quantity, field?: string): void {
  if (quantity <= 0) throw new Refusal('not-positive', {}, field);
  if (quantity > open) throw new Refusal('more-than-open', { open }, field);
}

/**
 * Where to take `wanted` from: places in the order given, each emptied before the next. What no place can give is taken
 * from `fallback`, so that the posting sees and refuses (or is allowed) the shortage in one place.
 */
export function takeFrom(standing: readonly Standing[], wanted: Quantity, fallback: Place): Standing[] {
  const takings: Standing[] = [];
  let left: number = wanted;
  for (const { place, quantity } of standing) {
    const taken = Math.min(left, Math.max(0, quantity)) as Quantity;
    if (taken > 0) takings.push({ place, quantity: taken });
    left -= taken;
  }
  if (left <= 0) return takings;
  const key = placeKey(fallback);
  const known = takings.find(({ place }) => placeKey(place) === key);
  if (!known) return [...takings, { place: fallback, quantity: left as Quantity }];
  return takings.map((taking) =>
    taking === known ? { ...taking, quantity: (taking.quantity + left) as Quantity } : taking,
  );
}
