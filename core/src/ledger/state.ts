import type { Money, Quantity } from '../number/index.ts';

/** What goods can stand for, apart from shelves: a build on its bench, a parcel, a customer's own, a return to come. */
export const holderKinds = ['build', 'parcel', 'customer', 'return'] as const;
export interface Holder {
  readonly kind: (typeof holderKinds)[number];
  readonly id: number;
}

/** Where a quantity stands: an item in a bin, by lot and serial, and what it stands for. */
export interface Spot {
  readonly itemId: number;
  readonly binId: number;
  readonly lotId: number | null;
  readonly serialId: number | null;
  /** Null on a shelf. */
  readonly holder: Holder | null;
}

/** Some of an item at one spot. */
export interface Heap {
  readonly spot: Spot;
  readonly quantity: Quantity;
}

/** A spot without lot or serial: on a shelf, or with its holder. */
export const spotOf = (itemId: number, binId: number, holder: Holder | null = null): Spot => ({
  itemId,
  binId,
  lotId: null,
  serialId: null,
  holder,
});

/** Goods held in returns: they keep the value they left with, apart from their item's average, until they are decided. */
export const isInReturns = ({ holder }: Pick<Spot, 'holder'>): boolean => holder?.kind === 'return';

/** One item over all places but returns. Value ÷ quantity is its moving average. */
export interface ItemStock {
  readonly quantity: Quantity;
  readonly value: Money;
  /** The last unit cost known while there was stock; what goes below zero is costed at it. */
  readonly lastCost: Money;
}

/** The part of stock that a posting touches: absent entries are zero. */
export interface StockState {
  readonly items: ReadonlyMap<number, ItemStock>;
  /** By {@link spotKey}. */
  readonly spots: ReadonlyMap<string, Quantity>;
  /** What each serial in stock is worth; a serial that is not in it is not in stock. Always one unit of its item. */
  readonly serials: ReadonlyMap<number, Money>;
}

/** What there is of an item in returns, or how much that changes. */
export type InReturns = Pick<ItemStock, 'quantity' | 'value'>;

export const NO_STOCK: ItemStock = { quantity: 0 as Quantity, value: 0 as Money, lastCost: 0 as Money };

export const spotKey = (spot: Spot) =>
  `${spot.itemId}:${spot.binId}:${spot.lotId ?? ''}:${spot.serialId ?? ''}:${spot.holder ? `${spot.holder.kind}${spot.holder.id}` : ''}`;
