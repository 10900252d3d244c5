/** How an item comes. */
export const sources = ['bought', 'made', 'both'] as const;
export type Source = (typeof sources)[number];

/** What it is kept by. */
export const trackings = ['none', 'lot', 'serial'] as const;
export type Tracking = (typeof trackings)[number];

/** Whether the first lot to expire has to go first, or is only suggested. */
export const lotOrders = ['prescribed', 'free'] as const;
export type LotOrder = (typeof lotOrders)[number];
