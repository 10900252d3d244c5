import { type Need, required } from '@yosegi/core/definitions';
import type { Pegged } from '@yosegi/core/demand';
import { minus, type Percent, type Quantity } from '@yosegi/core/number';
import { openOf, openPart, type Swap } from '@yosegi/core/orders';
import type { QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing } from '../db/pages.ts';
import { trimBuilt } from './built.sql.ts';

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
  Pick<Row<'unit'>, 'decimals'> & {
    unit: string;
    revision: number | null;
    /** What a kit's papers show, and the revision of it that is in use now; null for what is stocked itself. */
    paperwork: Row<'definition'>['paperwork'] | null;
    in_use: number | null;
  };

/** A part with the decimals of its unit. */
export type OrderPartRecord = Row<'order_part'> & Pick<Row<'unit'>, 'decimals'>;

const ORDER_SQL = `
  SELECT o.*, c.name AS customer, c.discount, c.transport_days, p.name AS person
  FROM sales_order o JOIN customer c ON c.id = o.customer_id JOIN person p ON p.id = o.made_by`;
const LINE_SQL = `
  SELECT l.*, i.code, i.name, i.tracking, u.code AS unit, u.decimals, r.number AS revision,
    (SELECT paperwork FROM definition WHERE id = r.definition_id) AS paperwork,
    (SELECT number FROM revision WHERE definition_id = r.definition_id AND state = 'in-use') AS in_use
  FROM order_line l JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
  LEFT JOIN revision r ON r.id = l.revision_id`;
const PART_SQL = `
  SELECT p.*, u.decimals FROM order_part p JOIN item i ON i.id = p.item_id JOIN unit u ON u.id = i.unit_id`;

const among = (ids: readonly number[]) => [JSON.stringify(ids)];

export const orderRecord = (db: Reader, id: number) => db.one<OrderRecord>(`${ORDER_SQL} WHERE o.id = $1`, [id]);
/** Orders by id. */
export const orderRecords = (db: Reader, ids: readonly number[]) =>
  db.all<OrderRecord>(`${ORDER_SQL} WHERE o.id IN (SELECT value FROM json_each($1)) ORDER BY o.id`, among(ids));
/** Orders of one customer, the newest first. */
export const ordersOfCustomer = (db: Reader, customerId: number, most: number) =>
  db.all<OrderRecord>(`${ORDER_SQL} WHERE o.customer_id = $1 ORDER BY o.id DESC LIMIT $2`, [customerId, most]);

export const orderLines = (db: Reader, orderIds: readonly number[]) =>
  db.all<OrderLineRecord>(
    `${LINE_SQL} WHERE l.order_id IN (SELECT value FROM json_each($1)) ORDER BY l.order_id, l.position`,
    among(orderIds),
  );
export const lineById = (db: Reader, id: number) => db.one<OrderLineRecord>(`${LINE_SQL} WHERE l.id = $1`, [id]);
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

/** Every order of which something is open, by the day it is wanted. */
export const openRecords = (db: Reader) =>
  db.all<OrderRecord>(`${ORDER_SQL} WHERE ${SHOWN.open} ORDER BY ifnull(o.wanted_on, '9999'), o.id`);

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

/** What stands in for parts of a kit, by the part's position, the best first. */
type Swaps = ReadonlyMap<number, readonly Swap[]>;

/** What revisions list as alternates of their parts, by revision. */
export async function alternatesOf(db: Reader, revisionIds: readonly number[]): Promise<(revisionId: number) => Swaps> {
  const rows = await db.all<{ revision_id: number; position: number; item_id: number; ratio: Quantity }>(
    `SELECT l.revision_id, l.position, a.item_id, a.ratio FROM revision_line l
     JOIN revision_line_alternate a ON a.line_id = l.id JOIN item i ON i.id = a.item_id
     WHERE l.revision_id IN (SELECT value FROM json_each($1)) AND i.archived_at IS NULL ORDER BY l.position, a.position`,
    [JSON.stringify(revisionIds)],
  );
  const known = new Map<number, Map<number, Swap[]>>();
  for (const { revision_id, position, item_id, ratio } of rows) {
    const own = known.get(revision_id) ?? new Map<number, Swap[]>();
    known.set(revision_id, own.set(position, [...(own.get(position) ?? []), { itemId: item_id, ratio }]));
  }
  return (revisionId) => known.get(revisionId) ?? new Map();
}

/**
 * Keeps beside each part what it still takes from shelves, and with the order whether anything is open or in a parcel.
 * What is built for a part is never more than it still needs.
 */
