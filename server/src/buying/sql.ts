import type { Mail, PurchaseLine, PurchaseOrder, PurchaseOrderRow } from '@yosegi/contract';
import { openOfLine, stateOfOrder } from '@yosegi/core/buying';
import { dayOf, isPast } from '@yosegi/core/days';
import { lineAmount, type Money, type Quantity, sumForText, ZERO } from '@yosegi/core/number';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, cursorAfter, page, readCursor } from '../db/pages.ts';
import { toMeasures } from '../items/index.ts';
import { announcedOf } from './announced.ts';
import { readLeads } from './leads.ts';

/** An order with its supplier and its people by name. */
export interface OrderRecord extends Omit<Row<'purchase_order'>, 'made_by' | 'sent_by'> {
  supplier_code: string;
  supplier: string;
  made_by: string;
  sent_by: string | null;
}

/** What a list shows of an order by itself: reading the rest of its columns took longer than finding it. */
type OrderHead = Pick<
  OrderRecord,
  'id' | 'number' | 'supplier_id' | 'supplier_code' | 'supplier' | 'state' | 'made_at' | 'version'
>;
const HEAD_SQL = `o.id, o.number, o.supplier_id, s.code AS supplier_code, s.name AS supplier, o.state, o.made_at, o.version`;

/** What the head of an order is worked out from. */
type LineFigures = Pick<
  Row<'purchase_order_line'>,
  'quantity' | 'price' | 'received' | 'closed' | 'open' | 'expected_on'
>;

/** A line joined with its item and unit. */
export interface OrderLineRecord
  extends Row<'purchase_order_line'>,
    Pick<Row<'item'>, 'code' | 'name' | 'barcode' | 'serial_pattern' | 'tracking' | 'home_bin_id'>,
    Pick<Row<'unit'>, 'decimals'> {
  unit: string;
  measures: string;
  lead_days: number | null;
}

const ORDER_COLUMNS = `o.id, o.number, o.supplier_id, s.code AS supplier_code, s.name AS supplier, o.state, o.wanted_on, o.remark, o.job_tag,
    o.reference, o.made_at, m.name AS made_by, o.sent_at, p.name AS sent_by, o.sent_how, o.confirmed_at, o.version`;
const ORDER_TABLES = `purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person m ON m.id = o.made_by
  LEFT JOIN person p ON p.id = o.sent_by`;

/** Whether a delivery of an order was announced and not received yet. */
const ANNOUNCED = `EXISTS (SELECT 1 FROM mail WHERE order_id = o.id AND kind = 'despatch-advice'
  AND document_id IS NULL) AS announced`;

/** What the heads of a page are worked out from, in one text: a row for every line would cost more than finding it. */
const FIGURES = `(SELECT json_group_array(json_array(quantity, price, received, closed, open, expected_on))
  FROM purchase_order_line WHERE order_id = o.id) AS figures`;
const figuresIn = (text: string): LineFigures[] =>
  (JSON.parse(text) as Figures[]).map(([quantity, price, received, closed, open, expected_on]) => ({
    quantity,
    price,
    received,
    closed,
    open,
    expected_on,
  }));
type Figures = [Quantity, Money, Quantity, number, Quantity, string | null];

const LINE_SQL = `
  SELECT l.*, i.code, i.name, u.code AS unit, u.decimals, i.barcode, i.serial_pattern, i.tracking, i.home_bin_id,
    (SELECT json_group_array(json_array(name, one)) FROM (
      SELECT name, quantity AS one FROM item_pack WHERE item_id = i.id
      UNION ALL SELECT name, one FROM unit_related WHERE unit_id = i.unit_id)) AS measures,
    (SELECT lead_days FROM item_supplier WHERE item_id = l.item_id AND supplier_id = o.supplier_id) AS lead_days
  FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
  JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id`;

export const orderRecord = async (db: Reader, id: number) =>
  found(await db.one<OrderRecord>(`SELECT ${ORDER_COLUMNS} FROM ${ORDER_TABLES} WHERE o.id = $1`, [id]));
