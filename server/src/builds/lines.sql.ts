import type { Quantity } from '@yosegi/core/number';
import type { Reader, Writer } from '../db/database.ts';
import { STANDS } from '../ledger/index.ts';

/** Gives a build the lines of a revision, at the rates of today. */
export async function copyRevisionLines(tx: Writer, buildId: number, revisionId: number): Promise<void> {
  await tx.run(
    `INSERT INTO build_line (build_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back, tolerance)
     SELECT $1, l.position, l.kind, l.text, l.item_id, l.from_bin_id, l.basis, l.amount, l.waste, l.taken, t.per_hour, l.share, l.comes_back, l.tolerance
     FROM revision_line l LEFT JOIN rate t ON t.id = l.rate_id WHERE l.revision_id = $2`,
    [buildId, revisionId],
  );
}

/** Gives a build the lines of another. */
export async function copyBuildLines(tx: Writer, buildId: number, from: number): Promise<void> {
  await tx.run(
    `INSERT INTO build_line (build_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back, tolerance)
     SELECT $1, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, rate_per_hour, share, comes_back, tolerance
     FROM build_line WHERE build_id = $2 AND added_by IS NULL`,
    [buildId, from],
  );
}

/** The bin that each line of a build was last picked from: where what is left over goes back to. */
export async function lastPickedFrom(db: Reader, buildId: number): Promise<Map<number, number>> {
  const rows = await db.all<{ line_id: number; bin_id: number }>(
    `SELECT m.line_id, m.bin_id FROM movement m JOIN document d ON d.id = m.document_id
     WHERE d.for_kind = 'build' AND d.for_id = $1 AND d.kind = 'pick' AND m.quantity < 0 AND ${STANDS} ORDER BY m.id`,
    [buildId],
  );
  return new Map(rows.map((row) => [row.line_id, row.bin_id]));
}

/** Keeps the figures of lines that have changed. */
export const setLines = (
  tx: Writer,
  kept: readonly (readonly [lineId: number, onBench: Quantity, used: Quantity, open: Quantity])[],
) =>
  tx.run(
    `UPDATE build_line SET on_bench = v.value ->> 1, used = v.value ->> 2, open = v.value ->> 3
     FROM json_each($1) v WHERE build_line.id = v.value ->> 0`,
    [JSON.stringify(kept)],
  );

/** What the last finishes of builds of a revision planned and used, by the position of the line; what was undone is left out. */
export const pastUses = (db: Reader, revisionId: number, finishes: number) =>
  db.all<{ position: number; planned: Quantity; actual: Quantity }>(
    `SELECT l.position, f.planned, f.actual FROM finish_line f JOIN build_line l ON l.id = f.build_line_id
     WHERE l.added_by IS NULL AND l.kind IN ('part', 'labour') AND f.document_id IN (
       SELECT n.document_id FROM finish n JOIN build b ON b.id = n.build_id AND b.revision_id = $1
       WHERE NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = n.document_id)
       ORDER BY n.document_id DESC LIMIT $2)`,
    [revisionId, finishes],
  );
