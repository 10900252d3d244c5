import type { Reader } from '../db/database.ts';

/** The bin that each line of a build was last picked from: where what is left over goes back to. */
export async function lastPickedFrom(db: Reader, buildId: number): Promise<Map<number, number>> {
  const rows = await db.all<{ build_line_id: number; bin_id: number }>(
    `SELECT m.build_line_id, m.bin_id FROM movement m JOIN document d ON d.id = m.document_id
     WHERE d.build_id = $1 AND d.kind = 'pick' AND m.quantity < 0 ORDER BY m.id`,
    [buildId],
  );
  return new Map(rows.map((row) => [row.build_line_id, row.bin_id]));
}
