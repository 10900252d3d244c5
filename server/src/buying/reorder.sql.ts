import type { Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { STANDS } from '../ledger/index.ts';

/** What was used of bought items by day of the company since one: gone into builds or shipped by documents that stand. */
export const usesSince = (db: Reader, since: string) =>
  db.all<{ item_id: number; on: string; quantity: Quantity }>(
    `SELECT item_id, "on", sum(quantity) AS quantity FROM (
       SELECT m.item_id, date(d.at, 'localtime') AS "on", -sum(m.quantity) AS quantity
       FROM document d JOIN movement m ON m.document_id = d.id JOIN item i ON i.id = m.item_id
       WHERE d.kind IN ('finish', 'shipment') AND d.at >= $1 AND i.source <> 'made' AND i.archived_at IS NULL
         AND ${STANDS}
       GROUP BY d.id, m.item_id HAVING sum(m.quantity) < 0)
     GROUP BY item_id, "on" ORDER BY item_id, "on"`,
    [since],
  );
