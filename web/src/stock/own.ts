import type { Item } from '@yosegi/contract';
import { type Money, type Quantity, readExact } from '@yosegi/core/number';

/** What shelves and benches have of an item and what that is worth: what is held in returns keeps its own value beside it. */
export const ownOf = (item: Pick<Item, 'onHand' | 'onBench' | 'returned' | 'value' | 'returnedValue'>) => ({
  quantity: (readExact(item.onHand) + readExact(item.onBench) - readExact(item.returned)) as Quantity,
  value: (readExact(item.value) - readExact(item.returnedValue)) as Money,
});
