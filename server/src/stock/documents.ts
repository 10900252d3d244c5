import type { DocumentRow, Movement, StockDocument } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { decimal } from '../http/amounts.ts';
import { found, startOf } from '../http/context.ts';
import { containing, page } from '../http/pages.ts';

type MovementRow = Omit<Movement, 'quantity' | 'value'> & { quantity: number; value: number };

const MOVEMENT_SQL = `
  SELECT m.id, m.document_id AS documentId, d.number AS document, d.kind, m.item_id AS itemId, i.code, i.name, u.code AS unit,
    s.code || ' · ' || n.code AS bin, b.number AS build, m.quantity, m.value, d.at, p.name AS person, l.code AS lot, c.code AS serial
  FROM movement m
  JOIN document d ON d.id = m.document_id
  JOIN person p ON p.id = d.person_id
  JOIN item i ON i.id = m.item_id
  JOIN unit u ON u.id = i.unit_id
  JOIN bin n ON n.id = m.bin_id
  JOIN store s ON s.id = n.store_id
  LEFT JOIN build b ON b.id = m.build_id LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial c ON c.id = m.serial_id`;

const toMovement = (row: MovementRow): Movement => ({
  ...row,
  quantity: decimal(row.quantity),
  value: decimal(row.value),
});

export interface MovementQuery {
  readonly itemId?: number | undefined;
  readonly kind?: string | undefined;
  readonly binId?: number | undefined;
  readonly personId?: number | undefined;
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  readonly q?: string | undefined;
  readonly cursor?: string | undefined;
  readonly limit: number;
}

/**
 * Movements, the newest first. Which ones is found out first, along the one index that fits what was asked, so that a page
 * of a million costs no more than a page; only then is everything about them read.
 */
export async function listMovements(db: Reader, query: MovementQuery) {
  const where = ['m.id < $1'];
  const bind: (string | number)[] = [query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER];
  const put = (value: string | number) => `$${bind.push(value)}`;
  if (query.itemId !== undefined) where.push(`m.item_id = ${put(query.itemId)}`);
  if (query.binId !== undefined) where.push(`m.bin_id = ${put(query.binId)}`);
  if (query.kind !== undefined) where.push(`d.kind = ${put(query.kind)}`);
  if (query.personId !== undefined) where.push(`d.person_id = ${put(query.personId)}`);
  if (query.from !== undefined) {
    const from = put(startOf(query.from));
    where.push(`d.at >= ${from} AND d.id >= (SELECT min(id) FROM document WHERE at >= ${from})`);
  }
  if (query.to !== undefined) {
    const to = put(startOf(query.to, 1));
    where.push(`d.at < ${to} AND d.id <= (SELECT max(id) FROM document WHERE at < ${to})`);
  }
  if (query.q) {
    const like = `LIKE ${put(containing(query.q))} ESCAPE '\\'`;
    // Looked up once in the short tables; a plus keeps each from being taken for a way in of its own.
    where.push(`(+m.item_id IN (SELECT id FROM item WHERE code ${like} OR name ${like})
      OR +m.lot_id IN (SELECT id FROM lot WHERE code ${like}) OR +m.serial_id IN (SELECT id FROM serial WHERE code ${like})
      OR +m.document_id IN (SELECT id FROM document WHERE number ${like} OR remark ${like}))`);
  }
  const ofDocument = query.kind ?? query.personId ?? query.from ?? query.to;
  const byMovement = query.itemId ?? query.binId;
  // Movements are written in the order of their documents, so that both ways give the same order.
  const from =
    ofDocument === undefined
      ? 'movement m'
      : byMovement === undefined
        ? 'document d CROSS JOIN movement m ON m.document_id = d.id'
        : 'movement m CROSS JOIN document d ON d.id = m.document_id';
  const order = ofDocument !== undefined && byMovement === undefined ? 'd.id DESC, m.id DESC' : 'm.id DESC';
  const chosen = `SELECT m.id FROM ${from} WHERE ${where.join(' AND ')} ORDER BY ${order} LIMIT ${put(query.limit + 1)}`;
  const sql = `${MOVEMENT_SQL} WHERE m.id IN (${chosen}) ORDER BY m.id DESC`;
  const { rows, next } = page(await db.all<MovementRow>(sql, bind), query.limit, (row) => row.id);
  return { rows: rows.map(toMovement), next };
}

