import { type PartLine, type Revision, required, requiredForText } from '../definitions/index.ts';
import { add, divide, HUNDRED_PERCENT, type Quantity, stepOf, sumForText } from '../number/index.ts';

/** What a run of `made` units needs, summed by item: several lines may ask for the same part. */
export function needsOf(revision: Revision, made: Quantity): Map<number, Quantity> {
  const needs = new Map<number, Quantity>();
  for (const line of partLines(revision)) {
    const need = required(line, made, revision.outputQuantity);
    needs.set(line.itemId, add(needs.get(line.itemId) ?? (0 as Quantity), need));
  }
  return needs;
}

export const partLines = (revision: Revision) =>
  revision.lines.filter((line): line is PartLine => line.kind === 'part');

export interface CanMake {
  /** Whole steps of the product's unit that the parts allow; null when nothing limits it. */
  readonly quantity: Quantity | null;
  /** The part that runs out first. */
  readonly limitedBy: number | null;
}

/**
 * How many units the given free quantities allow, with every need rounded up as {@link required} does.
 * @param outputDecimals decimals of the product's unit; the answer is a whole number of its smallest steps
 */
export function canMake(revision: Revision, free: (itemId: number) => Quantity, outputDecimals: number): CanMake {
  const byItem = groupByItem(partLines(revision));
  let least: CanMake = { quantity: null, limitedBy: null };
  for (const [itemId, lines] of byItem) {
    const quantity = allowedBy(lines, free(itemId), revision.outputQuantity, stepOf(outputDecimals));
    if (quantity !== null && (least.quantity === null || quantity < least.quantity)) {
      least = { quantity, limitedBy: itemId };
    }
  }
  return least;
}

function groupByItem(lines: readonly PartLine[]): Map<number, PartLine[]> {
  const groups = new Map<number, PartLine[]>();
  for (const line of lines) {
    const group = groups.get(line.itemId);
    if (group) group.push(line);
    else groups.set(line.itemId, [line]);
  }
  return groups;
}

/** The largest output for which the lines' needs of one item stay within `free`; null when they need none at all. */
function allowedBy(
  lines: readonly PartLine[],
  free: Quantity,
  outputQuantity: Quantity,
  step: number,
): Quantity | null {
  const [first] = lines;
  if (lines.length === 1 && first) return allowedByLine(first, free, outputQuantity, step);
  // Each line rounds up on its own, so no formula is exact for their sum: search between bounds, the need never falls.
  const needs = (line: PartLine, made: number) => requiredForText(line, made as Quantity, outputQuantity);
  const fits = (made: number) => sumForText(lines.map((line) => needs(line, made))) <= BigInt(free);
  if (!fits(step)) return 0 as Quantity;
  const alone = lines.map((line) => allowedByLine(line, free, outputQuantity, step));
  const bounds = alone.filter((bound) => bound !== null);
  if (bounds.length === 0) return null;
  let [low, high] = [1, Math.min(...bounds) / step];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (fits(middle * step)) low = middle;
    else high = middle - 1;
  }
  return (low * step) as Quantity;
}

/**
 * floor( (free − per run) ÷ (quantity ÷ output × (1 + waste)) ). Rounding the need up to the part's decimals is the
 * same as rounding what is free down to them, which keeps this exact.
 */
function allowedByLine(line: PartLine, free: Quantity, outputQuantity: Quantity, step: number): Quantity | null {
  if (line.quantity === 0) return null;
  const partStep = BigInt(stepOf(line.decimals));
  const usable = divide(BigInt(free), partStep, 'down') * partStep;
  if (usable <= 0n) return 0 as Quantity;
  if (line.basis === 'per-run')
    return requiredForText(line, 1 as Quantity, outputQuantity) <= usable ? null : (0 as Quantity);
  const made = divide(
    usable * BigInt(outputQuantity) * BigInt(HUNDRED_PERCENT),
    BigInt(line.quantity) * BigInt(HUNDRED_PERCENT + line.waste) * BigInt(step),
    'down',
  );
  const quantity = made * BigInt(step);
  // A trace of a part in each would do for more than can be kept: as good as no limit, and no reason to refuse.
  const most = BigInt(Math.floor(Number.MAX_SAFE_INTEGER / step)) * BigInt(step);
  return Number(quantity < most ? quantity : most) as Quantity;
}
