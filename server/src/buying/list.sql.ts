import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { ITEM_SQL, type ItemRow } from '../items/index.ts';

export interface OfferRow extends Row<'item_supplier'> {
  supplier_code: string;
  supplier: string;
}

/** Which of these items are bought and in use, with what draft orders would bring of them. */
export const itemsToBuy = (db: Reader, ids: readonly number[]) =>
  db.all<ItemRow & { drafted: number }>(
    `SELECT i.*, ifnull((SELECT sum(l.quantity) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
         WHERE l.item_id = i.id AND o.state = 'draft'), 0) AS drafted
     FROM (${ITEM_SQL}) i WHERE i.id IN (SELECT value FROM json_each($1)) AND i.archived_at IS NULL AND i.source <> 'made'
     ORDER BY code COLLATE NOCASE`,
    [JSON.stringify(ids)],
  );

/** What suppliers ask for these items. */
export const offersFor = (db: Reader, ids: readonly number[]) =>
  db.all<OfferRow>(
    `SELECT p.item_id, p.supplier_id, s.code AS supplier_code, s.name AS supplier, p.code, p.price, p.pack, p.minimum, p.lead_days
     FROM item_supplier p JOIN supplier s ON s.id = p.supplier_id WHERE p.item_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );

/** Who brought each of these items last. */
export async function usualSuppliers(db: Reader, ids: readonly number[]): Promise<Map<number, number>> {
  const rows = await db.all<{ item_id: number; supplier_id: number }>(
    `SELECT l.item_id, o.supplier_id, max(o.id) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
     WHERE o.state <> 'draft' AND l.item_id IN (SELECT value FROM json_each($1)) GROUP BY l.item_id`,
    [JSON.stringify(ids)],
  );
  return new Map(rows.map(({ item_id, supplier_id }) => [item_id, supplier_id]));
}

/** Orders of customers, by the number and name that people know them by. */
export const orderNames = (db: Reader, ids: readonly number[]) =>
  db.all<{ id: number; number: string; customer: string }>(
    `SELECT o.id, o.number, c.name AS customer FROM sales_order o JOIN customer c ON c.id = o.customer_id
     WHERE o.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );
/** Builds by number and product. */
export const buildNames = (db: Reader, ids: readonly number[]) =>
  db.all<{ id: number; number: string; product: string }>(
    `SELECT b.id, b.number, i.name AS product FROM build b JOIN item i ON i.id = b.item_id
     WHERE b.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );
