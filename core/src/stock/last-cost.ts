import { type Money, type Quantity, unitCostOf } from '../number/index.ts';

/** What one posting did to an item in all, and what of it came in. */
export interface Step {
  readonly quantity: Quantity;
  readonly value: Money;
  readonly broughtQuantity: Quantity;
  readonly broughtValue: Money;
}

/**
 * The last cost of one that was known, from an item's postings in their order: its average while there was some, or what
 * came in at while more was owed than there was. Undefined when nothing ever said what one costs.
 */
export function lastCostAfter(steps: Iterable<Step>): Money | undefined {
  let [quantity, value] = [0, 0];
  let known: Money | undefined;
  for (const step of steps) {
    quantity += step.quantity;
    value += step.value;
    if (quantity > 0) known = unitCostOf(value as Money, quantity as Quantity);
    else if (step.quantity > 0) known = unitCostOf(step.broughtValue, step.broughtQuantity);
  }
  return known;
}
