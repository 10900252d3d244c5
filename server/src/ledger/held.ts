import type { Spot } from '@yosegi/core/ledger';
import type { Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type BalanceRow, spotIn } from './balances.ts';

/** What may be used before what is held: that is reached only where there is nothing else. */
export const heldLast = (rows: readonly BalanceRow[]): BalanceRow[] =>
  [...rows].sort((a, b) => Number(a.held !== null) - Number(b.held !== null));

/**
 * A hold holds wherever goods stand, on benches and in parcels as on shelves: until it is released nothing uses them,
 * ships them or takes them apart.
 * @param before what stood where
 * @param after what stands at a place after the deed
 * @throws Refusal `is-held`
 */
export function refuseHeld(before: readonly BalanceRow[], after: (spot: Spot) => Quantity, field?: string): void {
  const row = before.find((one) => one.held !== null && after(spotIn(one)) < one.quantity);
  if (row) throw new Refusal('is-held', { code: row.lot ?? row.serial ?? row.bin, held: row.held ?? '' }, field);
}
