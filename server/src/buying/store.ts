import type { Mail, PurchaseLine, PurchaseOrder, PurchaseOrderRow } from '@yosegi/contract';
import { learnLead, openOfLine, stateOfOrder } from '@yosegi/core/buying';
import { type Money, type Quantity, sumForText, worthForText } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { dayOf, found } from '../http/context.ts';
import { containing, page } from '../http/pages.ts';
import { toMeasures } from '../items/store.ts';
import { announcedOf } from './announced.ts';
import { deliveriesOf } from './leads.ts';

export interface OrderRecord {
  id: number;
  number: string;
  supplier_id: number;
  supplier_code: string;
  supplier: string;
  state: 'draft' | 'sent' | 'confirmed' | 'cancelled';
  wanted_on: string | null;
  remark: string;
  reference: string;
  made_at: string;
  made_by: string;
  sent_at: string | null;
  sent_by: string | null;
  sent_how: PurchaseOrder['sentHow'];
  confirmed_at: string | null;
  version: number;
}

/** What the head of an order is worked out from. */
interface LineFigures {
  order_id: number;
  quantity: number;
  price: number;
  received: number;
  closed: number;
  open: number;
  expected_on: string | null;
}

export interface OrderLineRecord extends LineFigures {
  id: number;
  position: number;
  item_id: number;
  code: string;
  name: string;
  unit: string;
  decimals: number;
  measures: string;
  barcode: string | null;
  serial_pattern: string | null;
  tracking: PurchaseLine['tracking'];
  home_bin_id: number | null;
  supplier_code: string;
  wanted_on: string | null;
  confirmed_quantity: number | null;
  confirmed_on: string | null;
  lead_days: number | null;
}

const ORDER_SQL = `
  SELECT o.id, o.number, o.supplier_id, s.code AS supplier_code, s.name AS supplier, o.state, o.wanted_on, o.remark, o.reference,
    o.made_at, m.name AS made_by, o.sent_at, p.name AS sent_by, o.sent_how, o.confirmed_at, o.version
  FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person m ON m.id = o.made_by
  LEFT JOIN person p ON p.id = o.sent_by`;

/** Whether a delivery of an order was announced and not received yet. */
const ANNOUNCED = `o.version, EXISTS (SELECT 1 FROM mail WHERE order_id = o.id AND kind = 'despatch-advice'
  AND document_id IS NULL) AS announced`;

const LINE_SQL = `
  SELECT l.*, i.code, i.name, u.code AS unit, u.decimals, i.barcode, i.serial_pattern, i.tracking, i.home_bin_id,
    (SELECT json_group_array(json_array(name, one)) FROM (
      SELECT name, quantity AS one FROM item_pack WHERE item_id = i.id
      UNION ALL SELECT name, one FROM unit_related WHERE unit_id = i.unit_id)) AS measures,
    (SELECT lead_days FROM item_supplier WHERE item_id = l.item_id AND supplier_id = o.supplier_id) AS lead_days
  FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
  JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id`;

export const orderRecord = async (db: Reader, id: number) =>
  found(await db.one<OrderRecord>(`${ORDER_SQL} WHERE o.id = $1`, [id]));
export const orderLines = (db: Reader, orderIds: readonly number[]) =>
  db.all<OrderLineRecord>(
    `${LINE_SQL} WHERE l.order_id IN (SELECT value FROM json_each($1)) ORDER BY l.order_id, l.position`,
    [JSON.stringify(orderIds)],
  );

export const orderedOf = (line: Pick<LineFigures, 'quantity' | 'received' | 'closed'>) => ({
  ordered: line.quantity as Quantity,
  received: line.received as Quantity,
  closed: line.closed === 1,
});

/** What is still to come of a line: nothing of a draft or of what was cancelled. */
export const openOf = (state: OrderRecord['state'], line: OrderLineRecord): Quantity =>
  state === 'sent' || state === 'confirmed' ? openOfLine(orderedOf(line)) : (0 as Quantity);

const worthOfLine = (line: LineFigures) => worthForText(line.quantity as Quantity, line.price as Money);

function headOf(order: OrderRecord, lines: readonly LineFigures[], announced: boolean, today: string) {
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
    worth: decimal(sumForText(lines.map(worthOfLine))),
    expectedOn,
    late: expectedOn !== null && expectedOn < today,
    backOrder: state === 'partly-received',
    announced,
    madeAt: order.made_at,
    version: order.version,
  };
}

interface OrderQuery {
  readonly show: 'open' | 'draft' | 'late' | 'back-order' | 'over' | 'all';
  readonly supplierId?: number | undefined;
  readonly q?: string | undefined;
  readonly cursor?: string | undefined;
  readonly limit: number;
}

const OPEN_LINE = 'EXISTS (SELECT 1 FROM purchase_order_line l WHERE l.order_id = o.id AND l.open > 0';
const SHOWN: Record<OrderQuery['show'], string> = {
  all: '1',
  draft: "o.state = 'draft'",
  open: `(o.state = 'draft' OR ${OPEN_LINE}))`,
  late: `${OPEN_LINE} AND l.expected_on < $5)`,
  'back-order': `${OPEN_LINE}) AND EXISTS (SELECT 1 FROM purchase_order_line l WHERE l.order_id = o.id AND l.received > 0)`,
  over: `(o.state = 'cancelled' OR (o.state <> 'draft' AND NOT ${OPEN_LINE})))`,
};

/** Orders, the newest first. */
export async function listOrders(db: Reader, query: OrderQuery, today: string) {
  const records = await db.all<OrderRecord & { announced: number }>(
    `${ORDER_SQL.replace('o.version', ANNOUNCED)} WHERE o.id < $1 AND ($2 = 0 OR o.supplier_id = $2) AND ${SHOWN[query.show]} AND $5 <> ''
       AND ($3 = '%%' OR o.number LIKE $3 ESCAPE '\\' OR o.reference LIKE $3 ESCAPE '\\' OR s.code LIKE $3 ESCAPE '\\'
         OR s.name LIKE $3 ESCAPE '\\'
         OR EXISTS (SELECT 1 FROM receipt r WHERE r.order_id = o.id AND r.delivery_note LIKE $3 ESCAPE '\\')
         OR EXISTS (SELECT 1 FROM purchase_order_line l JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id
           AND (i.code LIKE $3 ESCAPE '\\' OR i.name LIKE $3 ESCAPE '\\')))
     ORDER BY o.id DESC LIMIT $4`,
    [
      query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER,
      query.supplierId ?? 0,
      containing(query.q ?? ''),
      query.limit + 1,
      today,
    ],
  );
  const shown = page(records, query.limit, (row) => row.id);
  const ids = shown.rows.map(({ id }) => id);
  const figures = await db.all<LineFigures>(
    `SELECT order_id, quantity, price, received, closed, open, expected_on FROM purchase_order_line
     WHERE order_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );
  const lines = new Map<number, LineFigures[]>(ids.map((id) => [id, []]));
  for (const line of figures) lines.get(line.order_id)?.push(line);
  const rows = shown.rows.map((order): PurchaseOrderRow => {
    const own = lines.get(order.id) ?? [];
    return { ...headOf(order, own, order.announced === 1, today), lines: own.length };
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
  const deliveries = await deliveriesOf(
    db,
    order.supplier_id,
    lines.map((line) => line.item_id),
  );
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
  return {
    ...headOf(order, lines, announcedDelivery !== null, today),
    remark: order.remark,
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
        worth: decimal(worthOfLine(line)),
        wantedOn: line.wanted_on,
        confirmedQuantity: decimalOrNull(line.confirmed_quantity),
        confirmedOn: line.confirmed_on,
        expectedOn: line.expected_on,
        late: line.open > 0 && line.expected_on !== null && line.expected_on < today,
        received: decimal(line.received),
        open: decimal(line.open),
        closed: line.closed === 1,
        statedLeadDays: line.lead_days,
        learntLead: learnLead(deliveries.get(line.item_id) ?? []),
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

const MAIL_SQL = `
  SELECT m.id, m.order_id AS orderId, o.number AS "order", s.name AS supplier, m.direction, m.kind, m.at, m.subject,
    d.number AS received
  FROM mail m JOIN purchase_order o ON o.id = m.order_id JOIN supplier s ON s.id = o.supplier_id
  LEFT JOIN document d ON d.id = m.document_id`;
type MailRow = Omit<Mail, 'content'>;

const listMailOf = (db: Reader, orderId: number) =>
  db.all<MailRow>(`${MAIL_SQL} WHERE m.order_id = $1 ORDER BY m.id DESC LIMIT 100`, [orderId]);

export async function listMail(db: Reader, query: { cursor?: string | undefined; limit: number }) {
  const rows = await db.all<MailRow>(`${MAIL_SQL} WHERE m.id < $1 ORDER BY m.id DESC LIMIT $2`, [
    query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER,
    query.limit + 1,
  ]);
  return page(rows, query.limit, (row) => row.id);
}

export const readMail = async (db: Reader, id: number): Promise<Mail> =>
  found(await db.one<Mail>(`${MAIL_SQL.replace('m.subject,', 'm.subject, m.content,')} WHERE m.id = $1`, [id]));
