import type { DocumentKindFacts } from '../ledger/index.ts';

export const stockKinds = {
  transfer: { prefix: 'TR', name: 'Transfer', final: null, right: 'move-stock' },
  adjustment: { prefix: 'AD', name: 'Adjustment', final: null, right: 'move-stock' },
  revaluation: { prefix: 'RV', name: 'Revaluation', final: null, right: 'value' },
} as const satisfies Record<string, DocumentKindFacts>;

/** What a reason is given for. */
export const reasonUses = ['adjustment', 'hold', 'reject', 'return'] as const;
export type ReasonUse = (typeof reasonUses)[number];
