import type { CountGroup } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import { startOf } from '../command/clock.ts';
import type { BodyOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { STANDS } from '../ledger/index.ts';
import type { CountLineRow } from './sql.ts';
import { wishedSpots } from './wishes.sql.ts';

/** What is to be counted. */
export type CountInput = BodyOf<'beginCount'>;
const IN_GROUP: Record<CountGroup, string> = {
  bought: "i.source <> 'made'",
  made: "i.source <> 'bought'",
  lot: "i.tracking = 'lot'",
  serial: "i.tracking = 'serial'",
};

/** What stands in the bins and is to be counted, by item, bin and lot. */
export const spotsToCount = (db: Reader, input: CountInput) => (input.wishes ? wishedSpots(db) : spotsIn(db, input));

const spotsIn = (db: Reader, input: CountInput) =>
  db.all<{ item_id: number; bin_id: number; lot_id: number | null }>(
    `SELECT b.item_id, b.bin_id, b.lot_id FROM balance b JOIN item i ON i.id = b.item_id
     WHERE b.holder_id IS NULL AND b.bin_id IN (SELECT value FROM json_each($1))
       AND (i.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\')
       AND ($3 IS NULL OR NOT EXISTS (SELECT 1 FROM stock_count_line l JOIN stock_count c ON c.id = l.count_id
         WHERE l.item_id = b.item_id AND l.bin_id = b.bin_id AND l.lot_id IS b.lot_id AND c.state = 'approved'
           AND l.counted_at >= $3))
       AND ($4 = 0 OR EXISTS (SELECT 1 FROM item_supplier WHERE item_id = i.id AND supplier_id = $4))
       ${input.group ? `AND ${IN_GROUP[input.group]}` : ''}
     GROUP BY b.item_id, b.bin_id, b.lot_id HAVING sum(b.quantity) <> 0`,
    [
      JSON.stringify(input.binIds),
      containing(input.q),
      input.notSince === null ? null : startOf(input.notSince),
      input.supplierId ?? 0,
    ],
  );

/** Bins with their store's name, and how many shelves it has in all. */
export const binsByName = (db: Reader, binIds: readonly number[]) =>
  db.all<{ code: string; store: string; all_of: number }>(
    `SELECT b.code, s.name AS store, (SELECT count(*) FROM bin WHERE store_id = s.id AND kind = 'shelf') AS all_of
     FROM bin b JOIN store s ON s.id = b.store_id WHERE b.id IN (SELECT value FROM json_each($1)) ORDER BY s.id, b.picking_order`,
    [JSON.stringify(binIds)],
  );

/** What the books have where a line is counted, and which serials. */
export const bookedAt = (db: Reader, line: Pick<CountLineRow, 'item_id' | 'bin_id' | 'lot_id'>) =>
  db.one<{ quantity: Quantity; booked: string }>(
    `SELECT ifnull(sum(quantity), 0) AS quantity, json_group_array(serial_id) AS booked FROM balance
     WHERE item_id = $1 AND bin_id = $2 AND lot_id IS $3 AND holder_id IS NULL`,
    [line.item_id, line.bin_id, line.lot_id],
  );

/** The last movement there is; 0 before the first. */
export const newestMovement = async (db: Reader) =>
  (await db.one<{ id: number }>('SELECT ifnull(max(id), 0) AS id FROM movement'))?.id ?? 0;

/** Another count that was approved since a line was counted, and put the books right there. */
export const countedSince = (tx: Reader, line: CountLineRow) =>
  tx.one<{ number: string; name: string; bin: string }>(
    `SELECT c.number, i.name, b.code AS bin FROM movement m JOIN document d ON d.id = m.document_id AND d.kind = 'count' AND ${STANDS}
     JOIN stock_count c ON c.document_id = d.id JOIN item i ON i.id = m.item_id JOIN bin b ON b.id = m.bin_id
     WHERE m.item_id = $1 AND m.bin_id = $2 AND m.lot_id IS $3 AND m.id > $4 AND m.quantity <> 0 LIMIT 1`,
    [line.item_id, line.bin_id, line.lot_id, line.counted_after ?? Number.MAX_SAFE_INTEGER],
  );

/** Which of these serials have moved since a line was counted. */
export async function movedSince(tx: Reader, serialIds: readonly number[], line: CountLineRow): Promise<Set<number>> {
  const rows = await tx.all<{ serial_id: number }>(
    `SELECT DISTINCT serial_id FROM movement
     WHERE serial_id IN (SELECT value FROM json_each($1)) AND id > $2 AND quantity <> 0`,
    [JSON.stringify(serialIds), line.counted_after ?? Number.MAX_SAFE_INTEGER],
  );
  return new Set(rows.map(({ serial_id }) => serial_id));
}
