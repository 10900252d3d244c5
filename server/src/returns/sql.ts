import type { Money, Quantity } from '@yosegi/core/number';
import type { LeftHeap, ReturnState, SentBack, SentLine } from '@yosegi/core/returns';
import type { QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, page } from '../db/pages.ts';

/** A return with its customer and where it is. */
export interface ReturnRecord extends Row<'goods_return'> {
  customer: string;
  person: string;
  state: ReturnState;
  /** Things that nobody has decided about. */
  waiting: number;
}

const SQL = `SELECT r.*, c.name AS customer, p.name AS person,
    (SELECT count(*) FROM return_standing s WHERE s.return_id = r.id AND s.quantity > s.settled) AS waiting,
    CASE WHEN r.called_off IS NOT NULL THEN 'called-off' WHEN r.document_id IS NULL THEN 'announced'
      WHEN EXISTS (SELECT 1 FROM return_standing s WHERE s.return_id = r.id AND s.quantity > s.settled) THEN 'waiting'
      ELSE 'settled' END AS state
  FROM goods_return r JOIN customer c ON c.id = r.customer_id JOIN person p ON p.id = r.made_by`;

export const returnRecord = (db: Reader, id: number) =>
  db.one<ReturnRecord>(`SELECT * FROM (${SQL}) WHERE id = $1`, [id]);
/** Returns by id. */
export const returnRecords = (db: Reader, ids: readonly number[]) =>
  db.all<ReturnRecord>(`SELECT * FROM (${SQL}) WHERE id IN (SELECT value FROM json_each($1)) ORDER BY id`, [
    JSON.stringify(ids),
  ]);

/** A page of returns: those that wait by how long, others the newest first. */
export async function listRecords(db: Reader, query: QueryOf<'returns'>) {
  const isWaiting = query.state === 'waiting';
  const rows = await db.all<ReturnRecord>(
    `SELECT * FROM (${SQL}) r WHERE ($1 = '' OR state = $1) AND ($2 IS NULL OR customer_id = $2)
       AND (number LIKE $3 ESCAPE '\\' OR customer LIKE $3 ESCAPE '\\' OR EXISTS (SELECT 1 FROM return_line l
         JOIN order_line o ON o.id = l.line_id JOIN item i ON i.id = o.item_id JOIN sales_order s ON s.id = o.order_id
         WHERE l.return_id = r.id AND l.replaced = 0 AND (i.code LIKE $3 ESCAPE '\\' OR i.name LIKE $3 ESCAPE '\\' OR s.number LIKE $3 ESCAPE '\\')))
       AND ($6 IS NULL OR EXISTS (SELECT 1 FROM return_line l JOIN order_line o ON o.id = l.line_id
         WHERE l.return_id = r.id AND l.replaced = 0 AND o.order_id = $6))
       AND ${isWaiting ? 'id > $4' : 'id < $4'} ORDER BY id ${isWaiting ? '' : 'DESC'} LIMIT $5`,
    [
      query.state ?? '',
      query.customerId ?? null,
      containing(query.q ?? ''),
      query.cursor ? Number(query.cursor) : isWaiting ? 0 : Number.MAX_SAFE_INTEGER,
      query.limit + 1,
      query.orderId ?? null,
    ],
  );
  return page(rows, query.limit, (row) => row.id);
}

/** Returns that wait, the longest first, and those that are announced by the day they are expected. */
export const recordsIn = (db: Reader, state: ReturnState, most: number) =>
  db.all<ReturnRecord>(
    `SELECT * FROM (${SQL}) WHERE state = $1 ORDER BY ifnull(arrived_at, ifnull(expected_on, '9999')), id LIMIT $2`,
    [state, most],
  );

/** A line of a return with what it was sold as. */
export interface LineRecord extends Row<'return_line'> {
  shipment: string;
  shipped_at: string;
  order_id: number;
  sales_order: string;
  item_id: number;
  code: string;
  name: string;
  unit: string;
  decimals: number;
  is_kit: 0 | 1;
  reason: string;
  item_days: number | null;
  customer_days: number | null;
}

