export const purposes = ['build', 'rework', 'record'] as const;
export type Purpose = (typeof purposes)[number];

export const revisionStates = ['draft', 'in-use', 'retired'] as const;
export type RevisionState = (typeof revisionStates)[number];

export const lineKinds = ['part', 'labour', 'charge', 'note'] as const;
export type LineKind = (typeof lineKinds)[number];

/** Whether a line grows with the quantity made or is the same for every run. */
export const bases = ['per-output', 'per-run'] as const;
export type Basis = (typeof bases)[number];

/** Whether a part is brought to the bench first or taken from its bin when the build is finished. */
export const takens = ['picked-first', 'when-finished'] as const;
export type Taken = (typeof takens)[number];

export const madeHows = ['ahead', 'packed-per-order'] as const;
export type MadeHow = (typeof madeHows)[number];

export const paperworks = ['one-line', 'contents'] as const;
export type Paperwork = (typeof paperworks)[number];

export const onOrders = ['locked', 'quantities', 'swaps'] as const;
export type OnOrder = (typeof onOrders)[number];

export const swapFors = ['listed', 'anything'] as const;
export type SwapFor = (typeof swapFors)[number];

export const pricesFrom = ['own', 'parts'] as const;
export type PriceFrom = (typeof pricesFrom)[number];
