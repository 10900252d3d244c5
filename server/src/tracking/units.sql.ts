import type { UnitDetail, UnitRow } from '@yosegi/contract';
import { type Money, minus } from '@yosegi/core/number';
import type { UnitState } from '@yosegi/core/tracking';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing, page } from '../db/pages.ts';
import { LISTED, type Sold, STATE, soldOf } from './lots.sql.ts';
import { clashesOf } from './sql.ts';

interface UnitRecord {
  id: number;
  item_id: number;
  serial: string;
  code: string;
  name: string;
  value: Money | null;
  held: string | null;
  state: UnitState;
  since: string | null;
}

const SQL = `SELECT s.id, s.item_id, s.code AS serial, i.code, i.name, s.value, s.held, ${STATE} AS state,
    max(ifnull((SELECT d.at FROM movement m JOIN document d ON d.id = m.document_id WHERE m.serial_id = s.id ORDER BY m.id DESC LIMIT 1), ''),
      ifnull((SELECT max(ifnull(given_back_at, taken_in_at)) FROM repair WHERE serial_id = s.id), '')) AS since
  FROM serial s JOIN item i ON i.id = s.item_id`;

/** Units that are known by serial, by where they are in their life; those that changed last first. */
export async function listUnits(db: Reader, query: QueryOf<'serialUnits'>) {
  const [since, id] = (query.cursor ?? '').split('|');
  const rows = await db.all<UnitRecord>(
    `SELECT * FROM (${SQL} WHERE ($1 IS NULL OR s.item_id = $1)
       AND (s.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\' OR i.code LIKE $2 ESCAPE '\\'))
     WHERE ${LISTED} AND ($3 = '' OR state = $3) AND ($4 = '' OR since < $4 OR (since = $4 AND id < $5))
     ORDER BY since DESC, id DESC LIMIT $6`,
    [query.itemId ?? null, containing(query.q ?? ''), query.state ?? '', since ?? '', Number(id ?? 0), query.limit + 1],
  );
  const shown = page(rows, query.limit, (row) => `${row.since}|${row.id}`);
  return { rows: await toUnits(db, shown.rows), next: shown.next };
}

/** How many units there are of each state. */
export const unitCounts = (db: Reader, itemId: number | undefined) =>
  db.all<{ state: UnitState; count: number }>(
    `SELECT state, count(*) AS count FROM (SELECT ${STATE} AS state FROM serial s WHERE $1 IS NULL OR s.item_id = $1)
     WHERE ${LISTED} GROUP BY state`,
    [itemId ?? null],
  );

async function toUnits(db: Reader, records: readonly UnitRecord[]): Promise<UnitRow[]> {
  const where = new Map<number, string>();
  const sold = new Map<number, Sold>();
  for (const itemId of new Set(records.map((row) => row.item_id))) {
    const own = records.filter((row) => row.item_id === itemId);
    const codes = own.map(({ serial }) => serial);
    for (const one of await clashesOf(db, itemId, codes)) where.set(one.id, one.says);
    const gone = own.flatMap(({ id, state }) => (state === 'sold' ? id : []));
    for (const [id, one] of await soldOf(db, itemId, gone)) sold.set(id, one);
  }
  return records.map((row) => {
    const out = sold.get(row.id);
    return {
      id: row.id,
      itemId: row.item_id,
      code: row.code,
      name: row.name,
      serial: row.serial,
      state: row.state,
      since: row.since || null,
      where: where.get(row.id) ?? '',
      held: row.held,
      cost: decimalOrNull(row.value ?? out?.cost ?? null),
      customer: out?.customer ?? null,
      price: decimalOrNull(out?.price ?? null),
      profit: out && out.price !== null ? decimal(minus(out.price, out.cost)) : null,
      warrantyUntil: out?.warrantyUntil ?? null,
    };
  });
}

/** One unit with everything that ever happened to it. */
export async function readUnit(db: Reader, id: number): Promise<UnitDetail> {
  const record = found(await db.one<UnitRecord>(`SELECT * FROM (${SQL} WHERE s.id = $1)`, [id]));
  const [unit] = await toUnits(db, [record]);
  const movements = await db.all<Omit<UnitDetail['history'][number], 'value' | 'repairId'> & { value: Money }>(
    `SELECT d.id AS documentId, d.number, d.kind, d.at, p.name AS person, max(m.value) AS value,
       (SELECT number FROM document WHERE reverses_id = d.id) AS undoneBy,
       coalesce((SELECT c.name FROM shipment h JOIN sales_order o ON o.id = h.order_id JOIN customer c ON c.id = o.customer_id WHERE h.document_id = d.id),
         (SELECT s.name FROM receipt r JOIN supplier s ON s.id = r.supplier_id WHERE r.document_id = d.id),
         (SELECT number FROM numbered WHERE kind = d.for_kind AND id = d.for_id), '') AS about
     FROM movement m JOIN document d ON d.id = m.document_id JOIN person p ON p.id = d.person_id
     WHERE m.serial_id = $1 GROUP BY d.id ORDER BY d.at, d.id`,
    [id],
  );
  const repairs = await db.all<Omit<UnitDetail['history'][number], 'value' | 'documentId'>>(
    `SELECT r.id AS repairId, r.number, 'taken in to be repaired' AS kind, r.taken_in_at AS at, p.name AS person, NULL AS undoneBy,
       c.name || ': ' || r.fault AS about
     FROM repair r JOIN person p ON p.id = r.taken_in_by JOIN customer c ON c.id = r.customer_id WHERE r.serial_id = $1
     UNION ALL SELECT r.id, r.number, 'given back', r.given_back_at, p.name, NULL, c.name
     FROM repair r JOIN person p ON p.id = r.given_back_by JOIN customer c ON c.id = r.customer_id WHERE r.serial_id = $1`,
    [id],
  );
  const history = [
    ...movements.map((row) => ({
      ...row,
      value: decimal(row.value < 0 ? (-row.value as Money) : row.value),
      repairId: null,
    })),
    ...repairs.map((row) => ({ ...row, value: null, documentId: null })),
  ];
  return { ...found(unit), history: history.sort((a, b) => a.at.localeCompare(b.at)) };
}
