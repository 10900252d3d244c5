import type { Snapshot } from '@yosegi/contract';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { type AlternateRow, LINE_SQL, type LineRow, REVISION_SQL, type RevisionRow } from '../definitions/index.ts';
import { comesOn, readComing } from '../demand/index.ts';
import { averageCostOf, ITEM_SQL, type ItemRow, toMeasures } from '../items/index.ts';

/** Everything coverage is computed from, at this moment, in a handful of queries. */
export async function readSnapshot(db: Reader, today: string): Promise<Snapshot> {
  const items = await db.all<ItemRow>(`${ITEM_SQL} WHERE i.archived_at IS NULL ORDER BY i.code COLLATE NOCASE`);
  const revisions = await db.all<RevisionRow>(`${REVISION_SQL} WHERE r.state = 'in-use' AND d.purpose = 'build'`);
  const lines = await db.all<LineRow>(
    `${LINE_SQL} WHERE l.revision_id IN (SELECT id FROM revision WHERE state = 'in-use') ORDER BY l.revision_id, l.position`,
  );
  const byRevision = new Map<number, LineRow[]>();
  for (const line of lines) {
    const known = byRevision.get(line.revision_id);
    if (known) known.push(line);
    else byRevision.set(line.revision_id, [line]);
  }
  const alternates = await db.all<AlternateRow>(
    `SELECT a.line_id, a.item_id, a.ratio FROM revision_line_alternate a JOIN item i ON i.id = a.item_id
     WHERE i.archived_at IS NULL AND a.line_id IN (SELECT l.id FROM revision_line l
       JOIN revision r ON r.id = l.revision_id WHERE r.state = 'in-use') ORDER BY a.line_id, a.position`,
  );
  const byLine = new Map<number, AlternateRow[]>();
  for (const alternate of alternates) {
    const known = byLine.get(alternate.line_id);
    if (known) known.push(alternate);
    else byLine.set(alternate.line_id, [alternate]);
  }
  const coming = await readComing(db);
  return {
    items: items.map((row) => ({
      id: row.id,
      code: row.code,
      name: row.name,
      unit: row.unit,
      decimals: row.decimals,
      measures: toMeasures(row.measures),
      homeBin: row.home_bin,
      onHand: decimal(row.usable),
      promised: decimal(row.promised),
      averageCost: decimal(averageCostOf(row)),
      definitionId: row.definition_id,
    })),
    definitions: revisions.map((revision) => definitionOf(revision, byRevision.get(revision.id) ?? [], byLine)),
    coming: coming.map((row) => ({
      itemId: row.item_id,
      quantity: decimal(row.quantity),
      date: comesOn(row, today),
      from: row.number,
    })),
  };
}

function definitionOf(
  revision: RevisionRow,
  lines: readonly LineRow[],
  alternates: ReadonlyMap<number, readonly AlternateRow[]>,
): Snapshot['definitions'][number] {
  return {
    itemId: revision.item_id,
    outputQuantity: decimal(revision.output_quantity),
    parts: lines.flatMap((line) =>
      line.item_id === null
        ? []
        : {
            itemId: line.item_id,
            basis: line.basis,
            quantity: decimal(line.amount),
            waste: decimal(line.waste),
            taken: line.taken ?? 'picked-first',
            alternates: (alternates.get(line.id) ?? []).map(({ item_id, ratio }) => ({
              itemId: item_id,
              ratio: decimal(ratio),
            })),
          },
    ),
    labour: lines.flatMap((line) =>
      line.kind === 'labour'
        ? { basis: line.basis, minutes: decimal(line.amount), ratePerHour: decimal(line.rate_per_hour ?? 0) }
        : [],
    ),
    charges: lines.flatMap((line) =>
      line.kind === 'charge' ? { basis: line.basis, amount: decimal(line.amount) } : [],
    ),
  };
}
