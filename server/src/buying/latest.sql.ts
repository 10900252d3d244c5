import { type Money, type Quantity, unitCostOf } from '@yosegi/core/number';
import type { Writer } from '../db/database.ts';
import { STANDS } from '../ledger/index.ts';

interface Told {
  document_id: number;
  quantity: Quantity;
  value: Money;
  unit_cost: Money | null;
}

/**
 * Keeps the latest cost of items: what the newest receipt or opening stock that stands said one costs, at the price known
 * by now. What was undone, and a later price of an older receipt, say nothing.
 */
export async function keepLatestCosts(tx: Writer, itemIds: readonly number[]): Promise<void> {
  const costs: [number, Money | null][] = [];
  for (const itemId of new Set(itemIds)) {
    const receipt = await tx.one<Told>(
      `SELECT r.document_id, r.quantity, ifnull(p.value_after, r.value) AS value,
         iif(p.document_id IS NULL, r.unit_cost, p.unit_cost) AS unit_cost
       FROM receipt_line r JOIN document d ON d.id = r.document_id
       LEFT JOIN price_difference_line p ON p.receipt_line_id = r.id AND p.document_id = (
         SELECT max(l.document_id) FROM price_difference_line l WHERE l.receipt_line_id = r.id
           AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = l.document_id))
       WHERE r.item_id = $1 AND ${STANDS} ORDER BY r.id DESC LIMIT 1`,
      [itemId],
    );
    const opening = await tx.one<Told>(
      `SELECT m.document_id, m.quantity, m.value, NULL AS unit_cost FROM movement m JOIN document d ON d.id = m.document_id
       WHERE m.item_id = $1 AND m.quantity > 0 AND d.kind = 'opening' AND ${STANDS} ORDER BY m.id DESC LIMIT 1`,
      [itemId],
    );
    const newest = (opening?.document_id ?? 0) > (receipt?.document_id ?? 0) ? opening : receipt;
    costs.push([itemId, newest ? (newest.unit_cost ?? unitCostOf(newest.value, newest.quantity)) : null]);
  }
  await tx.run('UPDATE item SET latest_cost = v.value ->> 1 FROM json_each($1) v WHERE item.id = v.value ->> 0', [
    JSON.stringify(costs),
  ]);
}