export async function keepOpen(tx: Writer, orderId: number): Promise<void> {
  const order = await tx.models.sales_order.findByPk(orderId, { rejectOnEmpty: true });
  const lines = await orderLines(tx, [orderId]);
  const byId = new Map(lines.map((line) => [line.id, line]));
  const parts = await orderParts(
    tx,
    lines.map(({ id }) => id),
  );
  const kept = parts.map((part): [number, Quantity] => {
    const line = byId.get(part.line_id) as OrderLineRecord;
    return [part.id, openPart(order.state, needOf(part), line, line.output_quantity, part.packed)];
  });
  await tx.run('UPDATE order_part SET open = v.value ->> 1 FROM json_each($1) v WHERE order_part.id = v.value ->> 0', [
    JSON.stringify(kept),
  ]);
  const open = order.state === 'confirmed' && lines.some((line) => openOf(line) > 0) ? 1 : 0;
  const packing = parts.some(({ packed }) => packed > 0) ? 1 : 0;
  await tx.run('UPDATE sales_order SET open = $1, packing = $2 WHERE id = $3', [open, packing, orderId]);
  await trimBuilt(tx, new Map(kept));
}

/** What was done with a part, or undone where it is below zero. */
export interface PartChange {
  readonly shipped: number;
  readonly packed: number;
}

/** Adds what was shipped of lines, or takes it off again where it is below zero. */
export const addShipped = (tx: Writer, lines: ReadonlyMap<number, number>) =>
  tx.run(
    `UPDATE order_line SET shipped = shipped + (v.value ->> 1) FROM json_each($1) v WHERE order_line.id = v.value ->> 0`,
    [JSON.stringify([...lines])],
  );

/** The same of what leaves for them, and of what stands in a parcel for it. */
export const changeParts = (tx: Writer, parts: ReadonlyMap<number, PartChange>) =>
  tx.run(
    `UPDATE order_part SET shipped = shipped + (v.value ->> 1), packed = packed + (v.value ->> 2)
     FROM json_each($1) v WHERE order_part.id = v.value ->> 0`,
    [JSON.stringify([...parts].map(([id, { shipped, packed }]) => [id, shipped, packed]))],
  );

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

/** A purchase order or a build that brings something, by what pegging calls it. */
export interface Brings {
  readonly kind: 'purchase' | 'build';
  readonly id: number;
  readonly number: string;
}

/** What brings the rest of parts, by its kind and what pegging knows it by: the line of a purchase order, or a build. */
export async function namesOfComing(db: Reader, pegging: readonly Pegged[]): Promise<ReadonlyMap<string, Brings>> {
  const from = pegging.flatMap(({ given }) => given.map(({ supply }) => supply.from));
  const ids = (kind: string) => JSON.stringify(from.flatMap((one) => (one.kind === kind ? one.id : [])));
  const rows = await db.all<Brings & { key: number }>(
    `SELECT 'purchase' AS kind, l.id AS key, o.id, o.number FROM purchase_order_line l
       JOIN purchase_order o ON o.id = l.order_id WHERE l.id IN (SELECT value FROM json_each($1))
     UNION ALL SELECT 'build', id, id, number FROM build WHERE id IN (SELECT value FROM json_each($2))`,
    [ids('purchase'), ids('build')],
  );
  return new Map(rows.map(({ key, ...brings }) => [`${brings.kind}:${key}`, brings]));
}

/** Which of some items a bill of materials in use makes ahead. */
export async function buildable(db: Reader, itemIds: readonly number[]): Promise<ReadonlySet<number>> {
  const rows = await db.all<{ item_id: number }>(
    `SELECT d.item_id FROM definition d JOIN revision r ON r.definition_id = d.id AND r.state = 'in-use'
     WHERE d.purpose = 'build' AND d.made = 'ahead' AND d.item_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(itemIds)],
  );
  return new Set(rows.map(({ item_id }) => item_id));
}

/** The lines that parts leave for, by part. */
export const linesOfParts = (db: Reader, partIds: readonly number[]) =>
  db.all<Row<'order_line'> & { part_id: number }>(
    `SELECT l.*, p.id AS part_id FROM order_part p JOIN order_line l ON l.id = p.line_id
     WHERE p.id IN (SELECT value FROM json_each($1))`,
    among(partIds),
  );

/** Whose order they were posted for, of these documents. */
export async function orderParties(db: Reader, documentIds: readonly number[]): Promise<ReadonlyMap<number, string>> {
  const rows = await db.all<{ id: number; name: string }>(
    `SELECT d.id, c.name FROM document d JOIN sales_order o ON o.id = d.for_id JOIN customer c ON c.id = o.customer_id
     WHERE d.for_kind = 'order' AND d.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(documentIds)],
  );
  return new Map(rows.map(({ id, name }) => [id, name]));
}
