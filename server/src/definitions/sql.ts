import type { Behaviour, Definition, Line, SavedRevision } from '@yosegi/contract';
import type { Behaviour as CoreBehaviour, Line as CoreLine, Revision as CoreRevision } from '@yosegi/core/definitions';
import { type Money, type Quantity, ZERO } from '@yosegi/core/number';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { type ItemRow, itemRow, itemRows, toItem } from '../items/index.ts';

export type DefinitionRecord = Row<'definition'>;
export type RevisionRow = Row<'revision'> & Pick<Row<'definition'>, 'item_id' | 'purpose'>;
/** A line with its rate. */
export type LineRow = Row<'revision_line'> & { rate_per_hour: Row<'rate'>['per_hour'] | null };
export type AlternateRow = Pick<Row<'revision_line_alternate'>, 'line_id' | 'item_id' | 'ratio'>;

export const REVISION_SQL = `
  SELECT r.id, r.definition_id, d.item_id, d.purpose, r.number, r.state, r.output_quantity, r.in_use_from, r.sell_price, r.version
  FROM revision r JOIN definition d ON d.id = r.definition_id`;
export const LINE_SQL = `
  SELECT l.id, l.revision_id, l.position, l.kind, l.text, l.item_id, l.from_bin_id, l.basis, l.amount, l.waste, l.taken,
    l.share, l.comes_back, l.rate_id, l.tolerance, t.per_hour AS rate_per_hour
  FROM revision_line l LEFT JOIN rate t ON t.id = l.rate_id`;

export const definitionRecord = (db: Reader, id: number) =>
  db.one<DefinitionRecord>('SELECT * FROM definition WHERE id = $1', [id]);
export const revisionRow = (db: Reader, id: number) => db.one<RevisionRow>(`${REVISION_SQL} WHERE r.id = $1`, [id]);
export const revisionLines = (db: Reader, id: number) =>
  db.all<LineRow>(`${LINE_SQL} WHERE l.revision_id = $1 ORDER BY l.position`, [id]);
/** The lines of several revisions. */
export const linesOfRevisions = (db: Reader, ids: readonly number[]) =>
  db.all<LineRow>(`${LINE_SQL} WHERE l.revision_id IN (SELECT value FROM json_each($1)) ORDER BY l.position`, [
    JSON.stringify(ids),
  ]);
/** What builds several items now. */
export const revisionsInUse = (db: Reader, itemIds: readonly number[]) =>
  db.all<RevisionRow>(
    `${REVISION_SQL} WHERE d.item_id IN (SELECT value FROM json_each($1)) AND d.purpose = 'build' AND r.state = 'in-use'`,
    [JSON.stringify(itemIds)],
  );
export const revisionInUse = (db: Reader, itemId: number, purpose: RevisionRow['purpose'] = 'build') =>
  db.one<RevisionRow>(`${REVISION_SQL} WHERE d.item_id = $1 AND d.purpose = $2 AND r.state = 'in-use'`, [
    itemId,
    purpose,
  ]);

/** A revision that was started or changed, as a command answers of it. */
export async function savedRevision(tx: Reader, id: number): Promise<SavedRevision> {
  const {
    definition_id: definitionId,
    number,
    version,
    state,
    in_use_from: inUseFrom,
  } = found(await revisionRow(tx, id));
  return { id, definitionId, number, version, state, inUseFrom };
}

/** Copies the lines of a revision, with their alternates, into one that has none. */
export async function copyLines(tx: Writer, from: number, to: number): Promise<void> {
  await tx.run(
    'UPDATE revision SET output_quantity = (SELECT output_quantity FROM revision WHERE id = $1) WHERE id = $2',
    [from, to],
  );
  await tx.run(
    `INSERT INTO revision_line (revision_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, share, comes_back, rate_id, tolerance)
     SELECT $2, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, share, comes_back, rate_id, tolerance
     FROM revision_line WHERE revision_id = $1`,
    [from, to],
  );
  await tx.run(
    `INSERT INTO revision_line_alternate (line_id, position, item_id, ratio)
     SELECT copy.id, a.position, a.item_id, a.ratio FROM revision_line_alternate a
     JOIN revision_line line ON line.id = a.line_id AND line.revision_id = $1
     JOIN revision_line copy ON copy.revision_id = $2 AND copy.position = line.position`,
    [from, to],
  );
}