export const lineRecords = (db: Reader, returnIds: readonly number[]) =>
  db.all<LineRecord>(
    `SELECT l.*, d.number AS shipment, d.at AS shipped_at, o.id AS order_id, o.number AS sales_order, i.id AS item_id, i.code,
       i.name, u.code AS unit, u.decimals, k.revision_id IS NOT NULL AS is_kit, e.name AS reason, i.return_days AS item_days,
       c.return_days AS customer_days
     FROM return_line l JOIN document d ON d.id = l.shipment_id JOIN order_line k ON k.id = l.line_id
     JOIN sales_order o ON o.id = k.order_id JOIN customer c ON c.id = o.customer_id JOIN item i ON i.id = k.item_id
     JOIN unit u ON u.id = i.unit_id JOIN reason e ON e.id = l.reason_id
     WHERE l.replaced = 0 AND l.return_id IN (SELECT value FROM json_each($1)) ORDER BY l.return_id, l.id`,
    [JSON.stringify(returnIds)],
  );

/** One thing that came back, where its posting stands. */
export interface PieceRecord {
  piece_id: number;
  return_line_id: number;
  return_id: number;
  part_id: number;
  item_id: number;
  lot_id: number | null;
  serial_id: number | null;
  quantity: Quantity;
  value: Money;
  settled: Quantity;
  settled_value: Money;
  sent_back: Quantity;
  code: string;
  name: string;
  unit: string;
  decimals: number;
  tracking: Row<'item'>['tracking'];
  home_bin_id: number | null;
  lot: string | null;
  serial: string | null;
  instead_of: string | null;
  /** Kits of its line, of which it is a part; null where it is none. */
  kits: Quantity | null;
  can_apart: 0 | 1;
  can_rework: 0 | 1;
}

const PIECE_SQL = `SELECT s.*, i.code, i.name, u.code AS unit, u.decimals, i.tracking, i.home_bin_id, t.code AS lot, n.code AS serial,
    (SELECT b.name FROM order_part p JOIN item b ON b.id = p.base_item_id WHERE p.id = s.part_id AND p.base_item_id <> p.item_id) AS instead_of,
    (SELECT l.quantity FROM return_line l JOIN order_line k ON k.id = l.line_id AND k.revision_id IS NOT NULL
      WHERE l.id = s.return_line_id) AS kits,
    EXISTS (SELECT 1 FROM definition f JOIN revision r ON r.definition_id = f.id AND r.state = 'in-use'
      WHERE f.item_id = i.id AND f.purpose = 'build') AS can_apart,
    EXISTS (SELECT 1 FROM definition f JOIN revision r ON r.definition_id = f.id AND r.state = 'in-use'
      WHERE f.item_id = i.id AND f.purpose = 'rework') AS can_rework
  FROM return_standing s JOIN item i ON i.id = s.item_id JOIN unit u ON u.id = i.unit_id
  LEFT JOIN lot t ON t.id = s.lot_id LEFT JOIN serial n ON n.id = s.serial_id`;

export const toSentBack = ({ part_id, quantity, sent_back }: PieceRecord): SentBack => ({
  partId: part_id,
  quantity,
  sentBack: sent_back,
});

export const piecesOfReturns = (db: Reader, returnIds: readonly number[]) =>
  db.all<PieceRecord>(
    `${PIECE_SQL} WHERE s.return_id IN (SELECT value FROM json_each($1)) ORDER BY s.return_id, s.return_line_id, s.piece_id`,
    [JSON.stringify(returnIds)],
  );
export const piecesById = (db: Reader, ids: readonly number[]) =>
  db.all<PieceRecord>(`${PIECE_SQL} WHERE s.piece_id IN (SELECT value FROM json_each($1))`, [JSON.stringify(ids)]);

