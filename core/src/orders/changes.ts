import { minus, type Quantity, ZERO } from '../number/index.ts';

/** How many of an item a line is for, in the item's unit, less what was given up. */
export interface Wanted {
  readonly id: number;
  readonly itemId: number;
  readonly quantity: Quantity;
  readonly dropped: Quantity;
}

/** An item of which another quantity is wanted than before; zero: not at all. */
export interface QuantityChange {
  readonly itemId: number;
  readonly before: Quantity;
  readonly after: Quantity;
}

/** What changed between two states of the lines of an order, line by line: those that stay first, then those that came. */
export function quantityChanges(before: readonly Wanted[], after: readonly Wanted[]): readonly QuantityChange[] {
  const of = (lines: readonly Wanted[], line: Wanted) => {
    const same = lines.find(({ id, itemId }) => id === line.id && itemId === line.itemId);
    return same ? minus(same.quantity, same.dropped) : ZERO;
  };
  const came = after.filter(({ id, itemId }) => !before.some((line) => line.id === id && line.itemId === itemId));
  return [...before, ...came]
    .map((line) => ({ itemId: line.itemId, before: of(before, line), after: of(after, line) }))
    .filter((change) => change.before !== change.after);
}
