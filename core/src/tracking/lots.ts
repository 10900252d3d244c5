import type { Quantity } from '../number/index.ts';

/** A lot where it stands. */
export interface LotStock {
  readonly lotId: number;
  readonly binId: number;
  readonly quantity: Quantity;
  /** ISO day; null when it keeps. */
  readonly bestBefore: string | null;
}

export interface LotTake {
  readonly lotId: number;
  readonly binId: number;
  readonly quantity: Quantity;
}

/** First to expire first; what keeps comes last, and the older lot before the newer. */
export const byExpiry = (a: LotStock, b: LotStock) =>
  (a.bestBefore ?? '9999').localeCompare(b.bestBefore ?? '9999') || a.lotId - b.lotId;

/**
 * What to take from which lot so that the first to expire goes first. Takes less than asked when there is less.
 * @param today lots past their day are passed over when it is given
 */
export function takeByExpiry(lots: readonly LotStock[], needed: Quantity, today?: string): LotTake[] {
  const takes: LotTake[] = [];
  let left: number = needed;
  for (const { lotId, binId, quantity } of usable(lots, today)) {
    if (left <= 0) break;
    const take = Math.min(left, quantity);
    takes.push({ lotId, binId, quantity: take as Quantity });
    left -= take;
  }
  return takes;
}

const usable = (lots: readonly LotStock[], today?: string) =>
  lots
    .filter(({ quantity, bestBefore }) => quantity > 0 && !(today && bestBefore && bestBefore < today))
    .sort(byExpiry);

/** A lot that should have gone before the one chosen, where the order is prescribed; null when the choice stands. */
export function passedOver(lots: readonly LotStock[], chosenId: number, today?: string): LotStock | null {
  const chosen = lots.find(({ lotId }) => lotId === chosenId);
  const [first] = usable(lots, today);
  if (!chosen || !first || first.lotId === chosenId) return null;
  return (first.bestBefore ?? '9999') < (chosen.bestBefore ?? '9999') ? first : null;
}