export interface OutcomeRecord extends Row<'return_outcome'> {
  number: string;
  at: string;
  person: string;
  bin: string | null;
  build: string | null;
}

/** What became of things, as far as it stands. */
export const outcomesOf = (db: Reader, pieceIds: readonly number[]) =>
  db.all<OutcomeRecord>(
    `SELECT o.*, d.number, d.at, p.name AS person, n.code AS bin, b.number AS build FROM return_outcome o
     JOIN document d ON d.id = o.document_id JOIN person p ON p.id = d.person_id LEFT JOIN bin n ON n.id = o.bin_id
     LEFT JOIN build b ON b.id = o.build_id
     WHERE o.piece_id IN (SELECT value FROM json_each($1)) AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
     ORDER BY o.document_id, o.position`,
    [JSON.stringify(pieceIds)],
  );

/** Documents that were posted for a return. */
export const documentsOf = (db: Reader, returnId: number) =>
  db.all<{ id: number; number: string; kind: string; at: string; undone: 0 | 1 }>(
    `SELECT d.id, d.number, d.kind, d.at, EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM document d WHERE d.for_kind = 'return' AND d.for_id = $1 AND d.kind <> 'undo' ORDER BY d.id`,
    [returnId],
  );

/** What a return counts of a line: all that it announces, or once it is here what was not sent back; of kits whole ones. */
const COUNTED = `SELECT l.shipment_id, l.line_id, l.return_id, r.document_id IS NOT NULL AS is_here, CASE
    WHEN r.called_off IS NOT NULL THEN 0
    WHEN r.document_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM return_standing s WHERE s.return_line_id = l.id AND s.sent_back < s.quantity)
      THEN 0
    WHEN r.document_id IS NOT NULL AND (SELECT revision_id FROM order_line WHERE id = l.line_id) IS NULL
      THEN l.quantity - (SELECT sum(sent_back) FROM return_standing WHERE return_line_id = l.id)
    WHEN r.document_id IS NOT NULL THEN l.quantity - 1000000 * (SELECT min(CAST(l.quantity * away / 1000000 + 1e-6 AS INTEGER))
      FROM (SELECT 1.0 * sum(sent_back) / sum(quantity) AS away FROM return_standing WHERE return_line_id = l.id GROUP BY part_id))
    ELSE l.quantity END AS quantity
  FROM return_line l JOIN goods_return r ON r.id = l.return_id WHERE l.replaced = 0`;

/** How much of the shipment line `s` other returns than `$3` have brought back, or announce. */
const countedOf = (isHere: 0 | 1) => `ifnull((SELECT sum(quantity) FROM (${COUNTED}) WHERE is_here = ${isHere}
  AND shipment_id = s.document_id AND line_id = s.line_id AND return_id <> $3), 0)`;

export interface SentRecord extends SentLine {
  readonly customerId: number;
  readonly orderNumber: string;
  readonly price: Money;
  readonly decimals: number;
  /** On its way back by other returns, as far as they say. */
  readonly announced: Quantity;
}

/**
 * A line as it left with a shipment that stands, what is back of it, and what is announced.
 * @param exceptReturn a return that is being taken in itself
 */
export async function sentLine(
  db: Reader,
  shipmentId: number,
  lineId: number,
  exceptReturn: number,
): Promise<SentRecord | undefined> {
  const row = await db.one<{
    shipped: Quantity;
    returned: Quantity;
    announced: Quantity;
    customer_id: number;
    number: string;
    price: Money;
    decimals: number;
  }>(
    `SELECT s.quantity AS shipped, s.price, o.customer_id, o.number, u.decimals, ${countedOf(1)} AS returned, ${countedOf(0)} AS announced
     FROM shipment_line s JOIN order_line l ON l.id = s.line_id JOIN sales_order o ON o.id = l.order_id
     JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
     WHERE s.document_id = $1 AND s.line_id = $2 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = s.document_id)`,
    [shipmentId, lineId, exceptReturn],
  );
  if (!row) return undefined;
  const { customer_id: customerId, number: orderNumber, ...line } = row;
  return { ...line, customerId, orderNumber };
}

