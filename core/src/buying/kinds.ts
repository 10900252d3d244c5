import type { DocumentKindFacts } from '../ledger/index.ts';

export const receiptKinds = {
  opening: { prefix: 'OS', name: 'Opening stock', final: null },
  receipt: { prefix: 'RC', name: 'Receipt', final: null },
  'price-difference': { prefix: 'PD', name: 'Price difference', final: null },
} as const satisfies Record<string, DocumentKindFacts>;
