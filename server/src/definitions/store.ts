import type { Definition, Line, Revision } from '@yosegi/contract';
import type { Line as CoreLine, Revision as CoreRevision } from '@yosegi/core/definition';
import type { Money, Percent, Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { found } from '../http/context.ts';
import { type ItemRow, itemRow, itemRows, toItem } from '../items/store.ts';

export interface RevisionRow {
  id: number;
  definition_id: number;
  item_id: number;
  number: number;
  state: Revision['state'];
  output_quantity: number;
  in_use_from: string | null;
  version: number;
}

export interface LineRow {
  id: number;
  revision_id: number;
  position: number;
  kind: Line['kind'];
  text: string;
  item_id: number | null;
  basis: 'per-output' | 'per-run';
  amount: number;
  waste: number;
  taken: 'picked-first' | 'when-finished' | null;
  share: number | null;
  comes_back: number;
  rate_id: number | null;
  rate_per_hour: number | null;
}

export const REVISION_SQL = `
  SELECT r.id, r.definition_id, d.item_id, r.number, r.state, r.output_quantity, r.in_use_from, r.version
  FROM revision r JOIN definition d ON d.id = r.definition_id`;
export const LINE_SQL = `
  SELECT l.id, l.revision_id, l.position, l.kind, l.text, l.item_id, l.basis, l.amount, l.waste, l.taken, l.share,
    l.comes_back, l.rate_id, t.per_hour AS rate_per_hour
  FROM revision_line l LEFT JOIN rate t ON t.id = l.rate_id`;

export const revisionRow = (db: Reader, id: number) => db.one<RevisionRow>(`${REVISION_SQL} WHERE r.id = $1`, [id]);
export const revisionLines = (db: Reader, id: number) =>
  db.all<LineRow>(`${LINE_SQL} WHERE l.revision_id = $1 ORDER BY l.position`, [id]);
export const revisionInUse = (db: Reader, itemId: number) =>
  db.one<RevisionRow>(`${REVISION_SQL} WHERE d.item_id = $1 AND d.purpose = 'build' AND r.state = 'in-use'`, [itemId]);

/** A line as the core computes with it; its item's decimals come along because needs are rounded to them. */
export function toCoreLine(
  line: Omit<LineRow, 'id' | 'revision_id' | 'position' | 'text' | 'rate_id' | 'share'>,
  decimals: number,
): CoreLine {
  const { kind, basis } = line;
  if (kind === 'part') {
    return {
      kind,
      basis,
      itemId: line.item_id ?? 0,
      quantity: line.amount as Quantity,
      waste: line.waste as Percent,
      taken: line.taken ?? 'picked-first',
      decimals,
    };
  }
  if (kind === 'labour')
    return { kind, basis, minutes: line.amount as Quantity, ratePerHour: (line.rate_per_hour ?? 0) as Money };
  if (kind === 'charge') return { kind, basis, amount: line.amount as Money };
  return { kind };
}

export const toCoreRevision = (
  outputQuantity: number,
  lines: readonly LineRow[],
  decimalsOf: (itemId: number) => number,
): CoreRevision => ({
  outputQuantity: outputQuantity as Quantity,
  lines: lines.map((line) => toCoreLine(line, line.item_id === null ? 0 : decimalsOf(line.item_id))),
});

/** A bill of materials with all its revisions, the newest first. */
export async function readDefinition(db: Reader, id: number): Promise<Definition> {
  const { item_id } = found(await db.one<{ item_id: number }>('SELECT item_id FROM definition WHERE id = $1', [id]));
  const revisions = await db.all<RevisionRow>(`${REVISION_SQL} WHERE r.definition_id = $1 ORDER BY r.number DESC`, [
    id,
  ]);
  const lines = await db.all<LineRow>(
    `${LINE_SQL} WHERE l.revision_id IN (SELECT id FROM revision WHERE definition_id = $1) ORDER BY l.position`,
    [id],
  );
  const parts = await itemRows(
    db,
    lines.flatMap((line) => line.item_id ?? []),
  );
  return {
    id,
    item: toItem(found(await itemRow(db, item_id))),
    revisions: revisions.map((row) => ({
      id: row.id,
      number: row.number,
      state: row.state,
      outputQuantity: decimal(row.output_quantity),
      inUseFrom: row.in_use_from,
      version: row.version,
      lines: lines.filter((line) => line.revision_id === row.id).map((line) => toLine(line, parts)),
    })),
  };
}

function toLine(line: LineRow, parts: ReadonlyMap<number, ItemRow>): Line {
  const { kind, basis, text } = line;
  if (kind === 'part') {
    const item = toItem(found(parts.get(line.item_id ?? 0)));
    return {
      kind,
      itemId: item.id,
      item,
      basis,
      quantity: decimal(line.amount),
      waste: decimal(line.waste),
      taken: line.taken ?? 'picked-first',
      share: decimalOrNull(line.share),
      comesBack: line.comes_back === 1,
    };
  }
  if (kind === 'labour') {
    const rate = { rateId: line.rate_id ?? 0, ratePerHour: decimal(line.rate_per_hour ?? 0) };
    return { kind, text, basis, minutes: decimal(line.amount), ...rate };
  }
  if (kind === 'charge') return { kind, text, basis, amount: decimal(line.amount) };
  return { kind, text };
}