/** Everything that left for a line with a shipment, by lot and serial in the order in which it left, and what is back of it. */
export async function leftOf(db: Reader, shipmentId: number, lineId: number): Promise<LeftHeap[]> {
  const rows = await db.all<{
    part_id: number;
    item_id: number;
    name: string;
    decimals: number;
    lot_id: number | null;
    serial_id: number | null;
    quantity: Quantity;
    value: Money;
    returned: Quantity;
    returned_value: Money;
  }>(
    `SELECT p.id AS part_id, m.item_id, i.name, u.decimals, m.lot_id, m.serial_id, -sum(m.quantity) AS quantity, -sum(m.value) AS value,
       ifnull(b.quantity, 0) AS returned, ifnull(b.value, 0) AS returned_value
     FROM movement m JOIN order_part p ON p.id = m.line_id AND p.line_id = $2 JOIN item i ON i.id = m.item_id
     JOIN unit u ON u.id = i.unit_id LEFT JOIN (
       SELECT s.part_id, s.item_id, s.lot_id, s.serial_id, sum(s.quantity - s.sent_back) AS quantity, sum(s.value - s.sent_back_value) AS value
       FROM return_standing s JOIN return_line r ON r.id = s.return_line_id WHERE r.shipment_id = $1
       GROUP BY s.part_id, s.item_id, s.lot_id, s.serial_id) b
       ON b.part_id = p.id AND b.item_id = m.item_id AND b.lot_id IS m.lot_id AND b.serial_id IS m.serial_id
     WHERE m.document_id = $1 GROUP BY p.id, m.item_id, m.lot_id, m.serial_id HAVING sum(m.quantity) < 0
     ORDER BY p.position, min(m.id)`,
    [shipmentId, lineId],
  );
  return rows.map(({ part_id, item_id, lot_id, serial_id, returned_value: returnedValue, ...row }) => ({
    ...row,
    returnedValue,
    partId: part_id,
    itemId: item_id,
    lotId: lot_id,
    serialId: serial_id,
  }));
}

/** What was said of a return until now gives way to what is said anew; what an undone arrival brought of it is kept. */
export async function replaceLines(tx: Writer, returnId: number): Promise<void> {
  await tx.run(
    `UPDATE return_line SET replaced = 1 WHERE return_id = $1 AND EXISTS (SELECT 1 FROM return_piece WHERE return_line_id = return_line.id)`,
    [returnId],
  );
  await tx.run('DELETE FROM return_line WHERE return_id = $1 AND replaced = 0', [returnId]);
}

/** Lots or serials of items by their codes. */
export const lotsByCode = (db: Reader, itemIds: readonly number[], codes: readonly string[]) =>
  db.all<{ id: number; code: string }>(
    `SELECT id, code FROM lot WHERE item_id IN (SELECT value FROM json_each($1)) AND code IN (SELECT value FROM json_each($2))`,
    [JSON.stringify(itemIds), JSON.stringify(codes)],
  );
export const serialsByCode = (db: Reader, itemIds: readonly number[], codes: readonly string[]) =>
  db.all<{ id: number; code: string; item_id: number }>(
    `SELECT id, code, item_id FROM serial WHERE item_id IN (SELECT value FROM json_each($1)) AND code IN (SELECT value FROM json_each($2))`,
    [JSON.stringify(itemIds), JSON.stringify(codes)],
  );

/** The return on which a unit is here; undefined where it is on none. */
export const returnHolding = (db: Reader, serialId: number) =>
  db.one<{ number: string }>(
    `SELECT r.number FROM return_standing s JOIN goods_return r ON r.id = s.return_id
     WHERE s.serial_id = $1 AND s.quantity > s.sent_back ORDER BY s.piece_id DESC LIMIT 1`,
    [serialId],
  );

