import { isRefusal, refusalOf } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';

/** Lets a refusal that speaks of items and bins name them, so that a person can act on it. */
export async function withNames<T>(db: Reader, work: () => Promise<T> | T): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!isRefusal(error, 'stock-short', 'serial-not-there', 'serial-in-stock', 'undo-goods-gone')) throw error;
    const { lines } = error.facts;
    const names = await db.driver.all<{ item_id: number; code: string; name: string; unit: string }>(
      `SELECT i.id AS item_id, i.code, i.name, u.code AS unit FROM item i JOIN unit u ON u.id = i.unit_id
       WHERE i.id IN (SELECT value FROM json_each($1))`,
      [JSON.stringify(lines.map((line) => line.itemId))],
    );
    const bins = await db.driver.all<{ id: number; code: string; store: string }>(
      `SELECT b.id, b.code, s.name AS store FROM bin b JOIN store s ON s.id = b.store_id
       WHERE b.id IN (SELECT value FROM json_each($1))`,
      [JSON.stringify(lines.map((line) => line.binId))],
    );
    const lots = await db.driver.all<{ id: number; code: string }>(
      'SELECT id, code FROM lot WHERE id IN (SELECT value FROM json_each($1))',
      [JSON.stringify(lines.map((line) => line.lotId ?? 0))],
    );
    const serials = await db.driver.all<{ id: number; code: string; now: string | null; held_for: string | null }>(
      `SELECT s.id, s.code, (SELECT t.name || ', ' || n.code FROM balance b JOIN bin n ON n.id = b.bin_id
         JOIN store t ON t.id = n.store_id WHERE b.serial_id = s.id LIMIT 1) AS now,
         (SELECT h.number FROM balance b JOIN numbered h ON h.kind = b.holder_kind AND h.id = b.holder_id
           WHERE b.serial_id = s.id LIMIT 1) AS held_for
       FROM serial s WHERE s.id IN (SELECT value FROM json_each($1))`,
      [JSON.stringify(lines.map((line) => line.serialId ?? 0))],
    );
    const named = lines.map((line) => {
      const item = names.find((row) => row.item_id === line.itemId);
      const bin = bins.find((row) => row.id === line.binId);
      const lot = lots.find((row) => row.id === line.lotId);
      const serial = serials.find((row) => row.id === line.serialId);
      return {
        ...line,
        code: item?.code,
        name: item?.name,
        unit: item?.unit,
        bin: bin?.code,
        store: bin?.store,
        lot: lot?.code,
        serial: serial?.code,
        now: serial ? (serial.now ?? 'not in stock') : undefined,
        heldFor: serial?.held_for ?? undefined,
      };
    });
    throw refusalOf({ code: error.code, facts: { lines: named } }, error.field);
  }
}
