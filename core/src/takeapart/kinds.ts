import type { DocumentKindFacts } from '../ledger/index.ts';

export const apartKinds = {
  'take-apart': { prefix: 'TA', name: 'Take apart', final: null, right: 'take-apart' },
} as const satisfies Record<string, DocumentKindFacts>;