/** The bin of a store where what came back waits; undefined while it has none. */
export const returnsBin = (db: Reader, storeId: number | null) =>
  db.one<{ id: number; code: string; store_id: number }>(
    `SELECT id, code, store_id FROM bin WHERE kind = 'quarantine' AND code = 'Returns' AND ($1 IS NULL OR store_id = $1) ORDER BY store_id LIMIT 1`,
    [storeId],
  );

/** The bins in which things of a return stand. */
export const binsOfReturn = (db: Reader, returnId: number) =>
  db.all<{ item_id: number; bin_id: number; lot_id: number | null; serial_id: number | null; bin: string }>(
    `SELECT b.item_id, b.bin_id, b.lot_id, b.serial_id, n.code AS bin FROM balance b JOIN bin n ON n.id = b.bin_id
     WHERE b.holder_kind = 'return' AND b.holder_id = $1`,
    [returnId],
  );

/** The first return of something that left with a shipment, as far as it stands or is announced. */
export const returnOfShipment = (db: Reader, shipmentId: number) =>
  db.one<{ number: string; is_here: number }>(
    `SELECT r.number, r.document_id IS NOT NULL AS is_here FROM return_line l JOIN goods_return r ON r.id = l.return_id
     WHERE l.shipment_id = $1 AND l.replaced = 0 AND r.called_off IS NULL ORDER BY r.id LIMIT 1`,
    [shipmentId],
  );

/**
 * The last return that has brought again what a decision had sent back: with that undone, more would be back than ever left.
 * @param documentId of the decision
 */
export const cameAgain = (db: Reader, documentId: number) =>
  db.one<{ number: string }>(
    `WITH away AS (
       SELECT l.shipment_id, p.part_id, p.item_id, p.lot_id, p.serial_id, sum(o.quantity) AS quantity
       FROM return_outcome o JOIN return_piece p ON p.id = o.piece_id JOIN return_line l ON l.id = p.return_line_id
       WHERE o.document_id = $1 AND o.outcome = 'sent-back' GROUP BY 1, 2, 3, 4, 5),
     back AS (
       SELECT l.shipment_id, s.part_id, s.item_id, s.lot_id, s.serial_id, sum(s.quantity - s.sent_back) AS quantity, max(s.return_id) AS return_id
       FROM away a JOIN return_line l ON l.shipment_id = a.shipment_id JOIN return_standing s ON s.return_line_id = l.id
         AND s.part_id = a.part_id AND s.item_id = a.item_id AND s.lot_id IS a.lot_id AND s.serial_id IS a.serial_id
       WHERE s.quantity > s.sent_back GROUP BY 1, 2, 3, 4, 5)
     SELECT r.number FROM away a JOIN back b ON b.shipment_id = a.shipment_id AND b.part_id = a.part_id AND b.item_id = a.item_id
       AND b.lot_id IS a.lot_id AND b.serial_id IS a.serial_id JOIN goods_return r ON r.id = b.return_id
     WHERE a.quantity + b.quantity > (SELECT -sum(m.quantity) FROM movement m WHERE m.document_id = a.shipment_id
       AND m.line_id = a.part_id AND m.item_id = a.item_id AND m.lot_id IS a.lot_id AND m.serial_id IS a.serial_id)
     ORDER BY r.id DESC LIMIT 1`,
    [documentId],
  );

/** Who sent back what a document of a return moved. */
export const customersOf = (db: Reader, documentIds: readonly number[]) =>
  db.all<{ id: number; name: string }>(
    `SELECT d.id, c.name FROM document d JOIN goods_return r ON d.for_kind = 'return' AND r.id = d.for_id
     JOIN customer c ON c.id = r.customer_id WHERE d.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(documentIds)],
  );

export { COUNTED };

/** How many things are back and wait to be decided about. */
export const countWaiting = async (db: Reader): Promise<number> =>
  (await db.one<{ n: number }>('SELECT count(*) AS n FROM return_standing WHERE quantity > settled'))?.n ?? 0;
