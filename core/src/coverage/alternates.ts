import type { Line, Revision } from '../definitions/index.ts';
import { type Alternate, coverByAlternates, doesFor, type FreeLeft } from '../demand/index.ts';
import { add, type Quantity, stepOf } from '../number/index.ts';
import { canMake, needsOf, partLines } from './make.ts';

/** What may stand in for a part on any of these lines, the best first; the first ratio told for an item holds. */
export function alternatesOf(lines: readonly Line[], itemId: number): Alternate[] {
  const known = new Map<number, Alternate>();
  for (const line of lines) {
    if (line.kind !== 'part' || line.itemId !== itemId) continue;
    for (const alternate of line.alternates ?? [])
      if (!known.has(alternate.itemId)) known.set(alternate.itemId, alternate);
  }
  return [...known.values()];
}

/**
 * How many units, up to `most`, the free quantities allow when alternates stand in for what is used up. Every part is
 * taken for its own lines first; what is missing is then covered line by line from what nobody needs as a part.
 * @param most null for as many as can be made at all
 * @returns null where nothing limits it, else with what is left of everything it touches
 */
export function canMakeWith(
  revision: Revision,
  free: FreeLeft,
  outputDecimals: number,
  most: Quantity | null,
): { readonly quantity: Quantity | null; readonly left: ReadonlyMap<number, Quantity> } {
  if (!hasAlternates(revision)) return canMakeAlone(revision, free, outputDecimals, most);
  const step = stepOf(outputDecimals);
  const bound = canMake(revision, (itemId) => reachOf(revision, itemId, free), outputDecimals).quantity ?? most;
  if (bound === null) return { quantity: null, left: new Map() };
  // The more is made, the more is needed and the less is left: what does not fit never fits again.
  let [low, high] = [0, Math.floor(Math.min(bound, most ?? bound) / step)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (take(revision, (middle * step) as Quantity, free)) low = middle;
    else high = middle - 1;
  }
  const quantity = (low * step) as Quantity;
  return { quantity, left: take(revision, quantity, free) ?? new Map() };
}

/** Whether anything may stand in for a part of it. */
export const hasAlternates = (revision: Revision) =>
  partLines(revision).some(({ alternates }) => (alternates?.length ?? 0) > 0);

/** The same where nothing stands in for anything: found at once instead of searched for. */
function canMakeAlone(revision: Revision, free: FreeLeft, outputDecimals: number, most: Quantity | null) {
  const can = canMake(revision, free, outputDecimals).quantity;
  const quantity = can === null || (most !== null && most < can) ? most : can;
  const needs = quantity === null ? new Map<number, Quantity>() : needsOf(revision, quantity);
  return { quantity, left: new Map([...needs].map(([itemId, need]) => [itemId, (free(itemId) - need) as Quantity])) };
}

/** More than any amount that is kept: what an alternate could do for is not counted beyond it. */
const ENOUGH = 5e14 as Quantity;

/** The most that a part and all its alternates could do for, each as if nobody else wanted it. */
function reachOf(revision: Revision, itemId: number, free: FreeLeft): Quantity {
  const line = partLines(revision).find((one) => one.itemId === itemId);
  const others = alternatesOf(revision.lines, itemId).map(({ itemId: other, ratio, decimals }) =>
    doesFor(Math.max(0, free(other)) as Quantity, ratio, decimals, line?.decimals ?? 0, ENOUGH),
  );
  return add(Math.max(0, free(itemId)) as Quantity, ...others);
}

/** What is left after making so many; null when it cannot be made. */
function take(revision: Revision, made: Quantity, free: FreeLeft): Map<number, Quantity> | null {
  const left = new Map<number, Quantity>();
  const missing: [number, Quantity][] = [];
  const freeLeft = (itemId: number) => left.get(itemId) ?? free(itemId);
  for (const [itemId, need] of needsOf(revision, made)) {
    const there = free(itemId);
    left.set(itemId, Math.max(0, there - need) as Quantity);
    if (need > there) missing.push([itemId, (need - there) as Quantity]);
  }
  const decimals = new Map(partLines(revision).map((line) => [line.itemId, line.decimals]));
  for (const [itemId, lack] of missing) {
    const alternates = alternatesOf(revision.lines, itemId);
    const { used, open } = coverByAlternates(alternates, lack, decimals.get(itemId) ?? 0, freeLeft);
    if (open > 0) return null;
    for (const one of used) left.set(one.itemId, one.left);
  }
  return left;
}
