import { readLineCode } from '@yosegi/core/builds';
import type { Reader } from '../db/database.ts';

/** The build, and the line of it, that a barcode of a bench sheet means. */
export async function readScanned(db: Reader, code: string) {
  const read = readLineCode(code);
  const nothing = { buildId: null, repairId: null, lineId: null };
  if (!read) return nothing;
  const row = await db.one<{ id: number; repair_id: number | null; line_id: number | null }>(
    `SELECT b.id, b.repair_id, (SELECT id FROM build_line WHERE build_id = b.id AND id = $2) AS line_id
     FROM build b WHERE b.number = $1 COLLATE NOCASE`,
    [read.number, read.lineId],
  );
  return row ? { buildId: row.id, repairId: row.repair_id, lineId: row.line_id } : nothing;
}
