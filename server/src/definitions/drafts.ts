import type { SavedRevision } from '@yosegi/contract';
import { balanceShares } from '@yosegi/core/definitions';
import { countedIn, ONE, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { SqlRow, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { updateVersioned } from '../db/versions.ts';
import { type ItemRow, itemRow, itemRows } from '../items/index.ts';
import { requireShelf } from '../places/index.ts';
import { dropAlternate } from './around.sql.ts';
import { refuseImpossibleParts } from './rules.ts';
import {
  copyLines,
  type LineRow,
  type RevisionRow,
  readDefinition,
  revisionLines,
  revisionRow,
  savedRevision,
} from './sql.ts';

/** Starts a bill of materials for an item, with revision 1 as a draft: empty, or with the lines of another revision. */
export async function createDefinition(doing: Doing, input: BodyOf<'createDefinition'>): Promise<SavedRevision> {
  const { tx } = doing;
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, 'itemId');
  const other = await tx.models.definition.findOne({ where: { item_id: item.id, purpose: input.purpose } });
  if (other) throw new Refusal('definition-exists', { id: other.id }, 'itemId');
  const id = await tx.insert('definition', { item_id: item.id, purpose: input.purpose });
  const draft = { definition_id: id, number: 1, state: 'draft' as const, output_quantity: ONE };
  const revisionId = await tx.insert('revision', draft);
  if (input.copyOf !== null) {
    found(await revisionRow(tx, input.copyOf));
    await copyLines(tx, input.copyOf, revisionId);
    // What is made here cannot stand in for its own part.
    await dropAlternate(tx, item.id, revisionId);
    await refuseImpossibleParts(tx, { item_id: item.id, purpose: input.purpose }, await revisionLines(tx, revisionId));
  } else if (input.purpose === 'rework') {
    // The thing itself goes in; what else is needed is for the owner to add.
    await tx.insert('revision_line', {
      revision_id: revisionId,
      position: 0,
      kind: 'part',
      item_id: item.id,
      amount: ONE,
      taken: 'picked-first',
    });
  }
  doing.changed('definitions', 'items');
  return savedRevision(tx, revisionId);
}

/** Starts a draft with the lines of the revision in use, or of the newest. */
export async function startRevision(doing: Doing, definitionId: number): Promise<SavedRevision> {
  const { id } = await newDraft(doing, definitionId);
  doing.changed('definitions');
  return savedRevision(doing.tx, id);
}

/** A new draft as a copy of the revision in use, or of the newest. @throws Refusal `draft-exists` */
export async function newDraft({ tx }: Doing, definitionId: number): Promise<{ id: number; number: number }> {
  const revisions = await tx.models.revision.findAll({
    where: { definition_id: definitionId },
    order: [['number', 'DESC']],
  });
  if (revisions.some((revision) => revision.state === 'draft')) throw new Refusal('draft-exists');
  const from = found(revisions.find((revision) => revision.state === 'in-use') ?? revisions[0]);
  const number = found(revisions[0]).number + 1;
  const draft = { definition_id: definitionId, number, state: 'draft' as const, output_quantity: ONE };
  const id = await tx.insert('revision', draft);
  await copyLines(tx, from.id, id);
  return { id, number };
}

type LineInput = BodyOf<'saveRevision'>['lines'][number];

/** Replaces the lines of a draft by what was typed. */
export async function saveRevision(doing: Doing, id: number, input: BodyOf<'saveRevision'>): Promise<SavedRevision> {
  const { tx } = doing;
  const revision = await requireDraft(tx, id);
  const product = found(await itemRow(tx, revision.item_id));
  const output = countedIn(input.outputQuantity, product.decimals, 'outputQuantity');
  const parts = await itemRows(
    tx,
    input.lines.flatMap((line) =>
      line.kind === 'part' ? [line.itemId, ...line.alternates.map((alternate) => alternate.itemId)] : [],
    ),
  );
  const rates = new Set((await tx.models.rate.findAll()).map((rate) => rate.id));
  const rows = input.lines.map((line, index) => lineRow(line, index, parts, rates));
  for (const [index, row] of rows.entries())
    if (row.from_bin_id !== null) await requireShelf(tx, row.from_bin_id, `lines.${index}.fromBinId`);
  const alternates = input.lines.map((line, index) => alternateRows(line, index, parts, product));
  refuseImpossibleShares(rows);
  await refuseImpossibleParts(tx, revision, rows);
  const values = { output_quantity: output, sell_price: input.sellPrice };
  await updateVersioned(tx, 'revision', id, input.version, values, () => readDefinition(tx, revision.definition_id));
  await writeLines(tx, id, rows, alternates);
  doing.changed('definitions');
  return savedRevision(tx, id);
}

/** Throws a draft away; a definition without any revision goes with it. */
export async function discardRevision(doing: Doing, id: number): Promise<{ definitionId: number | null }> {
  const { tx } = doing;
  const revision = await requireDraft(tx, id);
  await tx.models.revision.destroy({ where: { id } });
  doing.changed('definitions', 'items');
  const left = await tx.models.revision.count({ where: { definition_id: revision.definition_id } });
  if (left > 0) return { definitionId: revision.definition_id };
  await tx.models.definition.destroy({ where: { id: revision.definition_id } });
  return { definitionId: null };
}

/** @throws Refusal `wrong-state`, with what it is and what to do next */
export function requireState({ number, state }: RevisionRow, must: RevisionRow['state']): void {
  if (state !== must) throw new Refusal('wrong-state', { kind: 'revision', number: String(number), state });
}

/** A draft that may be changed. @throws Refusal `wrong-state`, or `revision-waits` for its day */
export async function requireDraft(tx: Writer, id: number): Promise<RevisionRow> {
  const revision = found(await revisionRow(tx, id));
  requireState(revision, 'draft');
  if (revision.in_use_from !== null) throw new Refusal('revision-waits', { day: revision.in_use_from });
  return revision;
}

type NewLine = Omit<LineRow, 'id' | 'revision_id' | 'rate_per_hour'> & SqlRow;
type NewAlternate = Pick<Row<'revision_line_alternate'>, 'item_id' | 'ratio'>;

async function writeLines(
  tx: Writer,
  revisionId: number,
  rows: readonly NewLine[],
  alternates: readonly (readonly NewAlternate[])[],
): Promise<void> {
  await tx.models.revision_line.destroy({ where: { revision_id: revisionId } });
  await tx.insertMany(
    'revision_line',
    rows.map((row) => ({ ...row, revision_id: revisionId })),
  );
  if (alternates.every((list) => list.length === 0)) return;
  const ids = await tx.models.revision_line.findAll({ where: { revision_id: revisionId } });
  await tx.insertMany(
    'revision_line_alternate',
    ids.flatMap(({ id, position }) =>
      (alternates[position] ?? []).map((alternate, index) => ({ line_id: id, position: index, ...alternate })),
    ),
  );
}

function lineRow(
  line: LineInput,
  position: number,
  parts: ReadonlyMap<number, ItemRow>,
  rates: ReadonlySet<number>,
): NewLine {
  const at = (name: string) => `lines.${position}.${name}`;
  const none = {
    text: '',
    item_id: null,
    from_bin_id: null,
    waste: ZERO,
    taken: null,
    share: null,
    comes_back: 0,
    rate_id: null,
    tolerance: null,
  } as const;
  if (line.kind === 'note') return { ...none, position, kind: 'note', basis: 'per-output', amount: 0, text: line.text };
  const { kind, basis } = line;
  if (line.kind === 'charge') {
    return { ...none, position, kind, basis, text: line.text, amount: line.amount };
  }
  if (line.kind === 'labour') {
    if (!rates.has(line.rateId)) throw new Refusal('unknown-choice', {}, at('rateId'));
    return { ...none, position, kind, basis, text: line.text, amount: line.minutes, rate_id: line.rateId };
  }
  const part = parts.get(line.itemId);
  if (!part) throw new Refusal('unknown-item', {}, at('itemId'));
  return {
    ...none,
    position,
    kind,
    basis,
    item_id: line.itemId,
    from_bin_id: line.fromBinId,
    amount: countedIn(line.quantity, part.decimals, at('quantity')),
    waste: line.waste,
    taken: line.taken,
    share: line.comesBack ? line.share : null,
    comes_back: line.comesBack ? 1 : 0,
    tolerance: line.tolerance,
  };
}

function alternateRows(
  line: LineInput,
  position: number,
  parts: ReadonlyMap<number, ItemRow>,
  product: ItemRow,
): NewAlternate[] {
  if (line.kind !== 'part') return [];
  const at = (index: number, name: string) => `lines.${position}.alternates.${index}.${name}`;
  return line.alternates.map(({ itemId, ratio }, index) => {
    if (!parts.has(itemId)) throw new Refusal('unknown-item', {}, at(index, 'itemId'));
    if (itemId === line.itemId) throw new Refusal('alternate-is-part', {}, at(index, 'itemId'));
    if (itemId === product.id) throw new Refusal('alternate-is-product', {}, at(index, 'itemId'));
    if (line.alternates.findIndex((other) => other.itemId === itemId) < index)
      throw new Refusal('alternate-twice', {}, at(index, 'itemId'));
    return { item_id: itemId, ratio };
  });
}

function refuseImpossibleShares(rows: readonly NewLine[]): void {
  balanceShares(rows.map((row) => ({ typed: row.share, cost: 0, comesBack: row.comes_back === 1 })));
}
