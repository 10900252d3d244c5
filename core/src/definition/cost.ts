import {
  add,
  divide,
  HUNDRED_PERCENT,
  type Money,
  mulDiv,
  type Percent,
  type Quantity,
  SCALE,
  toExact,
  unitCostOf,
} from '../number/index.ts';
import type { Line, PartLine, Revision } from './lines.ts';

export interface DefinitionCost {
  /** Per line in order, for one run of the output quantity. */
  readonly lines: readonly Money[];
  readonly parts: Money;
  readonly labour: Money;
  readonly charges: Money;
  /** For one run of the output quantity. */
  readonly total: Money;
  readonly perUnit: Money;
}

/**
 * What one run of a definition costs, line by line and in all, at the unit costs given. Parts are costed at their exact
 * need with waste, before the rounding up that stock takes, so that small lines are not overstated.
 */
export function definitionCost(revision: Revision, unitCost: (itemId: number) => Money): DefinitionCost {
  const lines = revision.lines.map((line) => lineCost(line, unitCost));
  const sumOf = (kind: Line['kind']) =>
    add(0 as Money, ...lines.filter((_, index) => revision.lines[index]?.kind === kind));
  const [parts, labour, charges] = [sumOf('part'), sumOf('labour'), sumOf('charge')];
  const total = add(parts, labour, charges);
  return { lines, parts, labour, charges, total, perUnit: unitCostOf(total, revision.outputQuantity) };
}

function lineCost(line: Line, unitCost: (itemId: number) => Money): Money {
  if (line.kind === 'part') return partCost(line, unitCost(line.itemId));
  if (line.kind === 'labour') return labourCost(line.minutes, line.ratePerHour);
  return (line.kind === 'charge' ? line.amount : 0) as Money;
}

function partCost(line: PartLine, cost: Money): Money {
  const waste = line.basis === 'per-run' ? 0 : line.waste;
  const top = BigInt(line.quantity) * BigInt(cost) * BigInt(HUNDRED_PERCENT + waste);
  return toExact(divide(top, BigInt(SCALE) * BigInt(HUNDRED_PERCENT), 'nearest')) as Money;
}

/** The cost of `minutes` (millionths of a minute) at a rate per hour. */
export const labourCost = (minutes: Quantity, ratePerHour: Money) =>
  mulDiv(minutes, ratePerHour, 60 * SCALE, 'nearest') as Money;

/** The margin as a share of the price: (price − cost) ÷ price; null without a price. */
export function marginOf(price: Money, cost: Money): Percent | null {
  return price === 0 ? null : (mulDiv(price - cost, HUNDRED_PERCENT, price, 'nearest') as Percent);
}

/** The price that leaves `margin` of itself over `cost`; null at 100 % and above, which no price reaches. */
export function priceForMargin(cost: Money, margin: Percent): Money | null {
  const rest = HUNDRED_PERCENT - margin;
  return rest <= 0 ? null : (mulDiv(cost, HUNDRED_PERCENT, rest, 'nearest') as Money);
}
