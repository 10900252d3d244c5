import { type Need, required } from '@yosegi/core/definitions';
import { minus, type Percent, type Quantity, ZERO } from '@yosegi/core/number';
import { openOf, openPart, type Swap } from '@yosegi/core/orders';
import type { QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing } from '../db/pages.ts';

/** An order with its customer. */
export type OrderRecord = Row<'sales_order'> & {
  customer: string;
  discount: Percent;
  transport_days: number | null;
  person: string;
};

/** A line with what it sells, and its order's own state. */
export type OrderLineRecord = Row<'order_line'> &
  Pick<Row<'item'>, 'code' | 'name' | 'tracking'> &
  Pick<Row<'unit'>, 'decimals'> & { unit: string; revision: number | null };

/** A part with the decimals of its unit. */
export type OrderPartRecord = Row<'order_part'> & Pick<Row<'unit'>, 'decimals'>;

const ORDER_SQL = `
  SELECT o.*, c.name AS customer, c.discount, c.transport_days, p.name AS person
  FROM sales_order o JOIN customer c ON c.id = o.customer_id JOIN person p ON p.id = o.made_by`;
const LINE_SQL = `
  SELECT l.*, i.code, i.name, i.tracking, u.code AS unit, u.decimals, r.number AS revision
  FROM order_line l JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
  LEFT JOIN revision r ON r.id = l.revision_id`;
const PART_SQL = `
  SELECT p.*, u.decimals FROM order_part p JOIN item i ON i.id = p.item_id JOIN unit u ON u.id = i.unit_id`;

const among = (ids: readonly number[]) => [JSON.stringify(ids)];

export const orderRecord = (db: Reader, id: number) => db.one<OrderRecord>(`${ORDER_SQL} WHERE o.id = $1`, [id]);
/** Orders of one customer, the newest first. */
export const ordersOfCustomer = (db: Reader, customerId: number, most: number) =>
  db.all<OrderRecord>(`${ORDER_SQL} WHERE o.customer_id = $1 ORDER BY o.id DESC LIMIT $2`, [customerId, most]);

export const orderLines = (db: Reader, orderIds: readonly number[]) =>
  db.all<OrderLineRecord>(
    `${LINE_SQL} WHERE l.order_id IN (SELECT value FROM json_each($1)) ORDER BY l.order_id, l.position`,
    among(orderIds),
  );
export const orderParts = (db: Reader, lineIds: readonly number[]) =>
  db.all<OrderPartRecord>(
    `${PART_SQL} WHERE p.line_id IN (SELECT value FROM json_each($1)) ORDER BY p.line_id, p.position`,
    among(lineIds),
  );

const SHOWN: Record<QueryOf<'orders'>['show'], string> = {
  open: 'o.open = 1',
  quotes: "o.state = 'quote'",
  shipped: "o.state = 'confirmed' AND o.open = 0",
  cancelled: "o.state = 'cancelled'",
};
/** Finds a text in what people know an order by. */
const FOUND = `AND (o.number LIKE $1 ESCAPE '\\' OR o.reference LIKE $1 ESCAPE '\\' OR c.name LIKE $1 ESCAPE '\\'
  OR c.code LIKE $1 ESCAPE '\\' OR EXISTS (SELECT 1 FROM order_line l JOIN item i ON i.id = l.item_id
    WHERE l.order_id = o.id AND (i.code LIKE $1 ESCAPE '\\' OR i.name LIKE $1 ESCAPE '\\')))`;

/** One more than a page of orders: open ones by the day they are wanted, others the newest first. */
export function listRecords(db: Reader, { show, q, cursor, limit }: QueryOf<'orders'>): Promise<OrderRecord[]> {
  const [day = '', id = '0'] = cursor?.split('|') ?? [];
  const found = q ? FOUND : "AND $1 <> ''";
  if (show === 'open')
    return db.all<OrderRecord>(
      `${ORDER_SQL} WHERE ${SHOWN.open} ${found} AND (ifnull(o.wanted_on, '9999'), o.id) > ($2, $3)
       ORDER BY ifnull(o.wanted_on, '9999'), o.id LIMIT $4`,
      [containing(q ?? ''), day, Number(id), limit + 1],
    );
  return db.all<OrderRecord>(`${ORDER_SQL} WHERE ${SHOWN[show]} ${found} AND o.id < $2 ORDER BY o.id DESC LIMIT $3`, [
    containing(q ?? ''),
    cursor ? Number(id) : Number.MAX_SAFE_INTEGER,
    limit + 1,
  ]);
}

