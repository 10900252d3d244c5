import type { DocumentKindFacts } from '../ledger/index.ts';

export const returnKinds = {
  return: { prefix: 'RB', name: 'Goods back', final: null, right: 'take-apart' },
  'return-settled': { prefix: 'RS', name: 'Return processed', final: null, right: 'take-apart' },
} as const satisfies Record<string, DocumentKindFacts>;
