import type { Purpose } from '@yosegi/contract';
import type { Revision } from '@yosegi/core/definition';
import type { Reader } from '../db/database.ts';
import { type ItemRow, itemRows } from '../items/store.ts';
import { LINE_SQL, type LineRow, REVISION_SQL, type RevisionRow, toCoreRevision } from './store.ts';

/** A revision with its lines and parts, ready for the core. */
export interface LoadedRevision {
  readonly revision: RevisionRow;
  readonly lines: readonly LineRow[];
  readonly core: Revision;
  readonly product: ItemRow;
  readonly parts: ReadonlyMap<number, ItemRow>;
}

/**
 * Revisions whose ids the SQL selects, each with what costing it takes, in a handful of queries for all of them.
 * @param select a SELECT of revision ids
 */
export async function loadRevisions(db: Reader, select: string, bind: readonly (string | number)[] = []) {
  const revisions = await db.all<RevisionRow>(`${REVISION_SQL} WHERE r.id IN (${select})`, bind);
  const lines = await db.all<LineRow>(`${LINE_SQL} WHERE l.revision_id IN (${select}) ORDER BY l.position`, bind);
  const parts = await itemRows(db, [
    ...revisions.map((revision) => revision.item_id),
    ...lines.flatMap((line) => line.item_id ?? []),
  ]);
  const byRevision = new Map<number, LineRow[]>(revisions.map((revision) => [revision.id, []]));
  for (const line of lines) byRevision.get(line.revision_id)?.push(line);
  const loaded = revisions.flatMap((revision): LoadedRevision[] => {
    const product = parts.get(revision.item_id);
    const own = byRevision.get(revision.id) ?? [];
    const core = toCoreRevision(revision.output_quantity, own, (itemId) => parts.get(itemId)?.decimals ?? 0);
    return product ? [{ revision, lines: own, core, product, parts }] : [];
  });
  return loaded.sort((a, b) => a.product.code.localeCompare(b.product.code, 'en', { sensitivity: 'base' }));
}

/** Revisions in use that list a part. */
export const usesOf = (db: Reader, partId: number, purposes: readonly Purpose[] = ['build', 'rework', 'record']) =>
  loadRevisions(
    db,
    `SELECT r.id FROM revision_line l JOIN revision r ON r.id = l.revision_id AND r.state = 'in-use'
     JOIN definition d ON d.id = r.definition_id WHERE l.item_id = $1
     AND d.purpose IN (SELECT value FROM json_each($2))`,
    [partId, JSON.stringify(purposes)],
  );
