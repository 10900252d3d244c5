import type { DocumentKindFacts } from '../ledger/index.ts';

/** What an order was said to be; how far it has come is told by its lines ({@link standingOf}). */
export const orderStates = ['quote', 'confirmed', 'cancelled'] as const;
export type OrderState = (typeof orderStates)[number];

/** Everything in one delivery, or each line as soon as it is ready. */
export const deliveries = ['whole', 'as-ready'] as const;
export type Delivery = (typeof deliveries)[number];

/** Where the price of a line comes from: the item's own, what its contents sell at, or what somebody typed. */
export const priceSources = ['own', 'contents', 'typed'] as const;
export type PriceSource = (typeof priceSources)[number];

export const orderKinds = {
  shipment: { prefix: 'SH', name: 'Shipment', final: null },
} as const satisfies Record<string, DocumentKindFacts>;
