import type { CountWish } from '@yosegi/contract';
import { decimal } from '../command/amounts.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

type Place = Pick<Row<'count_wish'>, 'item_id' | 'bin_id' | 'lot_id'>;

/** Bins in which somebody found less than the books say, in walking order. */
export async function listWishes(db: Reader): Promise<CountWish[]> {
  const rows = await db.all<Omit<CountWish, 'booked'> & { booked: number }>(
    `SELECT w.id, w.item_id AS itemId, i.code, i.name, u.code AS unit, u.decimals, w.bin_id AS binId, b.code AS bin,
       s.name AS store, w.lot_id AS lotId, l.code AS lot, w.booked, w.noted_at AS at, p.name AS "by"
     FROM count_wish w JOIN item i ON i.id = w.item_id JOIN unit u ON u.id = i.unit_id JOIN bin b ON b.id = w.bin_id
     JOIN store s ON s.id = b.store_id JOIN person p ON p.id = w.noted_by LEFT JOIN lot l ON l.id = w.lot_id
     WHERE w.settled_at IS NULL ORDER BY s.id, b.picking_order, b.code, w.id LIMIT 500`,
  );
  return rows.map((row) => ({ ...row, booked: decimal(row.booked) }));
}

/** The same as places to count; of an item that is kept by lot and whose lot nobody named, all lots that are there. */
export const wishedSpots = (db: Reader) =>
  db.all<Place>(
    `SELECT DISTINCT b.item_id, b.bin_id, b.lot_id FROM count_wish w JOIN balance b ON b.item_id = w.item_id
       AND b.bin_id = w.bin_id AND (w.lot_id IS NULL OR b.lot_id = w.lot_id)
     WHERE w.settled_at IS NULL AND b.holder_id IS NULL AND b.quantity <> 0`,
  );

/** What was counted needs no counting any more. */
export const settleCounted = (tx: Writer, countId: number, at: string) =>
  tx.run(
    `UPDATE count_wish SET settled_at = $1 WHERE settled_at IS NULL AND EXISTS (SELECT 1 FROM stock_count_line l
       WHERE l.count_id = $2 AND l.counted IS NOT NULL AND l.item_id = count_wish.item_id AND l.bin_id = count_wish.bin_id
         AND (count_wish.lot_id IS NULL OR l.lot_id = count_wish.lot_id))`,
    [at, countId],
  );

/** What an approval had settled is to be counted again, since that was undone; where somebody asked for it anew, it is. */
export const wishAgain = (tx: Writer, documentId: number) =>
  tx.run(
    'UPDATE OR IGNORE count_wish SET settled_at = NULL WHERE settled_at = (SELECT at FROM document WHERE id = $1)',
    [documentId],
  );
