import type { DocumentKindFacts } from '../ledger/index.ts';

export const buildKinds = {
  'put-back': {
    prefix: 'PB',
    name: 'Put back',
    final: 'This put the parts of a cancelled build back, so it cannot be undone. Plan a new build instead.',
  },
  finish: { prefix: 'FN', name: 'Finish', final: null },
} as const satisfies Record<string, DocumentKindFacts>;
