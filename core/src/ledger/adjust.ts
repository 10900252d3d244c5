import type { Money, Quantity } from '../number/index.ts';
import { unitCostOf, worthOf } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import type { Posting } from './posting.ts';
import type { Spot } from './state.ts';

export interface Adjustment {
  readonly spot: Spot;
  /** What is found (above zero) or gone (below zero). */
  readonly change: Quantity;
  /** What one of what is found is worth; null takes the moving average, or the last cost known. */
  readonly unitCost: Money | null;
}

/**
 * Brings stock to what is really there. What is gone leaves at its average; what is found comes in at it, so that the
 * average stays, unless its worth is told.
 * @throws Refusal `cost-unknown` when something is found of which no cost was ever known
 */
export function postAdjustment(posting: Posting, { spot, change, unitCost }: Adjustment): void {
  const about = { itemId: spot.itemId };
  if (change < 0) {
    const value = posting.takeOut(spot, -change as Quantity);
    posting.addValue('adjusted', -value as Money, about);
    return;
  }
  const item = posting.item(spot.itemId);
  const average = item.quantity > 0 ? unitCostOf(item.value, item.quantity) : item.lastCost;
  if (unitCost === null && average === 0) throw new Refusal('cost-unknown', {}, 'unitCost');
  const value = worthOf(change, unitCost ?? average);
  posting.addValue('adjusted', value, about);
  posting.bringIn(spot, change, value);
}