/** Documents, the newest first, with the value that each brought into stock. */
export async function listDocuments(db: Reader, query: Omit<MovementQuery, 'itemId'>) {
  const rows = await db.all<Omit<DocumentRow, 'value' | 'undone'> & { value: string; undone: number }>(
    `SELECT d.id, d.number, d.kind, d.at, d.remark, p.name AS person,
       (SELECT CAST(ifnull(sum(value), 0) AS TEXT) FROM movement WHERE document_id = d.id) AS value,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM document d JOIN person p ON p.id = d.person_id
     WHERE d.id < $1 AND ($2 = '' OR d.kind = $2) ORDER BY d.id DESC LIMIT $3`,
    [query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER, query.kind ?? '', query.limit + 1],
  );
  const shown = page(rows, query.limit, (row) => row.id);
  return {
    rows: shown.rows.map((row) => ({ ...row, value: decimal(BigInt(row.value)), undone: row.undone === 1 })),
    next: shown.next,
  };
}

export async function readDocument(db: Reader, id: number): Promise<StockDocument> {
  const head = found(
    await db.one<
      Omit<
        StockDocument,
        | 'movements'
        | 'values'
        | 'uses'
        | 'reverses'
        | 'reversedBy'
        | 'buildId'
        | 'overrideReason'
        | 'receipt'
        | 'prices'
      > & {
        build_id: number | null;
        override_reason: string | null;
        reverses_id: number | null;
        reverses_number: string | null;
        reversed_id: number | null;
        reversed_number: string | null;
      }
    >(
      `SELECT d.id, d.number, d.kind, d.at, p.name AS person, d.remark, d.build_id, b.number AS build, d.override_reason,
         (SELECT name FROM reason WHERE id = d.reason_id) AS reason,
         d.reverses_id, o.number AS reverses_number, r.id AS reversed_id, r.number AS reversed_number
       FROM document d JOIN person p ON p.id = d.person_id LEFT JOIN build b ON b.id = d.build_id
       LEFT JOIN document o ON o.id = d.reverses_id LEFT JOIN document r ON r.reverses_id = d.id WHERE d.id = $1`,
      [id],
    ),
  );
  const movements = await db.all<MovementRow>(`${MOVEMENT_SQL} WHERE m.document_id = $1 ORDER BY m.id`, [id]);
  const values = await db.all<{ kind: string; amount: number; item: string | null; text: string | null }>(
    `SELECT v.kind, v.amount, i.name AS item, l.text FROM document_value v LEFT JOIN item i ON i.id = v.item_id
     LEFT JOIN build_line l ON l.id = v.build_line_id WHERE v.document_id = $1 ORDER BY v.id`,
    [id],
  );
  const uses = await db.all<{
    text: string;
    unit: string;
    planned: number;
    actual: number;
    cost: number;
    planned_cost: number;
  }>(
    `SELECT ifnull(i.name, nullif(l.text, '')) AS text, ifnull(u.code, CASE l.kind WHEN 'labour' THEN 'min' ELSE '' END) AS unit,
       f.planned, f.actual, f.cost, f.planned_cost
     FROM finish_line f JOIN build_line l ON l.id = f.build_line_id LEFT JOIN item i ON i.id = l.item_id
     LEFT JOIN unit u ON u.id = i.unit_id WHERE f.document_id = $1 ORDER BY l.position`,
    [id],
  );
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
  return {
    id: head.id,
    number: head.number,
    kind: head.kind,
    at: head.at,
    person: head.person,
    remark: head.remark,
    buildId: head.build_id,
    build: head.build,
    reason: head.reason,
    overrideReason: head.override_reason,
    receipt: receipt ?? null,
    prices,
    reverses: head.reverses_id === null ? null : { id: head.reverses_id, number: head.reverses_number ?? '' },
    reversedBy: head.reversed_id === null ? null : { id: head.reversed_id, number: head.reversed_number ?? '' },
    movements: movements.map(toMovement),
    values: values.map((row) => ({ ...row, amount: decimal(row.amount) })),
    uses: uses.map((row) => ({
      text: row.text ?? 'Labour',
      unit: row.unit,
      planned: decimal(row.planned),
      actual: decimal(row.actual),
      cost: decimal(row.cost),
      plannedCost: decimal(row.planned_cost),
    })),
  };
}
