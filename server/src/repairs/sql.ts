import type { RepairDetail, RepairRow } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { Money } from '@yosegi/core/number';
import { monthsAfter, readMonths } from '@yosegi/core/tracking';
import { decimalOrNull } from '../command/amounts.ts';
import type { QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, page } from '../db/pages.ts';
import { warrantyOf } from '../tracking/index.ts';

/** A repair with its customer, its goods and its work. */
export interface RepairRecord extends Row<'repair'> {
  customer: string;
  code: string;
  name: string;
  serial: string | null;
  bin: string;
  store: string;
  person: string;
  build_id: number;
  build_state: Row<'build'>['state'];
}

const SQL = `SELECT r.*, c.name AS customer, i.code, i.name, s.code AS serial, n.code AS bin, t.name AS store, p.name AS person,
    b.id AS build_id, b.state AS build_state
  FROM repair r JOIN customer c ON c.id = r.customer_id JOIN item i ON i.id = r.item_id JOIN build b ON b.repair_id = r.id
  JOIN bin n ON n.id = r.bin_id JOIN store t ON t.id = n.store_id JOIN person p ON p.id = r.taken_in_by
  LEFT JOIN serial s ON s.id = r.serial_id`;

const WANTED = "ifnull(r.wanted_on, '9999')";

export const repairRecord = (db: Reader, id: number) => db.one<RepairRecord>(`${SQL} WHERE r.id = $1`, [id]);

/** What is here by the day it is wanted, what was given back the newest first. */
export async function repairRecords(db: Reader, query: QueryOf<'repairs'>) {
  const isHere = query.show === 'here';
  const [day, id] = (query.cursor ?? '').split('|');
  const after = isHere ? `(${WANTED} > $3 OR (${WANTED} = $3 AND r.id > $4))` : '(r.id < $4 AND $3 = $3)';
  const rows = await db.all<RepairRecord>(
    `${SQL} WHERE r.state ${isHere ? '<>' : '='} 'given-back' AND ($1 IS NULL OR r.customer_id = $1)
       AND (r.number LIKE $2 ESCAPE '\\' OR c.name LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\'
         OR i.code LIKE $2 ESCAPE '\\' OR ifnull(s.code, '') LIKE $2 ESCAPE '\\' OR r.fault LIKE $2 ESCAPE '\\') AND ${after}
     ORDER BY ${isHere ? `${WANTED}, r.id` : 'r.id DESC'} LIMIT $5`,
    [
      query.customerId ?? null,
      containing(query.q ?? ''),
      day ?? '',
      Number(id ?? 0) || (isHere ? 0 : Number.MAX_SAFE_INTEGER),
      query.limit + 1,
    ],
  );
  return page(rows, query.limit, (row) => `${row.wanted_on ?? '9999'}|${row.id}`);
}

export const toRepairRow = (record: RepairRecord, waiting: readonly string[], today: string): RepairRow => ({
  id: record.id,
  number: record.number,
  state: record.state,
  waiting: [...waiting],
  customerId: record.customer_id,
  customer: record.customer,
  itemId: record.item_id,
  code: record.code,
  name: record.name,
  serialId: record.serial_id,
  serial: record.serial,
  fault: record.fault,
  accessories: record.accessories,
  wantedOn: record.wanted_on,
  late: record.state !== 'given-back' && record.wanted_on !== null && record.wanted_on < today,
  warranty: record.warranty === 1,
  estimate: decimalOrNull(record.estimate),
  price: decimalOrNull(record.price),
  declined: record.declined,
  jobTag: record.job_tag,
  takenInAt: record.taken_in_at,
  givenBackAt: record.given_back_at,
  charged: decimalOrNull(record.charged),
  buildId: record.build_id,
  version: record.version,
});

export const eventsOf = async (db: Reader, id: number): Promise<RepairDetail['events']> =>
  (
    await db.all<Omit<RepairDetail['events'][number], 'amount'> & { amount: number | null }>(
      `SELECT e.id, e.at, p.name AS person, e.says, e.amount FROM repair_event e JOIN person p ON p.id = e.person_id
       WHERE e.repair_id = $1 ORDER BY e.id`,
      [id],
    )
  ).map((row) => ({ ...row, amount: decimalOrNull(row.amount) }));

/** The same unit, here before. */
export const earlierOf = (db: Reader, { id, serial_id }: Pick<Row<'repair'>, 'id' | 'serial_id'>) =>
  db.all<RepairDetail['earlier'][number]>(
    `SELECT id, number, fault, given_back_at AS givenBackAt FROM repair WHERE serial_id = $1 AND id < $2 ORDER BY id DESC`,
    [serial_id, id],
  );

/** With which shipment a unit left last, and until when the item's own field says that it has a warranty. */
export async function soldAs(db: Reader, serialId: number | null): Promise<RepairDetail['sold']> {
  if (serialId === null) return null;
  const row = await db.one<{
    document_id: number;
    number: string;
    at: string;
    customer: string;
    months: string | null;
  }>(
    `SELECT d.id AS document_id, d.number, d.at, c.name AS customer,
       ${warrantyOf('m.item_id')} AS months
     FROM movement m JOIN document d ON d.id = m.document_id AND d.kind = 'shipment'
     JOIN shipment s ON s.document_id = d.id JOIN sales_order o ON o.id = s.order_id JOIN customer c ON c.id = o.customer_id
     WHERE m.serial_id = $1 AND m.quantity < 0 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
     ORDER BY m.id DESC LIMIT 1`,
    [serialId],
  );
  if (!row) return null;
  const on = dayOf(new Date(row.at));
  const months = row.months === null ? null : readMonths(row.months);
  const warrantyUntil = months === null ? null : monthsAfter(on, months);
  return { documentId: row.document_id, number: row.number, on, customer: row.customer, warrantyUntil };
}

/** What the work of a repair took, by kind of line, of finishes that stand. */
export const bookedCost = (db: Reader, buildId: number) =>
  db.all<{ kind: 'part' | 'labour' | 'charge'; cost: Money }>(
    `SELECT l.kind, sum(f.cost) AS cost FROM finish_line f JOIN build_line l ON l.id = f.build_line_id
     WHERE l.build_id = $1 AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = f.document_id) GROUP BY l.kind`,
    [buildId],
  );

/** The bin of customers' goods in a store, the first store where none is said. */
export const customersBin = (db: Reader, storeId: number | null) =>
  db.one<{ id: number; store_id: number }>(
    `SELECT id, store_id FROM bin WHERE kind = 'customers' AND ($1 IS NULL OR store_id = $1) ORDER BY store_id, id LIMIT 1`,
    [storeId],
  );

/** A shelf of a store, so that the bench of that store is meant. */
export const anyShelf = (db: Reader, storeId: number) =>
  db.one<{ id: number }>(
    "SELECT id FROM bin WHERE store_id = $1 AND kind = 'shelf' ORDER BY picking_order, id LIMIT 1",
    [storeId],
  );
