import type { DocumentKindFacts } from '../ledger/index.ts';

export const pickKinds = {
  pick: { prefix: 'PK', name: 'Pick', final: null, right: 'pick' },
} as const satisfies Record<string, DocumentKindFacts>;
