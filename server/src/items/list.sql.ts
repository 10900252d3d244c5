import type { ItemQuery, ItemSort } from '@yosegi/contract';
import type { z } from 'zod';
import type { Reader, SqlValue } from '../db/database.ts';
import { containing, cursorAfter, readCursor } from '../db/pages.ts';
import { withBuiltCosts } from './built-costs.sql.ts';
import { AVERAGE_COST } from './costs.ts';
import { ITEM_SQL, type ItemRow, toItem } from './sql.ts';

/** What each order sorts by; text without regard to case. */
const SORTS: Record<ItemSort, string> = {
  code: 'code COLLATE NOCASE',
  name: 'name COLLATE NOCASE',
  onHand: '(quantity + returned_quantity - on_bench)',
  free: '(usable - promised)',
  value: '(value + returned_value)',
  sellPrice: 'ifnull(sell_price, -1)',
  averageCost: `(${AVERAGE_COST})`,
};
/** Promised beyond what is there, and at or below the reorder point. */
const OVERDRAWN = 'usable < promised';
const LOW = 'reorder_point IS NOT NULL AND usable - promised <= reorder_point';

/** Items in the order asked for, found by any part of code or name, or by a whole barcode. */
export async function listItems(db: Reader, query: z.output<typeof ItemQuery>) {
  const bind: SqlValue[] = [];
  const put = (value: SqlValue) => `$${bind.push(value)}`;
  const where: string[] = [`i.archived_at IS ${query.show === 'archived' ? 'NOT NULL' : 'NULL'}`];
  if (query.q) {
    const like = put(containing(query.q));
    // A GTIN is the same number however many zeros stand before it.
    const gtin = /^\d{8,14}$/.test(query.q) ? ` OR ltrim(i.barcode, '0') = ${put(query.q.replace(/^0+/, ''))}` : '';
    where.push(
      `(i.code LIKE ${like} ESCAPE '\\' OR i.name LIKE ${like} ESCAPE '\\' OR i.barcode = ${put(query.q.replace(/\s/g, ''))}${gtin})`,
    );
  }
  if (query.source) where.push(`i.source = ${put(query.source)}`);
  if (query.supplierId)
    where.push(`i.id IN (SELECT item_id FROM item_supplier WHERE supplier_id = ${put(query.supplierId)})`);
  const having: string[] = [];
  if (query.show === 'in-stock') having.push('quantity + returned_quantity <> 0');
  if (query.show === 'overdrawn') having.push(OVERDRAWN);
  if (query.show === 'low') having.push(LOW);
  const sort = SORTS[query.sort];
  const direction = query.down ? 'DESC' : 'ASC';
  const after = query.cursor ? readCursor(query.cursor) : null;
  if (after) {
    const beyond = query.down ? '<' : '>';
    const [key, code] = [put(after[0]), put(after[1])];
    // Equal keys go on by code, so that no page repeats or drops a row.
    having.push(`(${sort} ${beyond} ${key} OR (${sort} = ${key} AND code > ${code} COLLATE NOCASE))`);
  }
  // By code, the cursor is also an index condition; a page of a long list then reads no more than itself.
  if (after && query.sort === 'code' && !query.down) where.push(`i.code > ${put(after[1])} COLLATE NOCASE`);
  const rows = await db.all<ItemRow & { sort_key: SqlValue }>(
    `SELECT *, ${sort} AS sort_key FROM (${ITEM_SQL} WHERE ${where.join(' AND ')})
     ${having.length ? `WHERE ${having.join(' AND ')}` : ''}
     ORDER BY ${sort} ${direction}, code COLLATE NOCASE LIMIT ${put(query.limit + 1)}`,
    bind,
  );
  const shown = await withBuiltCosts(db, rows.slice(0, query.limit));
  const last = shown.at(-1);
  const next = rows.length > query.limit && last ? cursorAfter(last.sort_key, last.code) : null;
  return { rows: shown.map(toItem), next };
}

/** How many items there are, and how many need an eye, in one pass. */
export async function countItems(db: Reader) {
  const counts = await db.one<{ all: number; low: number; overdrawn: number; archived: number }>(
    `SELECT ifnull(sum(archived_at IS NULL), 0) AS "all", ifnull(sum(archived_at IS NOT NULL), 0) AS archived,
       ifnull(sum(archived_at IS NULL AND ${LOW}), 0) AS low,
       ifnull(sum(archived_at IS NULL AND ${OVERDRAWN}), 0) AS overdrawn
     FROM (${ITEM_SQL})`,
  );
  return counts ?? { all: 0, low: 0, overdrawn: 0, archived: 0 };
}
