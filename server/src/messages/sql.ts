import type { ShopOrder } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing } from '../db/pages.ts';
import { STANDS } from '../ledger/index.ts';

/** Items by any of their names that were said: code or barcode, in small letters. */
export async function itemsByName(db: Reader, names: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows = await db.all<{ name: string; id: number }>(
    `SELECT lower(v.value) AS name, i.id FROM json_each($1) v
     JOIN item i ON i.code = v.value COLLATE NOCASE OR (i.barcode IS NOT NULL AND i.barcode = v.value)
     WHERE v.value <> '' ORDER BY i.archived_at IS NOT NULL`,
    [JSON.stringify(names)],
  );
  const known = new Map<string, number>();
  for (const { name, id } of rows) if (!known.has(name)) known.set(name, id);
  return known;
}

/** The order of a customer that they call by a number of theirs, unless it was cancelled with all that was split off it. */
export const theirOrder = (db: Reader, customerId: number, theirs: string) =>
  db.one<Pick<Row<'sales_order'>, 'id' | 'number'>>(
    `SELECT id, number FROM sales_order WHERE customer_id = $1 AND reference = $2 AND came_by = 'message'
       AND (state <> 'cancelled'
         OR EXISTS (SELECT 1 FROM sales_order s WHERE s.split_from_id = sales_order.id AND s.state <> 'cancelled'))
     ORDER BY id DESC LIMIT 1`,
    [customerId, theirs],
  );

/** What was split off an order, and is not cancelled. */
export const splitOff = (db: Reader, orderId: number) =>
  db.all<Pick<Row<'sales_order'>, 'id' | 'number' | 'state'>>(
    'SELECT id, number, state FROM sales_order WHERE split_from_id = $1 ORDER BY id',
    [orderId],
  );

/** A code that no customer has yet. */
export async function freeCode(db: Reader): Promise<string> {
  const last = await db.one<{ id: number }>('SELECT ifnull(max(id), 0) AS id FROM customer');
  const base = `WEB-${(last?.id ?? 0) + 1}`;
  const taken = await db.all<{ code: string }>("SELECT code FROM customer WHERE code LIKE $1 ESCAPE '\\'", [
    containing('WEB-').slice(1),
  ]);
  const codes = new Set(taken.map(({ code }) => code.toUpperCase()));
  let code = base;
  for (let n = 2; codes.has(code); n += 1) code = `${base}-${n}`;
  return code;
}

/** The most products and orders that the shop shows. */
const MOST_SHOWN = 60;

/** What the shop sells, where it has a price: what is made. */
export const soldInShop = (db: Reader) =>
  db.all<{ itemId: number; code: string; name: string; unit: string }>(
    `SELECT i.id AS itemId, i.code, i.name, u.code AS unit FROM item i JOIN unit u ON u.id = i.unit_id
     WHERE i.archived_at IS NULL
       AND EXISTS (SELECT 1 FROM definition d WHERE d.item_id = i.id AND d.purpose = 'build')
     ORDER BY i.name COLLATE NOCASE LIMIT ${MOST_SHOWN}`,
  );

/** What was sent in by message, the newest first. */
export const sentIn = (db: Reader) =>
  db.all<Pick<Row<'sales_order'>, 'id'>>(
    `SELECT id FROM sales_order WHERE came_by = 'message' ORDER BY id DESC LIMIT ${MOST_SHOWN}`,
  );

export const messagesOf = (db: Reader, orderIds: readonly number[]) =>
  db.all<ShopOrder['messages'][number] & Pick<Row<'order_message'>, 'content'> & { orderId: number }>(
    `SELECT order_id AS orderId, kind, at, content FROM order_message
     WHERE order_id IN (SELECT value FROM json_each($1)) ORDER BY id`,
    [JSON.stringify(orderIds)],
  );

/** Shipments of orders that stand. */
export const shipmentsIn = (db: Reader, orderIds: readonly number[]) =>
  db.all<{ id: number; number: string; tracking: string; orderId: number }>(
    `SELECT d.id, d.number, s.tracking, s.order_id AS orderId FROM shipment s JOIN document d ON d.id = s.document_id
     WHERE s.order_id IN (SELECT value FROM json_each($1)) AND ${STANDS} ORDER BY d.id DESC`,
    [JSON.stringify(orderIds)],
  );
