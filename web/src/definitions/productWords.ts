import type { DefinitionRow } from '@yosegi/contract';

/** What is wrong with a definition, in a few words. */
export const faultWords = {
  'none-in-use': 'no revision in use',
  'unpriced-part': 'a part without a cost',
  'archived-part': 'an archived part',
  'below-cost': 'sells below cost',
  'beyond-reckoning': 'costs more than is allowed',
} as const;

export function revisionsOf({ inUse, draft }: Pick<DefinitionRow, 'inUse' | 'draft'>): string {
  if (inUse === null) return draft === null ? 'retired' : `draft ${draft}`;
  return draft === null ? `rev ${inUse}` : `rev ${inUse} · draft ${draft}`;
}
