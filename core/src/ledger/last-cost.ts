import { type Money, mulDiv, type Quantity, unitCostOf } from '../number/index.ts';

/** What one posting did to an item in all. */
export interface Step {
  /** What came in less what left. */
  readonly quantity: Quantity;
  /** The value that went with it. */
  readonly value: Money;
  /** Value added or taken without goods: a price known later, a revaluation, what was settled. */
  readonly changed: Money;
}

/**
 * The last cost of one that was known, from an item's postings in their order: its average once something had come in or
 * its worth had changed, or what it came in at while more was owed than there was. What leaves is valued anew by these
 * postings alone, because it may have left at an average that holds the price of something undone since.
 * @param ownCosts whether its units keep their own costs: then each leaves at its own
 * @returns undefined when nothing ever said what one costs
 */
export function lastCostAfter(steps: Iterable<Step>, ownCosts = false): Money | undefined {
  let [quantity, value] = [0, 0];
  let known: Money | undefined;
  for (const step of steps) {
    const before = quantity;
    quantity += step.quantity;
    if (step.quantity > 0) {
      // What is owed is settled at what this came in at.
      if (before >= 0) value += step.value;
      else value = quantity > 0 ? mulDiv(step.value, quantity, step.quantity, 'nearest') : 0;
      known = quantity > 0 ? unitCost(value, quantity) : unitCost(step.value, step.quantity);
    } else if (step.quantity < 0) {
      if (ownCosts) value += step.value;
      else value = quantity > 0 ? value - mulDiv(value, -step.quantity, before, 'nearest') : 0;
      if (ownCosts && quantity > 0) known = unitCost(value, quantity);
    } else if (quantity > 0 && step.value + step.changed !== 0) {
      value = Math.max(0, value + step.value + step.changed);
      known = unitCost(value, quantity);
    }
  }
  return known;
}

const unitCost = (value: number, quantity: number) => unitCostOf(value as Money, quantity as Quantity);
