import type { Item } from '@yosegi/contract';

/** What the cost that an item is counted at is; where it never had any, the standard stands in and is called that. */
export const costNames: Record<Item['costFrom'], string> = {
  average: 'Moving average',
  last: 'Last known cost',
  standard: 'Standard cost',
  none: 'No cost known',
};