/** A line as the core computes with it; its item's decimals come along because needs are rounded to them. */
export function toCoreLine(
  line: Pick<LineRow, 'kind' | 'basis' | 'item_id' | 'amount' | 'waste' | 'taken' | 'rate_per_hour'>,
  decimals: number,
): CoreLine {
  const { kind, basis } = line;
  if (kind === 'part') {
    return {
      kind,
      basis,
      itemId: line.item_id ?? 0,
      quantity: line.amount as Quantity,
      waste: line.waste,
      taken: line.taken ?? 'picked-first',
      decimals,
    };
  }
  if (kind === 'labour')
    return { kind, basis, minutes: line.amount as Quantity, ratePerHour: line.rate_per_hour ?? ZERO };
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

export const toCoreBehaviour = (row: DefinitionRecord): CoreBehaviour => ({
  made: row.made,
  paperwork: row.paperwork,
  onOrder: row.on_order,
  swapFor: row.swap_for,
  price: row.price_from,
  discount: row.discount,
});

/** A bill of materials with all its revisions, the newest first. */
export async function readDefinition(db: Reader, id: number): Promise<Definition> {
  const record = found(await definitionRecord(db, id));
  const revisions = await db.all<RevisionRow>(`${REVISION_SQL} WHERE r.definition_id = $1 ORDER BY r.number DESC`, [
    id,
  ]);
  const lines = await db.all<LineRow>(
    `${LINE_SQL} WHERE l.revision_id IN (SELECT id FROM revision WHERE definition_id = $1) ORDER BY l.position`,
    [id],
  );
  const alternates = await db.all<AlternateRow>(
    `SELECT line_id, item_id, ratio FROM revision_line_alternate WHERE line_id IN (
       SELECT l.id FROM revision_line l JOIN revision r ON r.id = l.revision_id WHERE r.definition_id = $1)
     ORDER BY line_id, position`,
    [id],
  );
  const parts = await itemRows(db, [
    ...lines.flatMap((line) => line.item_id ?? []),
    ...alternates.map((alternate) => alternate.item_id),
  ]);
  const fields = await db.models.definition_field.findAll({ where: { definition_id: id }, order: ['name'] });
  return {
    id,
    item: toItem(found(await itemRow(db, record.item_id))),
    purpose: record.purpose,
    behaviour: toBehaviour(record),
    fields: fields.map(({ name, value }) => ({ name, value })),
    version: record.version,
    openBuilds: await openBuilds(db, id),
    revisions: revisions.map((row) => ({
      id: row.id,
      number: row.number,
      state: row.state,
      outputQuantity: decimal(row.output_quantity),
      inUseFrom: row.in_use_from,
      sellPrice: decimalOrNull(row.sell_price),
      version: row.version,
      lines: lines
        .filter((line) => line.revision_id === row.id)
        .map((line) =>
          toLine(
            line,
            alternates.filter((alternate) => alternate.line_id === line.id),
            parts,
          ),
        ),
    })),
  };
}

const toBehaviour = (row: DefinitionRecord): Behaviour => ({
  made: row.made,
  paperwork: row.paperwork,
  onOrder: row.on_order,
  swapFor: row.swap_for,
  price: row.price_from,
  discount: decimal(row.discount),
  benchDays: row.bench_days,
  tasksFirst: row.tasks_first === 1,
});

/** Builds that are not over, with the revision each took. */
async function openBuilds(db: Reader, definitionId: number): Promise<Definition['openBuilds']> {
  const rows = await db.all<{
    id: number;
    number: string;
    state: 'planned' | 'on-bench';
    quantity: number;
    revision_id: number;
    revision: number;
  }>(
    `SELECT b.id, b.number, b.state, b.quantity, b.revision_id, r.number AS revision
     FROM revision r JOIN build b ON b.revision_id = r.id
     WHERE r.definition_id = $1 AND b.state IN ('planned', 'on-bench') ORDER BY b.id`,
    [definitionId],
  );
  return rows.map(({ revision_id, quantity, ...row }) => ({
    ...row,
    quantity: decimal(quantity),
    revisionId: revision_id,
  }));
}

function toLine(line: LineRow, alternates: readonly AlternateRow[], parts: ReadonlyMap<number, ItemRow>): Line {
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
      fromBinId: line.from_bin_id,
      tolerance: decimalOrNull(line.tolerance),
      alternates: alternates.map(({ item_id, ratio }) => ({
        itemId: item_id,
        ratio: decimal(ratio),
        item: toItem(found(parts.get(item_id))),
      })),
    };
  }
  if (kind === 'labour') {
    const rate = { rateId: line.rate_id ?? 0, ratePerHour: decimal(line.rate_per_hour ?? 0) };
    return { kind, text, basis, minutes: decimal(line.amount), ...rate };
  }
  if (kind === 'charge') return { kind, text, basis, amount: decimal(line.amount) };
  return { kind, text };
}
