import type { PutRight } from '@yosegi/contract';
import type { Money, Quantity } from '@yosegi/core/number';
import type { Reader, Writer } from '../db/database.ts';

export interface PutRightRow extends Omit<PutRight, 'quantity' | 'elsewhere'> {
  quantity: Quantity | null;
  lotId: number | null;
  lot: string | null;
}

/** Overrides that nobody has put right, the newest first, each with the piece of stock that is below zero. */
export const openPutRight = (db: Reader) =>
  db.all<PutRightRow>(
    `SELECT r.id, r.item_id AS itemId, ifnull(i.code, bi.code) AS code, ifnull(i.name, bi.name) AS name,
       ifnull(u.code, '') AS unit, ifnull(u.decimals, 0) AS decimals, r.bin_id AS binId, n.code AS bin,
       b.quantity, b.lot_id AS lotId, l.code AS lot,
       o.order_id AS orderId, o.number AS "order",
       r.reason, p.name AS person, r.at, r.document_id AS documentId,
       iif(r.for_kind = 'build', r.for_id, NULL) AS buildId,
       coalesce(d.number, c.number) AS source
     FROM put_right r JOIN person p ON p.id = r.person_id
     LEFT JOIN item i ON i.id = r.item_id LEFT JOIN unit u ON u.id = i.unit_id LEFT JOIN bin n ON n.id = r.bin_id
     LEFT JOIN document d ON d.id = r.document_id LEFT JOIN numbered c ON c.kind = r.for_kind AND c.id = r.for_id LEFT JOIN item bi ON bi.id = c.item_id
     LEFT JOIN (SELECT item_id, bin_id, lot_id, min(quantity) AS quantity FROM balance
       WHERE holder_id IS NULL AND quantity < 0 GROUP BY item_id, bin_id) b ON b.item_id = r.item_id AND b.bin_id = r.bin_id
     LEFT JOIN lot l ON l.id = b.lot_id
     LEFT JOIN (SELECT item_id, source_id AS order_id, number, min(line_id) FROM coming_bought GROUP BY item_id) o
       ON o.item_id = r.item_id
     WHERE r.settled_at IS NULL ORDER BY r.id DESC`,
  );

/** What can be taken of these items, bin by bin, but for what is kept by serial. */
export const usableInBins = (db: Reader, itemIds: readonly number[]) =>
  db.all<{
    item_id: number;
    bin_id: number;
    bin: string;
    lot_id: number | null;
    quantity: Quantity;
  }>(
    `SELECT v.item_id, v.bin_id, t.name || ' ' || n.code AS bin, v.lot_id, v.quantity FROM usable v
     JOIN bin n ON n.id = v.bin_id JOIN store t ON t.id = n.store_id
     WHERE v.quantity > 0 AND v.serial_id IS NULL AND v.item_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(itemIds)],
  );

/** The last revaluation that stands, after a document, of any of these items. */
export const laterRevaluation = (db: Reader, documentId: number, itemIds: readonly number[]) =>
  db.one<{ number: string }>(
    `SELECT d.number FROM document d WHERE d.kind = 'revaluation' AND d.id > $1
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
       AND EXISTS (SELECT 1 FROM movement m WHERE m.document_id = d.id AND m.item_id IN (SELECT value FROM json_each($2)))
     ORDER BY d.id DESC LIMIT 1`,
    [documentId, JSON.stringify(itemIds)],
  );

/** Makes new costs the standards of items, and keeps what they were. */
export async function setStandards(
  tx: Writer,
  documentId: number,
  costs: readonly [itemId: number, unitCost: Money][],
) {
  await tx.run(
    `INSERT INTO revalued_standard (document_id, item_id, cost_before, cost_after)
     SELECT $1, i.id, i.standard_cost, v.value ->> 1 FROM json_each($2) v JOIN item i ON i.id = v.value ->> 0`,
    [documentId, JSON.stringify(costs)],
  );
  await tx.run(
    `UPDATE item SET standard_cost = s.cost_after, version = version + 1 FROM revalued_standard s
     WHERE s.document_id = $1 AND item.id = s.item_id`,
    [documentId],
  );
}

/** Standard costs that an undone revaluation had set are again what they were, unless somebody has set others since. */
export const setStandardsBack = (tx: Writer, documentId: number) =>
  tx.run(
    `UPDATE item SET standard_cost = s.cost_before, version = version + 1 FROM revalued_standard s
     WHERE s.document_id = $1 AND item.id = s.item_id AND item.standard_cost = s.cost_after`,
    [documentId],
  );