export const orderLines = (db: Reader, orderIds: readonly number[]) =>
  db.all<OrderLineRecord>(
    `${LINE_SQL} WHERE l.order_id IN (SELECT value FROM json_each($1)) ORDER BY l.order_id, l.position`,
    [JSON.stringify(orderIds)],
  );

export const orderedOf = (line: Pick<LineFigures, 'quantity' | 'received' | 'closed'>) => ({
  ordered: line.quantity,
  received: line.received,
  closed: line.closed === 1,
});

/** What is still to come of a line: nothing of a draft or of what was cancelled. */
export const openOf = (state: OrderRecord['state'], line: OrderLineRecord): Quantity =>
  state === 'sent' || state === 'confirmed' ? openOfLine(orderedOf(line)) : ZERO;

const worthOfLine = (line: LineFigures, decimals: number) => lineAmount(line.quantity, line.price, decimals);

function headOf(order: OrderHead, lines: readonly LineFigures[], announced: boolean, today: string, decimals: number) {
  const state = stateOfOrder(order.state, lines.map(orderedOf));
  const days = lines.filter((line) => line.open > 0).flatMap((line) => line.expected_on ?? []);
  const expectedOn = days.sort()[0] ?? null;
  return {
    id: order.id,
    number: order.number,
    supplierId: order.supplier_id,
    supplierCode: order.supplier_code,
    supplier: order.supplier,
    state,
    worth: decimal(sumForText(lines.map((line) => worthOfLine(line, decimals)))),
    expectedOn,
    late: isPast(expectedOn, today),
    backOrder: state === 'partly-received',
    announced,
    madeAt: order.made_at,
    version: order.version,
  };
}

const OPEN_LINE = 'EXISTS (SELECT 1 FROM purchase_order_line l WHERE l.order_id = o.id AND l.open > 0';
const SHOWN: Record<QueryOf<'purchases'>['show'], string> = {
  all: '1',
  draft: "o.state = 'draft'",
  open: `(o.state = 'draft' OR ${OPEN_LINE}))`,
  late: `${OPEN_LINE} AND l.expected_on < $5)`,
  'back-order': `${OPEN_LINE}) AND EXISTS (SELECT 1 FROM purchase_order_line l WHERE l.order_id = o.id AND l.received > 0)`,
  over: `(o.state = 'cancelled' OR (o.state <> 'draft' AND NOT ${OPEN_LINE})))`,
};

/** How many orders are open, how many of them are drafts, and how many sent ones should have come or are on their way. */
export async function countOrders(db: Reader, today: string) {
  const counts = await db.one<{ open: number; drafts: number; late: number; announced: number }>(
    `SELECT count(*) AS open, ifnull(sum(state = 'draft'), 0) AS drafts, ifnull(sum(late AND NOT announced), 0) AS late,
       ifnull(sum(announced), 0) AS announced
     FROM (SELECT o.state, ${OPEN_LINE} AND l.expected_on < $1) AS late, ${ANNOUNCED} FROM purchase_order o
       WHERE ${SHOWN.open})`,
    [today],
  );
  return counts ?? { open: 0, drafts: 0, late: 0, announced: 0 };
}

/** How many orders have a line that should have come. */
export async function countLateOrders(db: Reader, today: string): Promise<number> {
  const sql = `SELECT count(*) AS late FROM purchase_order o WHERE ${OPEN_LINE} AND l.expected_on < $1)`;
  return (await db.one<{ late: number }>(sql, [today]))?.late ?? 0;
}

/** Finds a text in what people know an order by. */
const FOUND = `AND (o.number LIKE $3 ESCAPE '\\' OR o.reference LIKE $3 ESCAPE '\\' OR s.code LIKE $3 ESCAPE '\\'
  OR s.name LIKE $3 ESCAPE '\\'
  OR EXISTS (SELECT 1 FROM receipt r WHERE r.order_id = o.id AND r.delivery_note LIKE $3 ESCAPE '\\')
  OR EXISTS (SELECT 1 FROM purchase_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id
    AND (i.code LIKE $3 ESCAPE '\\' OR i.name LIKE $3 ESCAPE '\\')))`;

