import type { StockDocument } from '@yosegi/contract';
import type { Money } from '@yosegi/core/number';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

/** A line of a receipt; `value` is what all of it is known to have cost, with every difference posted since. */
export interface ReceiptLineRow
  extends Pick<Row<'receipt_line'>, 'id' | 'item_id' | 'lot_id' | 'serial_ids' | 'quantity' | 'value'>,
    Pick<Row<'item'>, 'code' | 'name'>,
    Pick<Row<'unit'>, 'decimals'> {
  lot: string | null;
  serials: string | null;
  unit: string;
}

/** The lines of a receipt at the price known by now: differences that stand are in it. */
export const receiptLines = (db: Reader, documentId: number) =>
  db.all<ReceiptLineRow>(
    `SELECT r.id, r.item_id, r.lot_id, r.serial_ids, l.code AS lot,
       (SELECT group_concat(code, ', ') FROM serial WHERE id IN (SELECT value FROM json_each(r.serial_ids))) AS serials,
       i.code, i.name, u.code AS unit, u.decimals, r.quantity,
       r.value + ifnull((SELECT sum(p.value_after - p.value_before) FROM price_difference_line p
         WHERE p.receipt_line_id = r.id
           AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = p.document_id)), 0) AS value
     FROM receipt_line r JOIN item i ON i.id = r.item_id JOIN unit u ON u.id = i.unit_id LEFT JOIN lot l ON l.id = r.lot_id
     WHERE r.document_id = $1 ORDER BY r.id`,
    [documentId],
  );

/** The number of a receipt, and whether it was undone. */
export const receiptHead = (db: Reader, documentId: number) =>
  db.one<{ number: string; undone: number }>(
    `SELECT d.number, EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM document d JOIN receipt r ON r.document_id = d.id WHERE d.id = $1`,
    [documentId],
  );

/** The last document that stands and put a price right after this one, on the same goods. */
export const laterPrice = (db: Reader, id: number) =>
  db.one<{ number: string }>(
    `SELECT d.number FROM price_difference_line p JOIN document d ON d.id = p.document_id
     WHERE d.id > $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
       AND p.receipt_line_id IN (SELECT id FROM receipt_line WHERE document_id = $1
         UNION ALL SELECT receipt_line_id FROM price_difference_line WHERE document_id = $1)
     ORDER BY d.id DESC LIMIT 1`,
    [id],
  );

/** Whose price a document put right: where all of it is gone, nothing moved for it. */
export async function pricedItems(tx: Writer, documentId: number): Promise<number[]> {
  const rows = await tx.all<{ item_id: number }>(
    `SELECT DISTINCT r.item_id FROM price_difference_line p JOIN receipt_line r ON r.id = p.receipt_line_id
     WHERE p.document_id = $1`,
    [documentId],
  );
  return rows.map(({ item_id }) => item_id);
}

/** Who brought it, of these documents that are receipts. */
export async function receiptParties(db: Reader, ids: readonly number[]): Promise<ReadonlyMap<number, string>> {
  const rows = await db.all<{ document_id: number; name: string }>(
    `SELECT r.document_id, s.name FROM receipt r JOIN supplier s ON s.id = r.supplier_id
     WHERE r.document_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );
  return new Map(rows.map(({ document_id, name }) => [document_id, name]));
}

/** Who brought it, and which documents put its price right. */
export async function describeReceipt(db: Reader, id: number): Promise<Pick<StockDocument, 'receipt' | 'prices'>> {
  const receipt = await db.one<NonNullable<StockDocument['receipt']>>(
    `SELECT r.supplier_id AS supplierId, s.name AS supplier, r.order_id AS orderId, o.number AS "order", r.delivery_note AS deliveryNote
     FROM receipt r LEFT JOIN supplier s ON s.id = r.supplier_id LEFT JOIN purchase_order o ON o.id = r.order_id
     WHERE r.document_id = $1`,
    [id],
  );
  const prices = await db.all<StockDocument['prices'][number]>(
    `SELECT DISTINCT d.id, d.number FROM price_difference_line p JOIN receipt_line r ON r.id = p.receipt_line_id
     JOIN document d ON d.id = iif(p.document_id = $1, r.document_id, p.document_id)
     WHERE p.document_id = $1 OR r.document_id = $1 ORDER BY d.id`,
    [id],
  );
  return { receipt: receipt ?? null, prices };
}

/** The first of these items that is never in stock, or out of use. */
export const unstockedOf = (db: Reader, itemIds: readonly number[]) =>
  db.one<{ id: number; name: string; archived: number }>(
    `SELECT i.id, i.name, i.archived_at IS NOT NULL AS archived FROM item i
     WHERE i.id IN (SELECT value FROM json_each($1)) AND (i.archived_at IS NOT NULL
       OR EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND made = 'packed-per-order')) LIMIT 1`,
    [JSON.stringify(itemIds)],
  );

/** Sets what items are said to cost by what just came in. */
export const setLatestCosts = (tx: Writer, latest: ReadonlyMap<number, Money>) =>
  tx.run('UPDATE item SET latest_cost = v.value ->> 1 FROM json_each($1) v WHERE item.id = v.value ->> 0', [
    JSON.stringify([...latest]),
  ]);

/** Adds what came to the lines of orders. @param came by line */
export const addReceived = (tx: Writer, came: ReadonlyMap<number, number>) =>
  tx.run(
    `UPDATE purchase_order_line SET received = received + (v.value ->> 1) FROM json_each($1) v WHERE purchase_order_line.id = v.value ->> 0`,
    [JSON.stringify([...came])],
  );

/** Takes what a receipt brought off the lines of its order; what it closed is open once more. */
export const takeReceived = (tx: Writer, documentId: number) =>
  tx.run(
    `UPDATE purchase_order_line SET received = received - r.quantity, closed = 0 FROM (
       SELECT order_line_id, sum(quantity) AS quantity FROM receipt_line WHERE document_id = $1 GROUP BY order_line_id) r
     WHERE purchase_order_line.id = r.order_line_id`,
    [documentId],
  );

/** A delivery that was announced for an order, with the receipt it became. */
export const announcedMail = (db: Reader, orderId: number, mailId: number) =>
  db.one<{ number: string | null }>(
    `SELECT d.number FROM mail m LEFT JOIN document d ON d.id = m.document_id
     WHERE m.id = $1 AND m.order_id = $2 AND m.kind = 'despatch-advice'`,
    [mailId, orderId],
  );
