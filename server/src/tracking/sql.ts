import { isRefusal } from '@yosegi/core/refusal';
import { nextFreeBlock, numberIn, parsePattern, serialAt, writeSerials } from '@yosegi/core/tracking';
import type { Reader } from '../db/database.ts';

export interface KnownSerial {
  readonly id: number;
  readonly code: string;
  readonly inStock: boolean;
  /** A customer's, and here to be repaired. */
  readonly inRepair: boolean;
  /** Whether it ever really was here: not only in postings that were undone. */
  readonly wasHere: boolean;
  /** Where it is or went, in words. */
  readonly says: string;
}

/** Which of these codes an item has already, and what became of each. */
export async function clashesOf(db: Reader, itemId: number, codes: readonly string[]): Promise<KnownSerial[]> {
  const rows = await db.all<{
    id: number;
    code: string;
    place: string | null;
    held: string | null;
    last: string | null;
    repair: string | null;
  }>(
    `SELECT s.id, s.code,
       (SELECT t.name || ', ' || n.code FROM balance b JOIN bin n ON n.id = b.bin_id JOIN store t ON t.id = n.store_id
        WHERE b.serial_id = s.id AND b.quantity > 0 LIMIT 1) AS place,
       (SELECT iif(b.holder_kind = 'return', 'came back with ', 'stands ready for ') || u.number FROM balance b
        JOIN numbered u ON u.kind = b.holder_kind AND u.id = b.holder_id WHERE b.serial_id = s.id LIMIT 1) AS held,
       (SELECT d.number FROM movement m JOIN document d ON d.id = m.document_id WHERE m.serial_id = s.id
        AND d.kind <> 'undo' AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id)
        ORDER BY m.id DESC LIMIT 1) AS last,
       (SELECT 'belongs to ' || c.name || ', here for ' || r.number FROM repair r JOIN customer c ON c.id = r.customer_id
        WHERE r.serial_id = s.id AND r.state <> 'given-back') AS repair
     FROM serial s WHERE s.item_id = $1 AND s.code IN (SELECT value FROM json_each($2)) ORDER BY s.code`,
    [itemId, JSON.stringify(codes)],
  );
  return rows.map(({ id, code, place, held, last, repair }) => ({
    id,
    code,
    inStock: place !== null,
    inRepair: repair !== null,
    wasHere: last !== null,
    says: repair ?? held ?? (place ? `is in stock: ${place}` : last ? `left with ${last}` : 'was never ours'),
  }));
}

/** One of these units that is a customer's and here to be repaired, and whose it is in words. */
export const customersUnit = (db: Reader, itemId: number, codes: readonly string[]) =>
  db.one<{ code: string; says: string }>(
    `SELECT s.code, 'belongs to ' || c.name || ', here for ' || r.number AS says FROM serial s
     JOIN repair r ON r.serial_id = s.id AND r.state <> 'given-back' JOIN customer c ON c.id = r.customer_id
     WHERE s.item_id = $1 AND s.code IN (SELECT value FROM json_each($2)) LIMIT 1`,
    [itemId, JSON.stringify(codes)],
  );

/** What `work` decides of serials; where it does not find one that is known, it is said where that one is or went. */
export async function sayingWhere<T>(db: Reader, itemId: number, work: () => T): Promise<T> {
  try {
    return work();
  } catch (error) {
    if (!isRefusal(error, 'serial-unknown')) throw error;
    const [known] = await clashesOf(db, itemId, [error.facts.code]);
    throw error.at(error.field, known ? { says: known.says } : {});
  }
}

/** The next block of free serials by the item's pattern, as it is typed; null while it has none. */
export async function nextFree(
  db: Reader,
  item: { readonly id: number; readonly serial_pattern: string | null },
  count: number,
): Promise<string | null> {
  if (item.serial_pattern === null) return null;
  const pattern = parsePattern(item.serial_pattern);
  const rows = await db.all<{ code: string }>('SELECT code FROM serial WHERE item_id = $1', [item.id]);
  const taken = rows.flatMap(({ code }) => numberIn(pattern, code) ?? []);
  const first = nextFreeBlock(taken, count);
  return writeSerials(Array.from({ length: count }, (_, step) => serialAt(pattern, first + step)));
}