/** What each order sorts by: days that nobody knows come last, as if they were far off. */
const SORTS: Record<QueryOf<'purchases'>['sort'], string> = {
  made: 'o.id',
  due: "ifnull((SELECT min(expected_on) FROM purchase_order_line WHERE order_id = o.id AND open > 0), '9999')",
  supplier: 's.name COLLATE NOCASE',
  worth: '(SELECT ifnull(sum(1.0 * quantity * price), 0) FROM purchase_order_line WHERE order_id = o.id)',
};

/** Orders in the order asked for, the newest first among equals. */
export async function listOrders(db: Reader, query: QueryOf<'purchases'>, today: string) {
  const sort = SORTS[query.sort];
  const [key, id] = query.cursor ? readCursor(query.cursor) : [null, 0];
  const [beyond, direction] = query.down ? ['<', 'DESC'] : ['>', 'ASC'];
  const records = await db.all<OrderHead & { announced: number; figures: string; sort_key: string | number }>(
    `SELECT ${HEAD_SQL}, ${ANNOUNCED}, ${FIGURES}, ${sort} AS sort_key
     FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
     WHERE ($1 IS NULL OR ${sort} ${beyond} $1 OR (${sort} = $1 AND o.id < $6))
       AND ($2 = 0 OR o.supplier_id = $2) AND ${SHOWN[query.show]} AND $5 <> '' AND $3 <> '' ${query.q ? FOUND : ''}
     ORDER BY ${sort} ${direction}, o.id DESC LIMIT $4`,
    [key, query.supplierId ?? 0, containing(query.q ?? ''), query.limit + 1, today, id],
  );
  const shown = page(records, query.limit, (row) => cursorAfter(row.sort_key, row.id));
  const decimals = await currencyDecimals(db);
  const rows = shown.rows.map((order): PurchaseOrderRow => {
    const own = figuresIn(order.figures);
    return { ...headOf(order, own, order.announced === 1, today, decimals), lines: own.length };
  });
  return { rows, next: shown.next };
}

export async function readOrder(db: Reader, id: number, now: Date): Promise<PurchaseOrder> {
  const order = await orderRecord(db, id);
  const lines = await orderLines(db, [id]);
  const needs = await db.all<{ line_id: number; build_id: number; build: string; product: string; quantity: number }>(
    `SELECT n.line_id, n.build_id, b.number AS build, i.name AS product, n.quantity FROM purchase_need n
     JOIN purchase_order_line l ON l.id = n.line_id JOIN build b ON b.id = n.build_id JOIN item i ON i.id = b.item_id
     WHERE l.order_id = $1 ORDER BY b.id`,
    [id],
  );
  const forOrders = await db.all<{
    line_id: number;
    order_id: number;
    number: string;
    customer: string;
    quantity: number;
  }>(
    `SELECT n.line_id, n.order_id, o.number, c.name AS customer, n.quantity FROM purchase_for_order n
     JOIN purchase_order_line l ON l.id = n.line_id JOIN sales_order o ON o.id = n.order_id
     JOIN customer c ON c.id = o.customer_id WHERE l.order_id = $1 ORDER BY o.id`,
    [id],
  );
  const leads = await readLeads(db, order.supplier_id, dayOf(now));
  const receipts = await db.all<Omit<PurchaseOrder['receipts'][number], 'undone'> & { undone: number }>(
    `SELECT d.id, d.number, d.at, p.name AS person, r.delivery_note AS deliveryNote,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM receipt r JOIN document d ON d.id = r.document_id JOIN person p ON p.id = d.person_id
     WHERE r.order_id = $1 ORDER BY d.id`,
    [id],
  );
  const mail = await listMailOf(db, id);
  const announcedDelivery = await announcedOf(db, id, lines);
  const today = dayOf(now);
  const decimals = await currencyDecimals(db);
  return {
    ...headOf(order, lines, announcedDelivery !== null, today, decimals),
    remark: order.remark,
    jobTag: order.job_tag,
    reference: order.reference,
    wantedOn: order.wanted_on,
    madeBy: order.made_by,
    sentAt: order.sent_at,
    sentBy: order.sent_by,
    sentHow: order.sent_how,
    confirmedAt: order.confirmed_at,
    receipts: receipts.map((row) => ({ ...row, undone: row.undone === 1 })),
    mail,
    announcedDelivery,
    lines: lines.map(
      (line): PurchaseLine => ({
        id: line.id,
        itemId: line.item_id,
        code: line.code,
        name: line.name,
        unit: line.unit,
        decimals: line.decimals,
        measures: toMeasures(line.measures),
        tracking: line.tracking,
        serialPattern: line.serial_pattern,
        barcode: line.barcode,
        homeBinId: line.home_bin_id,
        supplierCode: line.supplier_code,
        quantity: decimal(line.quantity),
        price: decimal(line.price),
        worth: decimal(worthOfLine(line, decimals)),
        wantedOn: line.wanted_on,
        confirmedQuantity: decimalOrNull(line.confirmed_quantity),
        confirmedOn: line.confirmed_on,
        expectedOn: line.expected_on,
        late: line.open > 0 && isPast(line.expected_on, today),
        received: decimal(line.received),
        open: decimal(line.open),
        closed: line.closed === 1,
        statedLeadDays: line.lead_days,
        learntLead: leads.learntOf(line.item_id),
        lead: leads.leadOf(line.item_id, line.lead_days),
        orders: forOrders
          .filter((need) => need.line_id === line.id)
          .map(({ order_id: orderId, number, customer, quantity }) => ({
            ...{ orderId, number, customer },
            quantity: decimal(quantity),
          })),
        needs: needs
          .filter((need) => need.line_id === line.id)
          .map((need) => ({
            buildId: need.build_id,
            build: need.build,
            product: need.product,
            quantity: decimal(need.quantity),
          })),
      }),
    ),
  };
}

