import type { Quantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/**
 * Refuses a pick that its line cannot take.
 * @throws Refusal `not-positive`, or `more-than-open` with what is `open`
 */
export function checkPick(open: Quantity, quantity: Quantity, field?: string): void {
  if (quantity <= 0) throw new Refusal('not-positive', {}, field);
  if (quantity > open) throw new Refusal('more-than-open', { open }, field);
}
