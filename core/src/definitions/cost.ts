import {
  add,
  divide,
  HUNDRED_PERCENT,
  LARGEST_EXACT,
  type Money,
  mulDiv,
  type Percent,
  type Quantity,
  SCALE,
  toExact,
  unitCostOf,
  worthOf,
} from '../number/index.ts';
import { type Line, type PartLine, type Revision, required, scaled } from './lines.ts';

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
  const lines = lineCosts(revision, unitCost).map((cost) => toExact(cost) as Money);
  const sumOf = (kind: Line['kind']) =>
    add(0 as Money, ...lines.filter((_, index) => revision.lines[index]?.kind === kind));
  const [parts, labour, charges] = [sumOf('part'), sumOf('labour'), sumOf('charge')];
  const total = add(parts, labour, charges);
  return { lines, parts, labour, charges, total, perUnit: unitCostOf(total, revision.outputQuantity) };
}

/** What each line costs for one run, however large: for proportions between lines. */
export const lineCosts = (revision: Revision, unitCost: (itemId: number) => Money): bigint[] =>
  revision.lines.map((line) => {
    if (line.kind === 'part') return partCost(line, unitCost(line.itemId));
    if (line.kind === 'labour')
      return divide(BigInt(line.minutes) * BigInt(line.ratePerHour), BigInt(60 * SCALE), 'nearest');
    return line.kind === 'charge' ? BigInt(line.amount) : 0n;
  });

function partCost(line: PartLine, cost: Money): bigint {
  const waste = line.basis === 'per-run' ? 0 : line.waste;
  const top = BigInt(line.quantity) * BigInt(cost) * BigInt(HUNDRED_PERCENT + waste);
  return divide(top, BigInt(SCALE) * BigInt(HUNDRED_PERCENT), 'nearest');
}

export interface RunCost {
  readonly parts: Money;
  readonly labour: Money;
  readonly charges: Money;
  readonly total: Money;
  /** Minutes of labour, in millionths. */
  readonly minutes: Quantity;
}

/**
 * What making `made` units in one run costs: parts as they are taken, rounded up to their units, and once what is fixed
 * per run. It is the plan that a finish of all of them is compared with.
 * @throws Refusal `too-large`
 */
export function runCost(revision: Revision, made: Quantity, unitCost: (itemId: number) => Money): RunCost {
  const of = <T extends Line['kind']>(kind: T) =>
    revision.lines.filter((line): line is Extract<Line, { kind: T }> => line.kind === kind);
  const { outputQuantity } = revision;
  const minutes = of('labour').map((line) => scaled(line.basis, line.minutes, made, outputQuantity));
  const parts = add(
    0 as Money,
    ...of('part').map((line) => worthOf(required(line, made, outputQuantity), unitCost(line.itemId))),
  );
  const labour = add(
    0 as Money,
    ...of('labour').map((line, index) => labourCost(minutes[index] as Quantity, line.ratePerHour)),
  );
  const charges = add(0 as Money, ...of('charge').map((line) => scaled(line.basis, line.amount, made, outputQuantity)));
  return { parts, labour, charges, total: add(parts, labour, charges), minutes: add(0 as Quantity, ...minutes) };
}

/** The cost of `minutes` (millionths of a minute) at a rate per hour. */
export const labourCost = (minutes: Quantity, ratePerHour: Money) =>
  mulDiv(minutes, ratePerHour, 60 * SCALE, 'nearest') as Money;

/** The margin as a share of the price: (price − cost) ÷ price; null without a price, or one that is next to nothing. */
export function marginOf(price: Money, cost: Money): Percent | null {
  if (price === 0) return null;
  const share = divide(BigInt(price - cost) * BigInt(HUNDRED_PERCENT), BigInt(price), 'nearest');
  return share < -BigInt(LARGEST_EXACT) ? null : (toExact(share) as Percent);
}

/** The price that leaves `margin` of itself over `cost`; null at 100 % and above, which no price reaches. */
export function priceForMargin(cost: Money, margin: Percent): Money | null {
  const rest = HUNDRED_PERCENT - margin;
  return rest <= 0 ? null : (mulDiv(cost, HUNDRED_PERCENT, rest, 'nearest') as Money);
}
