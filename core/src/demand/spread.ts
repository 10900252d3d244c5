import { handOut, type Quantity } from '../number/index.ts';

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
  return handOut(
    promised,
    places.map(({ quantity, usable }) => (usable ? quantity : (0 as Quantity))),
  );
}
