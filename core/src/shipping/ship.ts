import type { Heap, Posting } from '../ledger/index.ts';
import { add, type Money } from '../number/index.ts';

/** One thing that leaves for a line of an order. */
export interface Leaving {
  readonly lineId: number;
  /** The part of the line, which the ledger names. */
  readonly partId: number;
  /** Where it is taken from, by lot and serial. */
  readonly takings: readonly Heap[];
}

export interface Shipped {
  /** What left by line, at exactly what it was worth. */
  readonly costs: ReadonlyMap<number, Money>;
  readonly total: Money;
}

/** Posts a shipment: goods leave at exactly what they are worth, and that is what they cost. */
export function postShipment(posting: Posting, leaving: readonly Leaving[]): Shipped {
  const costs = new Map<number, Money>();
  for (const { lineId, partId, takings } of leaving)
    for (const { spot, quantity } of takings) {
      const cost = posting.takeOut(spot, quantity, partId);
      costs.set(lineId, add(costs.get(lineId) ?? (0 as Money), cost));
    }
  const total = add(0 as Money, ...costs.values());
  posting.addValue('shipped', -total as Money);
  return { costs, total };
}
