import type { DocumentRow, Movement, StockDocument } from '@yosegi/contract';
import { decimal } from '../command/amounts.ts';
import { startOf } from '../command/clock.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing, page } from '../db/pages.ts';
import type { LedgerFeature } from './features.ts';

type MovementRow = Omit<Movement, 'quantity' | 'value'> & { quantity: number; value: number };

const MOVEMENT_SQL = `
  SELECT m.id, m.document_id AS documentId, d.number AS document, d.kind, m.item_id AS itemId, i.code, i.name, u.code AS unit,
    s.code || ' · ' || n.code AS bin,
    (SELECT number FROM numbered WHERE kind = m.holder_kind AND id = m.holder_id) AS build, m.quantity, m.value, d.at, p.name AS person, l.code AS lot, c.code AS serial
  FROM movement m
  JOIN document d ON d.id = m.document_id
  JOIN person p ON p.id = d.person_id
  JOIN item i ON i.id = m.item_id
  JOIN unit u ON u.id = i.unit_id
  JOIN bin n ON n.id = m.bin_id
  JOIN store s ON s.id = n.store_id
  LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial c ON c.id = m.serial_id`;

const toMovement = (row: MovementRow): Movement => ({
  ...row,
  quantity: decimal(row.quantity),
  value: decimal(row.value),
});

/**
 * Movements, the newest first. Which ones is found out first, along the one index that fits what was asked, so that a page
 * of a million costs no more than a page; only then is everything about them read.
 */
export async function listMovements(db: Reader, query: QueryOf<'movements'>) {
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
  const { rows, next } = page(await db.driver.all<MovementRow>(sql, bind), query.limit, (row) => row.id);
  return { rows: rows.map(toMovement), next };
}

interface ListedRow extends Pick<DocumentRow, 'id' | 'number' | 'kind' | 'at' | 'remark' | 'person'> {
  value: string;
  undone: number;
  for_kind: 'build' | 'order' | 'return' | null;
  for_id: number | null;
  for_number: string | null;
}

/** Documents, the newest first, with the value that each brought into stock and what it was about. */
export async function listDocuments(db: Reader, query: QueryOf<'documents'>, features: readonly LedgerFeature[]) {
  const rows = await db.driver.all<ListedRow>(
    `SELECT d.id, d.number, d.kind, d.at, d.remark, p.name AS person, d.for_kind, d.for_id,
       (SELECT number FROM numbered WHERE kind = d.for_kind AND id = d.for_id) AS for_number,
       (SELECT CAST(ifnull(sum(value), 0) AS TEXT) FROM movement WHERE document_id = d.id) AS value,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM document d JOIN person p ON p.id = d.person_id
     WHERE d.id < $1 AND ($2 = '' OR d.kind = $2) ORDER BY d.id DESC LIMIT $3`,
    [query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER, query.kind ?? '', query.limit + 1],
  );
  const shown = page(rows, query.limit, (row) => row.id);
  const ids = shown.rows.map(({ id }) => id);
  const about = await mostlyAbout(db, ids);
  const parties = new Map<number, string>();
  for (const feature of features)
    for (const [id, name] of (await feature.parties?.(db, ids)) ?? []) parties.set(id, name);
  return {
    rows: shown.rows.map(
      ({ for_kind, for_id, for_number, ...row }): DocumentRow => ({
        ...row,
        value: decimal(BigInt(row.value)),
        undone: row.undone === 1,
        ...(about.get(row.id) ?? { item: null, others: 0 }),
        for: postedFor({ for_kind, for_id, for_number }),
        party: parties.get(row.id) ?? null,
      }),
    ),
    next: shown.next,
  };
}

interface AboutRow {
  document_id: number;
  id: number;
  code: string;
  name: string;
  unit: string;
  quantity: number;
  items: number;
}

/**
 * The item of each document that most of its value is in, whichever way it went, and how many others moved. What only
 * changed its bin counts once.
 */
