import type { CountDetail, CountRow } from '@yosegi/contract';
import { type Money, minus, sumForText, worthForText, ZERO } from '@yosegi/core/number';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found as required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { averageCostOf, itemRows, knownCostOf, toMeasures } from '../items/index.ts';
import { ownCostsOf } from '../ledger/index.ts';

const COUNT_SQL = `
  SELECT c.id, c.number, c.scope, c.state, c.begun_at AS begunAt, p.name AS begunBy, c.document_id AS documentId, c.version,
    (SELECT count(*) FROM stock_count_line WHERE count_id = c.id) AS lines,
    (SELECT count(*) FROM stock_count_line WHERE count_id = c.id AND counted IS NOT NULL) AS counted
  FROM stock_count c JOIN person p ON p.id = c.begun_by`;

/** `seen` are codes of serials, `booked` the ids the books had there, as JSON; null unless the item is kept by serial. */
export type CountLineRow = Row<'stock_count_line'>;

export const listCounts = (db: Reader) => db.all<CountRow>(`${COUNT_SQL} ORDER BY c.id DESC LIMIT 200`);
export const countRow = (db: Reader, id: number) =>
  db.one<CountRow & { documentId: number | null; version: number }>(`${COUNT_SQL} WHERE c.id = $1`, [id]);

/** A count with its sheet in walking order. */
export async function readCount(db: Reader, id: number): Promise<CountDetail> {
  const head = required(await countRow(db, id));
  const rows = await db.all<
    CountLineRow & {
      bin: string;
      store: string;
      person: string | null;
      lot: string | null;
      best_before: string | null;
    }
  >(
    `SELECT l.*, b.code AS bin, s.name AS store, p.name AS person, o.code AS lot, o.best_before
     FROM stock_count_line l
     JOIN bin b ON b.id = l.bin_id JOIN store s ON s.id = b.store_id JOIN item i ON i.id = l.item_id
     LEFT JOIN person p ON p.id = l.counted_by LEFT JOIN lot o ON o.id = l.lot_id
     WHERE l.count_id = $1 ORDER BY s.id, b.picking_order, b.code, i.code COLLATE NOCASE, ifnull(o.best_before, '9999'), o.code`,
    [id],
  );
  const items = await itemRows(
    db,
    rows.map((row) => row.item_id),
  );
  const booked = await bookedSerials(db, rows);
  const own = await ownCostsByCode(db, rows);
  return {
    ...head,
    sheet: rows.map((row) => {
      const item = required(items.get(row.item_id));
      const difference = row.counted === null || row.expected === null ? null : minus(row.counted, row.expected);
      const seen = row.seen === null ? [] : (JSON.parse(row.seen) as string[]);
      const had = (row.booked === null ? [] : (JSON.parse(row.booked) as number[])).flatMap(
        (serialId) => booked.get(serialId) ?? [],
      );
      const within = (codes: readonly string[], code: string) =>
        codes.some((one) => one.toLowerCase() === code.toLowerCase());
      const missing = had.filter(({ code }) => !within(seen, code));
      const found = seen.filter(
        (code) =>
          !within(
            had.map((serial) => serial.code),
            code,
          ),
      );
      const known = knownCostOf(item);
      const told = row.unit_cost ?? known ?? ZERO;
      const bySerial = item.tracking === 'serial';
      const ownCost = (code: string) => own.get(`${item.id}:${code.toLowerCase()}`);
      const value = bySerial
        ? sumForText(found.map((code) => row.unit_cost ?? ownCost(code) ?? told)) -
          sumForText(missing.map((serial) => serial.value ?? 0))
        : worthForText(difference ?? ZERO, (difference ?? 0) > 0 ? told : averageCostOf(item));
      const unknown = bySerial ? found.some((code) => ownCost(code) === undefined) : (difference ?? 0) > 0;
      return {
        id: row.id,
        itemId: item.id,
        code: item.code,
        name: item.name,
        unit: item.unit,
        decimals: item.decimals,
        measures: toMeasures(item.measures),
        tracking: item.tracking,
        lot: row.lot,
        bestBefore: row.best_before,
        seen,
        missing: missing.map(({ code }) => code),
        found,
        binId: row.bin_id,
        bin: row.bin,
        store: row.store,
        counted: decimalOrNull(row.counted),
        expected: decimalOrNull(row.expected),
        difference: decimalOrNull(difference),
        value: difference === null ? null : decimal(value),
        needsCost: known === null && unknown,
        unitCost: decimalOrNull(row.unit_cost),
        countedBy: row.person,
      };
    }),
  };
}

/** The serials that the books had where they were counted. */
async function bookedSerials(db: Reader, rows: readonly CountLineRow[]) {
  const ids = rows.flatMap(({ booked }) => (booked === null ? [] : (JSON.parse(booked) as number[])));
  const serials = await db.all<{ id: number; code: string; value: number | null }>(
    'SELECT id, code, value FROM serial WHERE id IN (SELECT value FROM json_each($1))',
    [JSON.stringify(ids)],
  );
  return new Map(serials.map((serial) => [serial.id, serial]));
}

/** What serials that were seen cost when they last left, by item and code. */
async function ownCostsByCode(db: Reader, rows: readonly CountLineRow[]): Promise<ReadonlyMap<string, Money>> {
  const seen = rows.flatMap(({ item_id, seen }) =>
    (seen === null ? [] : (JSON.parse(seen) as string[])).map((code) => [item_id, code]),
  );
  const serials = await db.all<{ id: number; item_id: number; code: string }>(
    `SELECT s.id, s.item_id, s.code FROM json_each($1) v JOIN serial s ON s.item_id = v.value ->> 0 AND s.code = v.value ->> 1`,
    [JSON.stringify(seen)],
  );
  const costs = await ownCostsOf(
    db,
    serials.map(({ id }) => id),
  );
  return new Map(
    serials.flatMap(({ id, item_id, code }) => {
      const cost = costs.get(id);
      return cost === undefined ? [] : [[`${item_id}:${code.toLowerCase()}`, cost] as const];
    }),
  );
}
