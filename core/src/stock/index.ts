import type { DocumentKindFacts } from '../ledger/index.ts';

export const stockKinds = {
  transfer: { prefix: 'TR', name: 'Transfer', final: null },
  adjustment: { prefix: 'AD', name: 'Adjustment', final: null },
  revaluation: { prefix: 'RV', name: 'Revaluation', final: null },
} as const satisfies Record<string, DocumentKindFacts>;

/** What a reason is given for. */
export const reasonUses = ['adjustment', 'hold', 'reject', 'return'] as const;
export type ReasonUse = (typeof reasonUses)[number];
