import { minus, type Quantity } from '../number/index.ts';
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

/** What one line of a deed takes, and where it may take it from. */
export interface Taker {
  readonly wanted: Quantity;
  /** In the order to take from. */
  readonly spots: readonly Spot[];
  /** Where what is missing is noted. */
  readonly fallback: Spot;
}

/**
 * Shares places out over all lines of a deed, so that no two of them count on the same goods. Who has the fewest places to
 * choose from, like a line of which the lot was named, is served first, so that another does not empty them while it could
 * have taken from elsewhere; where places of lines contain each other or have none in common, all are served if all can be.
 * @param at what is at a place before the deed
 * @returns what each takes, in the order given
 */
export function shareOut(at: (spot: Spot) => Quantity, takers: readonly Taker[]): Heap[][] {
  const left = new Map<string, Quantity>();
  const leftAt = (spot: Spot) => left.get(spotKey(spot)) ?? at(spot);
  const shares: Heap[][] = takers.map(() => []);
  const inTurn = [...takers.entries()].sort(([, a], [, b]) => a.spots.length - b.spots.length);
  for (const [index, { wanted, spots, fallback }] of inTurn) {
    if (wanted <= 0) continue;
    const takings = takeFrom(
      spots.map((spot) => ({ spot, quantity: leftAt(spot) })),
      wanted,
      fallback,
    );
    for (const { spot, quantity } of takings) left.set(spotKey(spot), minus(leftAt(spot), quantity));
    shares[index] = takings;
  }
  return shares;
}