export const cursorOf = ({ wanted_on, id }: OrderRecord) => `${wanted_on ?? '9999'}|${id}`;

export const needOf = ({ basis, amount, waste, decimals }: OrderPartRecord): Need => ({
  basis,
  quantity: amount,
  waste,
  decimals,
});
/** What the whole of a line takes of a part. */
export const requiredOf = (part: OrderPartRecord, line: Row<'order_line'>): Quantity =>
  required(needOf(part), minus(line.quantity, line.dropped), line.output_quantity);

/** What a revision lists as alternates of its parts, by the part's position, the best first. */
export async function alternatesOf(db: Reader, revisionId: number): Promise<ReadonlyMap<number, readonly Swap[]>> {
  const rows = await db.all<{ position: number; item_id: number; ratio: Quantity }>(
    `SELECT l.position, a.item_id, a.ratio FROM revision_line l JOIN revision_line_alternate a ON a.line_id = l.id
     JOIN item i ON i.id = a.item_id WHERE l.revision_id = $1 AND i.archived_at IS NULL ORDER BY l.position, a.position`,
    [revisionId],
  );
  const swaps = new Map<number, Swap[]>();
  for (const { position, item_id, ratio } of rows)
    swaps.set(position, [...(swaps.get(position) ?? []), { itemId: item_id, ratio }]);
  return swaps;
}

/** Keeps beside each part what it still takes from shelves, and with the order whether anything is open. */
export async function keepOpen(tx: Writer, orderId: number): Promise<void> {
  const order = await tx.models.sales_order.findByPk(orderId, { rejectOnEmpty: true });
  const lines = await orderLines(tx, [orderId]);
  const byId = new Map(lines.map((line) => [line.id, line]));
  const parts = await orderParts(
    tx,
    lines.map(({ id }) => id),
  );
  const kept = parts.map((part) => {
    const line = byId.get(part.line_id) as OrderLineRecord;
    return [part.id, openPart(order.state, needOf(part), line, line.output_quantity, ZERO)];
  });
  await tx.run('UPDATE order_part SET open = v.value ->> 1 FROM json_each($1) v WHERE order_part.id = v.value ->> 0', [
    JSON.stringify(kept),
  ]);
  const open = order.state === 'confirmed' && lines.some((line) => openOf(line) > 0) ? 1 : 0;
  await tx.run('UPDATE sales_order SET open = $1 WHERE id = $2', [open, orderId]);
}

/** Adds what was shipped of lines and of their parts, or takes it off again where it is below zero. */
export async function addShipped(
  tx: Writer,
  lines: ReadonlyMap<number, number>,
  parts: ReadonlyMap<number, number>,
): Promise<void> {
  const add = (table: 'order_line' | 'order_part') =>
    `UPDATE ${table} SET shipped = shipped + (v.value ->> 1) FROM json_each($1) v WHERE ${table}.id = v.value ->> 0`;
  await tx.run(add('order_line'), [JSON.stringify([...lines])]);
  await tx.run(add('order_part'), [JSON.stringify([...parts])]);
}

/** What was shipped of an order, the newest first. */
export const shipmentsOf = (db: Reader, orderId: number) =>
  db.all<{
    id: number;
    number: string;
    at: string;
    person: string;
    carrier: string;
    tracking: string;
    undone: 0 | 1;
  }>(
    `SELECT d.id, d.number, d.at, p.name AS person, s.carrier, s.tracking,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM shipment s JOIN document d ON d.id = s.document_id JOIN person p ON p.id = d.person_id
     WHERE s.order_id = $1 ORDER BY d.id DESC`,
    [orderId],
  );

/** What the shipments that stand did cost, by line. */
export async function costsOf(db: Reader, orderId: number): Promise<ReadonlyMap<number, number>> {
  const rows = await db.all<{ line_id: number; cost: number }>(
    `SELECT l.line_id, sum(l.cost) AS cost FROM shipment s JOIN shipment_line l ON l.document_id = s.document_id
     WHERE s.order_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = s.document_id)
     GROUP BY l.line_id`,
    [orderId],
  );
  return new Map(rows.map(({ line_id, cost }) => [line_id, cost]));
}

/** The numbers that people know orders and builds by. */
export const numbersOf = (db: Reader, sources: readonly { readonly kind: string; readonly id: number }[]) =>
  db.all<{ kind: 'order' | 'build'; id: number; number: string }>(
    `SELECT n.kind, n.id, n.number FROM json_each($1) v JOIN numbered n ON n.kind = v.value ->> 0 AND n.id = v.value ->> 1`,
    [JSON.stringify(sources.map(({ kind, id }) => [kind, id]))],
  );
