import type { Piece } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { decimal } from '../http/amounts.ts';

/**
 * The lots and serials of parts that the finishes of these very units used, by part: what is to be expected when they
 * are taken apart. Of several units finished together all their parts are named, for a person to choose from.
 */
export async function wentInto(
  db: Reader,
  itemId: number,
  lot: string | null,
  serials: readonly string[],
): Promise<Map<number, Piece[]>> {
  const rows = await db.all<{
    item_id: number;
    lot: string | null;
    best_before: string | null;
    serial: string | null;
    quantity: number;
  }>(
    `SELECT m.item_id, l.code AS lot, l.best_before, s.code AS serial, -sum(m.quantity) AS quantity
     FROM movement m LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial s ON s.id = m.serial_id
     WHERE m.quantity < 0 AND (m.lot_id IS NOT NULL OR m.serial_id IS NOT NULL) AND m.item_id <> $1
       AND m.document_id IN (
         SELECT o.document_id FROM movement o JOIN document d ON d.id = o.document_id
         WHERE o.item_id = $1 AND o.quantity > 0 AND d.kind = 'finish'
           AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
           AND (o.lot_id IN (SELECT id FROM lot WHERE item_id = $1 AND code = $2)
             OR o.serial_id IN (SELECT id FROM serial WHERE item_id = $1 AND code IN (SELECT value FROM json_each($3)))))
     GROUP BY m.item_id, m.lot_id, m.serial_id ORDER BY m.item_id, s.code, l.code LIMIT 2000`,
    [itemId, lot, JSON.stringify(serials)],
  );
  const byPart = new Map<number, Piece[]>();
  for (const { item_id, best_before, quantity, ...codes } of rows) {
    const piece = { ...codes, bestBefore: best_before, quantity: decimal(quantity), held: null };
    byPart.set(item_id, [...(byPart.get(item_id) ?? []), piece]);
  }
  return byPart;
}
