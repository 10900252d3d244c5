import type { DocumentKindFacts } from '../ledger/index.ts';

export const returnKinds = {
  return: { prefix: 'RB', name: 'Goods back', final: null },
  'return-settled': { prefix: 'RS', name: 'Return settled', final: null },
} as const satisfies Record<string, DocumentKindFacts>;
