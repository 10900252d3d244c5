import type { Label, LabelJobDetail, LabelsOf } from '@yosegi/contract';
import { found, type QueryOf, required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { page } from '../db/pages.ts';

/** The most labels of one job. */
export const MOST_LABELS = 500;

/** What a label is made for. */
export interface Piece {
  code: string;
  name: string;
  unit: string;
  barcode: string | null;
  lot: string | null;
  best_before: string | null;
  /** What is written down of the lot, as JSON; left out where it is none. */
  attributes?: string | null;
  serial: string | null;
  quantity: number | null;
}

const PIECE = 'i.code, i.name, u.code AS unit, i.barcode';
const LOT = 'l.code AS lot, l.best_before, l.attributes';
const UNIT_OF_ITEM = 'JOIN unit u ON u.id = i.unit_id';

/** The pieces that labels are asked for, and what the job is called. */
export async function piecesOf(
  db: Reader,
  of: Extract<LabelsOf, { documentId: number } | { serialIds: number[] } | { lotId: number } | { itemId: number }>,
): Promise<{ title: string; pieces: Piece[] }> {
  if ('documentId' in of) {
    const { number } = required(await db.models.document.findByPk(of.documentId));
    const pieces = await db.all<Piece>(
      `SELECT ${PIECE}, ${LOT}, s.code AS serial, m.quantity FROM movement m JOIN item i ON i.id = m.item_id ${UNIT_OF_ITEM}
       LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial s ON s.id = m.serial_id
       WHERE m.document_id = $1 AND m.quantity > 0 ORDER BY m.id LIMIT ${MOST_LABELS + 1}`,
      [of.documentId],
    );
    return { title: `What ${number} brought`, pieces };
  }
  if ('serialIds' in of) {
    const pieces = await db.all<Piece>(
      `SELECT ${PIECE}, ${LOT}, s.code AS serial, NULL AS quantity FROM serial s JOIN item i ON i.id = s.item_id ${UNIT_OF_ITEM}
       LEFT JOIN lot l ON l.id = s.lot_id WHERE s.id IN (SELECT value FROM json_each($1)) ORDER BY s.code`,
      [JSON.stringify(of.serialIds)],
    );
    return { title: `Serials of ${pieces[0]?.name ?? 'nothing'}`, pieces };
  }
  if ('lotId' in of) {
    const piece = found(
      await db.one<Piece>(
        `SELECT ${PIECE}, ${LOT}, NULL AS serial, NULL AS quantity FROM lot l JOIN item i ON i.id = l.item_id ${UNIT_OF_ITEM}
         WHERE l.id = $1`,
        [of.lotId],
      ),
    );
    return { title: `Lot ${piece.lot} of ${piece.name}`, pieces: Array(of.copies ?? 1).fill(piece) };
  }
  const piece = found(
    await db.one<Piece>(
      `SELECT ${PIECE}, NULL AS lot, NULL AS best_before, NULL AS serial, NULL AS quantity FROM item i ${UNIT_OF_ITEM}
       WHERE i.id = $1`,
      [of.itemId],
    ),
  );
  return { title: piece.name, pieces: Array(of.copies ?? 1).fill(piece) };
}

/** The bins of a store that goods are kept in, in walking order. */
export const binsOf = (db: Reader, storeId: number) =>
  db.all<{ code: string; store_code: string; store: string }>(
    `SELECT n.code, t.code AS store_code, t.name AS store FROM bin n JOIN store t ON t.id = n.store_id
     WHERE t.id = $1 AND n.kind IN ('shelf', 'quarantine') ORDER BY n.picking_order, n.code`,
    [storeId],
  );

/** Where something goes: to whom, their address, and the number it goes by. */
export interface Going {
  readonly number: string;
  readonly customer: string;
  readonly address: string;
  readonly sales_order: string;
}
const GOING =
  "c.name AS customer, coalesce(nullif(o.deliver_to, ''), nullif(c.delivery, ''), c.billing) AS address, o.number AS sales_order";

export const parcelGoing = (db: Reader, id: number) =>
  db.one<Going>(
    `SELECT p.number, ${GOING} FROM parcel p JOIN sales_order o ON o.id = p.order_id
     JOIN customer c ON c.id = o.customer_id WHERE p.id = $1`,
    [id],
  );
export const shipmentGoing = (db: Reader, id: number) =>
  db.one<Going>(
    `SELECT d.number, ${GOING} FROM shipment s JOIN document d ON d.id = s.document_id
     JOIN sales_order o ON o.id = s.order_id JOIN customer c ON c.id = o.customer_id WHERE s.document_id = $1`,
    [id],
  );

/** A customer's goods, to be marked when they are taken in. */
export type Marked = Record<'number' | 'customer' | 'code' | 'name' | 'fault', string> & { serial: string | null };
export const repairToMark = (db: Reader, id: number) =>
  db.one<Marked>(
    `SELECT r.number, c.name AS customer, i.code, i.name, r.fault, s.code AS serial FROM repair r
     JOIN customer c ON c.id = r.customer_id JOIN item i ON i.id = r.item_id LEFT JOIN serial s ON s.id = r.serial_id
     WHERE r.id = $1`,
    [id],
  );

/** What a customer is to send back, and where to. */
export type Returning = Record<'number' | 'customer' | 'company' | 'address', string>;
export const returnComing = (db: Reader, id: number) =>
  db.one<Returning>(
    `SELECT r.number, c.name AS customer, w.name AS company, w.address FROM goods_return r
     JOIN customer c ON c.id = r.customer_id JOIN company w WHERE r.id = $1`,
    [id],
  );

const JOB_SQL = `SELECT j.id, j.at, p.name AS person, j.title, j.state, j.printed_at AS printedAt,
  json_array_length(j.labels) AS count, j.labels FROM label_job j JOIN person p ON p.id = j.person_id`;
type JobRow = Omit<LabelJobDetail, 'labels'> & { labels: string };

export async function readLabelJob(db: Reader, id: number): Promise<LabelJobDetail> {
  const row = found(await db.one<JobRow>(`${JOB_SQL} WHERE j.id = $1`, [id]));
  return { ...row, labels: JSON.parse(row.labels) as Label[] };
}

export async function listLabelJobs(db: Reader, query: QueryOf<'labelJobs'>) {
  const rows = await db.all<JobRow>(`${JOB_SQL} WHERE j.id < $1 ORDER BY j.id DESC LIMIT $2`, [
    query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER,
    query.limit + 1,
  ]);
  const shown = page(rows, query.limit, (row) => row.id);
  return { rows: shown.rows.map(({ labels: _, ...row }) => row), next: shown.next };
}
