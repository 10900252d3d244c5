import type { ComingRow } from '@yosegi/contract';
import type { Arrival } from '@yosegi/core/coverage';
import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { decimal } from '../http/amounts.ts';

/** What of an item is on order and being built, the first to come first. */
export async function comingOf(db: Reader, itemId: number, today: string): Promise<ComingRow[]> {
  const rows = await db.all<Omit<ComingRow, 'quantity' | 'late'> & { quantity: number }>(
    `SELECT * FROM (SELECT 'order' AS source, c.order_id AS id, c.number, s.name AS "from", c.quantity, c.expected_on AS "on"
     FROM purchase_coming c JOIN purchase_order o ON o.id = c.order_id JOIN supplier s ON s.id = o.supplier_id
     WHERE c.item_id = $1 AND c.quantity > 0
     UNION ALL SELECT 'build', id, number, iif(state = 'planned', 'planned', 'on the bench'), quantity - finished, due
     FROM build WHERE item_id = $1 AND state IN ('planned', 'on-bench'))
     ORDER BY ifnull("on", '9999'), number LIMIT 200`,
    [itemId],
  );
  return rows.map((row) => ({ ...row, quantity: decimal(row.quantity), late: row.on !== null && row.on < today }));
}

/** Everything that is on order or being built. What is overdue will come, but nobody knows when: it has no day. */
export async function arrivalsOf(db: Reader, today: string): Promise<(Arrival & { readonly number: string })[]> {
  const rows = await db.all<{
    itemId: number;
    quantity: Quantity;
    date: string | null;
    number: string;
    buildId: number | null;
  }>(
    `SELECT itemId, quantity, iif(date < $1, NULL, date) AS date, number, buildId FROM (
       SELECT item_id AS itemId, quantity - finished AS quantity, due AS date, number, id AS buildId FROM build
       WHERE state IN ('planned', 'on-bench')
       UNION ALL SELECT item_id, quantity, expected_on, number, NULL FROM purchase_coming)
     WHERE quantity > 0 ORDER BY ifnull(date, '9999'), number`,
    [today],
  );
  return rows;
}