const MAIL_COLUMNS = `m.id, m.order_id AS orderId, o.number AS "order", s.name AS supplier, m.direction, m.kind, m.at, m.subject,
    d.number AS received`;
const MAIL_TABLES = `mail m JOIN purchase_order o ON o.id = m.order_id JOIN supplier s ON s.id = o.supplier_id
  LEFT JOIN document d ON d.id = m.document_id`;
const MAIL_SQL = `SELECT ${MAIL_COLUMNS} FROM ${MAIL_TABLES}`;
type MailRow = Omit<Mail, 'content'>;

const listMailOf = (db: Reader, orderId: number) =>
  db.all<MailRow>(`${MAIL_SQL} WHERE m.order_id = $1 ORDER BY m.id DESC LIMIT 100`, [orderId]);

export async function listMail(db: Reader, query: QueryOf<'mail'>) {
  const rows = await db.all<MailRow>(`${MAIL_SQL} WHERE m.id < $1 ORDER BY m.id DESC LIMIT $2`, [
    query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER,
    query.limit + 1,
  ]);
  return page(rows, query.limit, (row) => row.id);
}

export const readMail = async (db: Reader, id: number): Promise<Mail> =>
  found(await db.one<Mail>(`SELECT ${MAIL_COLUMNS}, m.content FROM ${MAIL_TABLES} WHERE m.id = $1`, [id]));

/** Keeps what was promised of a line. Being on time is measured by the first promise, not by the last excuse. */
export const keepPromise = (tx: Writer, lineId: number, quantity: Quantity, on: string | null) =>
  tx.run(
    `UPDATE purchase_order_line SET confirmed_quantity = $1,
         promised_on = iif(confirmed_on IS NULL, ifnull($2, promised_on), promised_on),
         confirmed_on = ifnull($2, confirmed_on), expected_on = ifnull($2, expected_on) WHERE id = $3`,
    [quantity, on, lineId],
  );

/** Keeps what is open of lines. */
export const setOpen = (tx: Writer, open: readonly (readonly [lineId: number, open: Quantity])[]) =>
  tx.run(
    'UPDATE purchase_order_line SET open = v.value ->> 1 FROM json_each($1) v WHERE purchase_order_line.id = v.value ->> 0',
    [JSON.stringify(open)],
  );
