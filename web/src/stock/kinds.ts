import type { DocumentKind } from '@yosegi/contract';

/** Kinds of documents as people call them. */
export const kindNames: Record<DocumentKind, string> = {
  opening: 'Opening stock',
  receipt: 'Receipt',
  transfer: 'Transfer',
  adjustment: 'Adjustment',
  count: 'Count',
  pick: 'Pick',
  'put-back': 'Put back',
  finish: 'Finish',
  'take-apart': 'Take apart',
  'price-difference': 'Price difference',
  revaluation: 'Revaluation',
  undo: 'Undo',
};

export const kindOptions: [string, string][] = [['', 'Everything'], ...Object.entries(kindNames)];
