import type { CountDetail, CountRow } from '@yosegi/contract';
import { type Quantity, worthOf } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { found } from '../http/context.ts';
import { averageCostOf, itemRows, toMeasures } from '../items/store.ts';

const COUNT_SQL = `
  SELECT c.id, c.number, c.scope, c.state, c.begun_at AS begunAt, p.name AS begunBy, c.document_id AS documentId, c.version,
    (SELECT count(*) FROM stock_count_line WHERE count_id = c.id) AS lines,
    (SELECT count(*) FROM stock_count_line WHERE count_id = c.id AND counted IS NOT NULL) AS counted
  FROM stock_count c JOIN person p ON p.id = c.begun_by`;

export interface CountLineRow {
  id: number;
  count_id: number;
  item_id: number;
  bin_id: number;
  counted: number | null;
  expected: number | null;
}

export const listCounts = (db: Reader) => db.all<CountRow>(`${COUNT_SQL} ORDER BY c.id DESC LIMIT 200`);
export const countRow = (db: Reader, id: number) =>
  db.one<CountRow & { documentId: number | null; version: number }>(`${COUNT_SQL} WHERE c.id = $1`, [id]);

/** A count with its sheet in walking order. */
export async function readCount(db: Reader, id: number): Promise<CountDetail> {
  const head = found(await countRow(db, id));
  const rows = await db.all<CountLineRow & { bin: string; store: string; person: string | null }>(
    `SELECT l.*, b.code AS bin, s.name AS store, p.name AS person FROM stock_count_line l
     JOIN bin b ON b.id = l.bin_id JOIN store s ON s.id = b.store_id JOIN item i ON i.id = l.item_id
     LEFT JOIN person p ON p.id = l.counted_by
     WHERE l.count_id = $1 ORDER BY s.id, b.walk_order, b.code, i.code COLLATE NOCASE`,
    [id],
  );
  const items = await itemRows(
    db,
    rows.map((row) => row.item_id),
  );
  return {
    ...head,
    sheet: rows.map((row) => {
      const item = found(items.get(row.item_id));
      const difference = row.counted === null || row.expected === null ? null : row.counted - row.expected;
      const worth = difference === null ? null : worthOf(Math.abs(difference) as Quantity, averageCostOf(item));
      return {
        id: row.id,
        itemId: item.id,
        code: item.code,
        name: item.name,
        unit: item.unit,
        decimals: item.decimals,
        measures: toMeasures(item.measures),
        bin: row.bin,
        store: row.store,
        counted: decimalOrNull(row.counted),
        expected: decimalOrNull(row.expected),
        difference: decimalOrNull(difference),
        value: worth === null || difference === null ? null : decimal(difference < 0 ? -worth : worth),
        countedBy: row.person,
      };
    }),
  };
}
