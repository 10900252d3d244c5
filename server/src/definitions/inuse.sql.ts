import type { Purpose } from '@yosegi/contract';
import { definitionCost, type Revision } from '@yosegi/core/definitions';
import type { Money } from '@yosegi/core/number';
import { orNull } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { type ItemRow, withBuiltCosts } from '../items/index.ts';
import { LINE_SQL, type LineRow, REVISION_SQL, type RevisionRow, toCoreRevision } from './sql.ts';

/** What costing takes of an item; reading no more of it lets thousands of definitions be costed at once. */
export type CostRow = Pick<
  ItemRow,
  | 'id'
  | 'code'
  | 'name'
  | 'unit'
  | 'decimals'
  | 'sell_price'
  | 'standard_cost'
  | 'latest_cost'
  | 'archived_at'
  | 'quantity'
  | 'value'
  | 'last_cost'
  | 'built'
>;

/** A revision with its lines and parts, ready for the core. */
export interface LoadedRevision {
  readonly revision: RevisionRow;
  readonly lines: readonly LineRow[];
  readonly core: Revision;
  readonly product: CostRow;
  readonly parts: ReadonlyMap<number, CostRow>;
}

/**
 * Revisions whose ids the SQL selects, each with what costing it takes, in a handful of queries for all of them.
 * @param select a SELECT of revision ids
 */
export async function loadRevisions(db: Reader, select: string, bind: readonly (string | number)[] = []) {
  const revisions = await db.all<RevisionRow>(`${REVISION_SQL} WHERE r.id IN (${select})`, bind);
  const lines = await db.all<LineRow>(`${LINE_SQL} WHERE l.revision_id IN (${select}) ORDER BY l.position`, bind);
  const parts = await costRows(db, [
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

/** What one unit costs; null when that is more than can be kept. */
export const unitCostOrNull = (revision: Revision, unitCost: (itemId: number) => Money): Money | null =>
  orNull(() => definitionCost(revision, unitCost).perUnit);

async function costRows(db: Reader, ids: readonly number[]): Promise<Map<number, CostRow>> {
  const rows = await db.all<CostRow>(
    `SELECT i.id, i.code, i.name, u.code AS unit, u.decimals, i.sell_price, i.standard_cost, i.latest_cost, i.archived_at,
       ifnull(s.quantity, 0) AS quantity, ifnull(s.value, 0) AS value, ifnull(s.last_cost, 0) AS last_cost
     FROM item i JOIN unit u ON u.id = i.unit_id LEFT JOIN item_stock s ON s.item_id = i.id
     WHERE i.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify([...new Set(ids)])],
  );
  return new Map((await withBuiltCosts(db, rows)).map((row) => [row.id, row]));
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

/** The revision in use of every definition, or its newest while none is. */
export const loadJudged = (db: Reader) =>
  loadRevisions(
    db,
    `SELECT id FROM revision r WHERE state = 'in-use' OR (
       number = (SELECT max(number) FROM revision WHERE definition_id = r.definition_id)
       AND NOT EXISTS (SELECT 1 FROM revision WHERE definition_id = r.definition_id AND state = 'in-use'))`,
  );
