import type { DocumentKindFacts } from '../ledger/index.ts';

export const buildKinds = {
  'put-back': {
    prefix: 'PB',
    name: 'Put back',
    final: 'This put goods back on their shelves, so it cannot be undone. Pick them again instead.',
    right: 'pick',
  },
  finish: { prefix: 'FN', name: 'Finish', final: null, right: 'build' },
} as const satisfies Record<string, DocumentKindFacts>;
