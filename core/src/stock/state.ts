import type { Money, Quantity } from '../number/index.ts';

/** Where a quantity stands: an item in a bin, by lot and serial, and on a bench for which build. */
export interface Place {
  readonly itemId: number;
  readonly binId: number;
  readonly lotId: number | null;
  readonly serialId: number | null;
  readonly buildId: number | null;
}

/** Some of an item at a place. */
export interface Standing {
  readonly place: Place;
  readonly quantity: Quantity;
}

/** A place without lot or serial: on a shelf, or on a bench for a build. */
export const placeOf = (itemId: number, binId: number, buildId: number | null = null): Place => ({
  itemId,
  binId,
  lotId: null,
  serialId: null,
  buildId,
});

/** One item over all places. Value ÷ quantity is its moving average. */
export interface ItemStock {
  readonly quantity: Quantity;
  readonly value: Money;
  /** The last unit cost known while there was stock; what goes below zero is costed at it. */
  readonly lastCost: Money;
}

/** The part of stock that a posting touches: absent entries are zero. */
export interface StockState {
  readonly items: ReadonlyMap<number, ItemStock>;
  /** By {@link placeKey}. */
  readonly places: ReadonlyMap<string, Quantity>;
  /** What each serial in stock is worth; a serial that is not in it is not in stock. Always one unit of its item. */
  readonly serials: ReadonlyMap<number, Money>;
}

export const NO_STOCK: ItemStock = { quantity: 0 as Quantity, value: 0 as Money, lastCost: 0 as Money };

export const placeKey = (place: Place) =>
  `${place.itemId}:${place.binId}:${place.lotId ?? ''}:${place.serialId ?? ''}:${place.buildId ?? ''}`;
