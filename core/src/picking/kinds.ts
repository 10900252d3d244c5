import type { DocumentKindFacts } from '../ledger/index.ts';

export const pickKinds = {
  pick: { prefix: 'PK', name: 'Pick', final: null },
} as const satisfies Record<string, DocumentKindFacts>;
