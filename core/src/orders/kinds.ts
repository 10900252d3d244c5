/** What an order was said to be; how far it has come is told by its lines ({@link standingOf}). */
export const orderStates = ['quote', 'confirmed', 'cancelled'] as const;
export type OrderState = (typeof orderStates)[number];

/** Everything in one delivery, or each line as soon as it is ready. */
export const deliveries = ['whole', 'as-ready'] as const;
export type Delivery = (typeof deliveries)[number];

/** Where the price of a line comes from: the item's own, what its contents sell at, or what somebody typed. */
export const priceSources = ['own', 'contents', 'typed'] as const;
export type PriceSource = (typeof priceSources)[number];

/** How an order came in. */
export const cameBys = ['typed', 'message', 'file'] as const;
export type CameBy = (typeof cameBys)[number];

/** What a customer can send: the standard's own names. */
export const messageKinds = ['Order', 'OrderChange', 'OrderCancellation'] as const;
export type MessageKind = (typeof messageKinds)[number];
