import type { DocumentKindFacts } from '../ledger/index.ts';

export const countKinds = {
  count: { prefix: 'CD', name: 'Count', final: null, right: 'approve-count' },
} as const satisfies Record<string, DocumentKindFacts>;

export const countStates = ['open', 'approved', 'cancelled'] as const;
export type CountState = (typeof countStates)[number];

/** Which items are counted, beside those of a supplier. */
export const countGroups = ['bought', 'made', 'lot', 'serial'] as const;
export type CountGroup = (typeof countGroups)[number];
