import type { Piece } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';

/** Finishes that stand and brought the lot $2 or the serials $3 of the item $1. */
const FINISHES = `SELECT o.document_id FROM movement o JOIN document d ON d.id = o.document_id
  WHERE o.item_id = $1 AND o.quantity > 0 AND d.kind = 'finish'
    AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
    AND (o.lot_id IN (SELECT id FROM lot WHERE item_id = $1 AND code = $2)
      OR o.serial_id IN (SELECT id FROM serial WHERE item_id = $1 AND code IN (SELECT value FROM json_each($3))))`;

/** The documents that finished these units. */
export async function finishesOf(
  db: Reader,
  itemId: number,
  lot: string | null,
  serials: readonly string[],
): Promise<ReadonlySet<number>> {
  const rows = await db.all<{ document_id: number }>(FINISHES, [itemId, lot, JSON.stringify(serials)]);
  return new Set(rows.map((row) => row.document_id));
}

/**
 * A part's serial comes out of the unit that it went into. Of a product that is not tracked nobody can tell which unit
 * that is, so any of its finishes will do; what went into a unit that is gone may turn up anywhere.
 * @throws Refusal `serial-elsewhere` for one that sits in another unit that is still here
 */
export async function refuseElsewhere(
  db: Reader,
  product: { readonly id: number; readonly tracking: string },
  finishes: ReadonlySet<number>,
  serialIds: readonly number[],
  field: string,
): Promise<void> {
  const rows = await db.all<{ code: string; document_id: number; item_id: number; build: string; unit: string | null }>(
    `SELECT s.code, d.id AS document_id, b.item_id, b.number AS build,
       (SELECT coalesce(c.code, l.code, i.name) FROM movement o JOIN item i ON i.id = o.item_id
        LEFT JOIN serial c ON c.id = o.serial_id LEFT JOIN lot l ON l.id = o.lot_id
        WHERE o.document_id = d.id AND o.item_id = b.item_id AND o.quantity > 0 AND EXISTS (
          SELECT 1 FROM balance p WHERE p.item_id = o.item_id AND p.lot_id IS o.lot_id AND p.serial_id IS o.serial_id
            AND p.quantity > 0) LIMIT 1) AS unit
     FROM serial s JOIN movement m ON m.id = (SELECT max(m.id) FROM movement m JOIN document d ON d.id = m.document_id
       WHERE m.serial_id = s.id AND d.reverses_id IS NULL AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id))
     JOIN document d ON d.id = m.document_id AND d.kind = 'finish' JOIN build b ON d.for_kind = 'build' AND b.id = d.for_id
     WHERE m.quantity < 0 AND s.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(serialIds)],
  );
  const wrong = rows.find(
    (row) =>
      row.unit !== null &&
      !finishes.has(row.document_id) &&
      (row.item_id !== product.id || product.tracking !== 'none'),
  );
  if (!wrong) return;
  const { code, unit, build } = wrong;
  throw new Refusal('serial-elsewhere', { code, unit: unit ?? '', build }, field);
}

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
       AND m.document_id IN (${FINISHES})
     GROUP BY m.item_id, m.lot_id, m.serial_id ORDER BY m.item_id, s.code, l.code LIMIT 2000`,
    [itemId, lot, JSON.stringify(serials)],
  );
  const byPart = new Map<number, Piece[]>();
  for (const { item_id, best_before, quantity, ...codes } of rows) {
    const piece = { ...codes, bestBefore: best_before, says: '', quantity: decimal(quantity), value: null, held: null };
    byPart.set(item_id, [...(byPart.get(item_id) ?? []), piece]);
  }
  return byPart;
}

/** What these serials of an item are worth together; null where there is none. */
export async function ownValueOf(db: Reader, itemId: number, codes: readonly string[]): Promise<string | null> {
  const row = await db.one<{ value: number | null }>(
    'SELECT sum(value) AS value FROM serial WHERE item_id = $1 AND code IN (SELECT value FROM json_each($2))',
    [itemId, JSON.stringify(codes)],
  );
  return decimalOrNull(row?.value ?? null);
}
