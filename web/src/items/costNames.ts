import type { Item } from '@yosegi/contract';

/** What the cost that an item is counted at is; where it never had any, the standard stands in and is called that. */
export const costNames: Record<Item['costFrom'], string> = {
  average: 'Moving average',
  built: 'By its own bill of materials',
  last: 'Last known cost',
  standard: 'Standard cost',
  'at-least': 'Not fully known, at least',
  none: 'No cost known',
};
