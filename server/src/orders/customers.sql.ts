import type { CustomerRow } from '@yosegi/contract';
import { lineAmount, type Money, type Quantity, sumForText } from '@yosegi/core/number';
import { decimal } from '../command/amounts.ts';
import type { QueryOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, page } from '../db/pages.ts';

type CustomerRecord = Row<'customer'> & { open_orders: number };

const CUSTOMER_SQL = `SELECT c.*, (SELECT count(*) FROM sales_order WHERE customer_id = c.id AND open = 1) AS open_orders
  FROM customer c`;

export const toCustomer = (row: CustomerRecord): CustomerRow => ({
  id: row.id,
  code: row.code,
  name: row.name,
  contact: row.contact,
  email: row.email,
  phone: row.phone,
  discount: decimal(row.discount),
  archived: row.archived_at !== null,
  openOrders: row.open_orders,
  version: row.version,
});

export const customerRecord = (db: Reader, id: number) =>
  db.one<CustomerRecord>(`${CUSTOMER_SQL} WHERE c.id = $1`, [id]);

/** Customers by name, found by any part of name, code or contact. */
export async function listCustomers(db: Reader, { q, show, cursor, limit }: QueryOf<'customers'>) {
  const [name = '', id = '0'] = cursor?.split('\n') ?? [];
  const rows = await db.all<CustomerRecord>(
    `${CUSTOMER_SQL} WHERE c.archived_at IS ${show === 'archived' ? 'NOT NULL' : 'NULL'}
       AND (c.name LIKE $1 ESCAPE '\\' OR c.code LIKE $1 ESCAPE '\\' OR c.contact LIKE $1 ESCAPE '\\')
       AND (c.name > $2 COLLATE NOCASE OR (c.name = $2 COLLATE NOCASE AND c.id > $3))
     ORDER BY c.name COLLATE NOCASE, c.id LIMIT $4`,
    [containing(q ?? ''), name, Number(id), limit + 1],
  );
  const shown = page(rows, limit, (row) => `${row.name}\n${row.id}`);
  return { rows: shown.rows.map(toCustomer), next: shown.next };
}

/** The most different items that are listed as what somebody usually takes. */
const MOST_USUAL = 12;

/** What a customer has ordered most often, quotes and what was cancelled left out. */
export async function usualOf(db: Reader, customerId: number) {
  const rows = await db.all<{
    itemId: number;
    code: string;
    name: string;
    unit: string;
    quantity: Quantity;
    orders: number;
  }>(
    `SELECT i.id AS itemId, i.code, i.name, u.code AS unit, sum(l.quantity - l.dropped) AS quantity,
       count(DISTINCT o.id) AS orders
     FROM sales_order o JOIN order_line l ON l.order_id = o.id JOIN item i ON i.id = l.item_id
     JOIN unit u ON u.id = i.unit_id
     WHERE o.customer_id = $1 AND o.state = 'confirmed' GROUP BY i.id ORDER BY orders DESC, quantity DESC LIMIT $2`,
    [customerId, MOST_USUAL],
  );
  return rows.map((row) => ({ ...row, quantity: decimal(row.quantity) }));
}

/** The most shipments to one customer that their sheet lists. */
const MOST_SHIPMENTS = 50;

/** What has left for a customer and stands, the newest first, with what it brought and cost. */
export async function shipmentsTo(db: Reader, customerId: number) {
  const shipments = await db.all<{
    id: number;
    number: string;
    at: string;
    orderId: number;
    order: string;
    carrier: string;
    tracking: string;
  }>(
    `SELECT d.id, d.number, d.at, o.id AS orderId, o.number AS "order", s.carrier, s.tracking FROM sales_order o
     JOIN shipment s ON s.order_id = o.id JOIN document d ON d.id = s.document_id
     WHERE o.customer_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
     ORDER BY d.id DESC LIMIT ${MOST_SHIPMENTS}`,
    [customerId],
  );
  const lines = await db.all<{ document_id: number; quantity: Quantity; price: Money; cost: Money }>(
    `SELECT document_id, quantity, price, cost FROM shipment_line WHERE document_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(shipments.map(({ id }) => id))],
  );
  const decimals = await currencyDecimals(db);
  return shipments.map((shipment) => {
    const own = lines.filter(({ document_id }) => document_id === shipment.id);
    return {
      ...shipment,
      sold: decimal(sumForText(own.map(({ quantity, price }) => lineAmount(quantity, price, decimals)))),
      cost: decimal(sumForText(own.map(({ cost }) => cost))),
    };
  });
}