async function mostlyAbout(db: Reader, ids: readonly number[]) {
  const rows = await db.driver.all<AboutRow>(
    `SELECT t.document_id, i.id, i.code, i.name, u.code AS unit, t.quantity, t.items FROM (
       SELECT document_id, item_id, max(sum(max(quantity, 0)), -sum(min(quantity, 0))) AS quantity,
         count(*) OVER (PARTITION BY document_id) AS items,
         row_number() OVER (PARTITION BY document_id
           ORDER BY max(sum(max(value, 0)), -sum(min(value, 0))) DESC, min(id)) AS place
       FROM movement WHERE document_id IN (SELECT value FROM json_each($1)) GROUP BY document_id, item_id) t
     JOIN item i ON i.id = t.item_id JOIN unit u ON u.id = i.unit_id WHERE t.place = 1`,
    [JSON.stringify(ids)],
  );
  return new Map(
    rows.map(({ document_id, items, quantity, ...item }) => [
      document_id,
      { item: { ...item, quantity: decimal(quantity) }, others: items - 1 },
    ]),
  );
}

interface ForRow {
  readonly for_kind: NonNullable<DocumentRow['for']>['kind'] | null;
  readonly for_id: number | null;
  readonly for_number: string | null;
}

/** What a document was posted for; null where it was for nothing but itself. */
const postedFor = ({ for_kind, for_id, for_number }: ForRow): DocumentRow['for'] =>
  for_kind === null || for_id === null ? null : { kind: for_kind, id: for_id, number: for_number ?? '' };

interface HeadRow extends Pick<StockDocument, 'id' | 'number' | 'kind' | 'at' | 'person' | 'remark' | 'reason'> {
  for_kind: ForRow['for_kind'];
  for_id: number | null;
  for_number: string | null;
  override_reason: string | null;
  reverses_id: number | null;
  reverses_number: string | null;
  reversed_id: number | null;
  reversed_number: string | null;
}

/** One document with what moved, and with what each feature says of it. */
export async function readDocument(db: Reader, id: number, features: readonly LedgerFeature[]): Promise<StockDocument> {
  const head = found(
    await db.driver.one<HeadRow>(
      `SELECT d.id, d.number, d.kind, d.at, p.name AS person, d.remark, d.for_kind, d.for_id,
         (SELECT number FROM numbered WHERE kind = d.for_kind AND id = d.for_id) AS for_number, d.override_reason,
         (SELECT name FROM reason WHERE id = d.reason_id) AS reason,
         d.reverses_id, o.number AS reverses_number, r.id AS reversed_id, r.number AS reversed_number
       FROM document d JOIN person p ON p.id = d.person_id
       LEFT JOIN document o ON o.id = d.reverses_id LEFT JOIN document r ON r.reverses_id = d.id WHERE d.id = $1`,
      [id],
    ),
  );
  const movements = await db.driver.all<MovementRow>(`${MOVEMENT_SQL} WHERE m.document_id = $1 ORDER BY m.id`, [id]);
  const values = await db.driver.all<{ kind: string; amount: number; item: string | null; text: string | null }>(
    `SELECT v.kind, v.amount, i.name AS item,
       (SELECT text FROM said_line WHERE kind = d.for_kind AND id = v.line_id) AS text
     FROM document_value v JOIN document d ON d.id = v.document_id LEFT JOIN item i ON i.id = v.item_id
     WHERE v.document_id = $1 ORDER BY v.id`,
    [id],
  );
  const document: StockDocument = {
    id: head.id,
    number: head.number,
    kind: head.kind,
    at: head.at,
    person: head.person,
    remark: head.remark,
    for: postedFor(head),
    reason: head.reason,
    overrideReason: head.override_reason,
    receipt: null,
    prices: [],
    reverses: head.reverses_id === null ? null : { id: head.reverses_id, number: head.reverses_number ?? '' },
    reversedBy: head.reversed_id === null ? null : { id: head.reversed_id, number: head.reversed_number ?? '' },
    movements: movements.map(toMovement),
    values: values.map((row) => ({ ...row, amount: decimal(row.amount) })),
    uses: [],
    finished: null,
  };
  for (const feature of features) Object.assign(document, await feature.describe?.(db, id));
  return document;
}
