import type { DocumentKindFacts } from '../ledger/index.ts';

export const receiptKinds = {
  opening: { prefix: 'OS', name: 'Opening stock', final: null, right: 'receive' },
  receipt: { prefix: 'RC', name: 'Receipt', final: null, right: 'receive' },
  'price-difference': { prefix: 'PD', name: 'Price difference', final: null, right: 'value' },
} as const satisfies Record<string, DocumentKindFacts>;
