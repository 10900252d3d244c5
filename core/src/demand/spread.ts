import type { Quantity } from '../number/index.ts';

/** Some of an item at one place, and whether it may be taken. */
export interface Takeable {
  readonly quantity: Quantity;
  /** On a shelf and not held. */
  readonly usable: boolean;
}

/**
 * What of each place is promised, if what open builds need is taken in the order given: the order in which a person picks.
 * What is promised beyond all of it is promised nowhere yet.
 */
export function spreadPromises(places: readonly Takeable[], promised: Quantity): Quantity[] {
  let left: number = promised;
  return places.map(({ quantity, usable }) => {
    const taken = usable ? Math.max(0, Math.min(left, quantity)) : 0;
    left -= taken;
    return taken as Quantity;
  });
}
