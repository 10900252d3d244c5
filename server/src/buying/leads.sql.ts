import type { Delivery } from '@yosegi/core/buying';
import { dayOf } from '@yosegi/core/days';
import type { Reader } from '../db/database.ts';

/** The most deliveries that are read for one learning; the core takes the newest of them. */
const MOST = 2000;

interface DeliveryRow {
  item_id: number;
  sent_at: string;
  came_at: string;
  expected_on: string | null;
}

/** Deliveries of a supplier that stand, by item; the newest first. @param itemIds only of these, or of all when left out */
export async function deliveriesOf(
  db: Reader,
  supplierId: number,
  itemIds?: readonly number[],
): Promise<Map<number, Delivery[]>> {
  const rows = await db.all<DeliveryRow>(
    `SELECT r.item_id, o.sent_at, d.at AS came_at, l.promised_on AS expected_on
     FROM receipt_line r JOIN purchase_order_line l ON l.id = r.order_line_id JOIN purchase_order o ON o.id = l.order_id
     JOIN document d ON d.id = r.document_id
     WHERE o.supplier_id = $1 AND o.sent_at IS NOT NULL
       AND ($2 IS NULL OR r.item_id IN (SELECT value FROM json_each($2)))
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
     ORDER BY d.id DESC LIMIT ${MOST}`,
    [supplierId, itemIds ? JSON.stringify(itemIds) : null],
  );
  const byItem = new Map<number, Delivery[]>();
  for (const { item_id, sent_at, came_at, expected_on } of rows) {
    const known = byItem.get(item_id) ?? [];
    const [sentOn, cameOn] = [dayOf(new Date(sent_at)), dayOf(new Date(came_at))];
    byItem.set(item_id, [...known, { sentOn, cameOn, expectedOn: expected_on }]);
  }
  return byItem;
}
