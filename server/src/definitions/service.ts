import type { Definition, LineInput } from '@yosegi/contract';
import { balanceShares, definitionCost, findCycle } from '@yosegi/core/definition';
import { type Percent, SCALE } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { SqlRow, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { moneyFromZero, percentUpTo, positiveQuantity } from '../http/amounts.ts';
import { type Doing, dayOf, found } from '../http/context.ts';
import { averageCostOf, type ItemRow, itemRow, itemRows } from '../items/store.ts';
import { type LineRow, type RevisionRow, readDefinition, revisionLines, revisionRow, toCoreRevision } from './store.ts';

/** Starts a bill of materials for an item, with revision 1 as an empty draft. */
export async function createDefinition(doing: Doing, itemId: number): Promise<Definition> {
  const { tx } = doing;
  const item = await itemRow(tx, itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  if (item.definition_id !== null) throw new Refusal('definition-exists', { id: item.definition_id }, 'itemId');
  const id = await tx.insert('definition', { item_id: itemId });
  await tx.insert('revision', { definition_id: id, number: 1, state: 'draft', output_quantity: SCALE });
  doing.changed('definitions', 'items');
  return readDefinition(tx, id);
}

/** Starts a draft with the lines of the revision in use. */
export async function startRevision(doing: Doing, definitionId: number): Promise<Definition> {
  const { tx } = doing;
  const definition = await readDefinition(tx, definitionId);
  if (definition.revisions.some((revision) => revision.state === 'draft')) throw new Refusal('draft-exists');
  const from = definition.revisions.find((revision) => revision.state === 'in-use') ?? definition.revisions[0];
  const number = (definition.revisions[0]?.number ?? 0) + 1;
  const id = await tx.insert('revision', {
    definition_id: definitionId,
    number,
    state: 'draft',
    output_quantity: SCALE,
  });
  if (from) {
    await tx.run(
      'UPDATE revision SET output_quantity = (SELECT output_quantity FROM revision WHERE id = $1) WHERE id = $2',
      [from.id, id],
    );
    await tx.run(
      `INSERT INTO revision_line (revision_id, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, share, comes_back, rate_id)
       SELECT $2, position, kind, text, item_id, from_bin_id, basis, amount, waste, taken, share, comes_back, rate_id
       FROM revision_line WHERE revision_id = $1`,
      [from.id, id],
    );
  }
  doing.changed('definitions');
  return readDefinition(tx, definitionId);
}

export interface DraftInput {
  readonly version: number;
  readonly outputQuantity: string;
  readonly lines: readonly LineInput[];
}

/** Replaces the lines of a draft by what was typed. */
export async function saveRevision(doing: Doing, id: number, input: DraftInput): Promise<Definition> {
  const { tx } = doing;
  const revision = await draft(tx, id);
  const product = found(await itemRow(tx, revision.item_id));
  const output = positiveQuantity(input.outputQuantity, product.decimals, 'outputQuantity');
  const parts = await itemRows(
    tx,
    input.lines.flatMap((line) => (line.kind === 'part' ? line.itemId : [])),
  );
  const rates = new Set((await tx.all<{ id: number }>('SELECT id FROM rate')).map((rate) => rate.id));
  const rows = input.lines.map((line, index) => lineRow(line, index, parts, rates));
  refuseImpossibleShares(rows);
  await refuseCycle(tx, product, rows);
  const values = { output_quantity: output };
  await updateVersioned(tx, 'revision', id, input.version, values, () => readDefinition(tx, revision.definition_id));
  await tx.run('DELETE FROM revision_line WHERE revision_id = $1', [id]);
  await tx.insertMany(
    'revision_line',
    rows.map((row) => ({ ...row, revision_id: id })),
  );
  doing.changed('definitions');
  return readDefinition(tx, revision.definition_id);
}

/** Puts a draft in use: from now on it is frozen, and new builds take it. */
export async function putInUse(doing: Doing, id: number, version: number): Promise<Definition> {
  const { tx } = doing;
  const revision = await draft(tx, id);
  const lines = await revisionLines(tx, id);
  if (!lines.some((line) => line.kind === 'part' || line.kind === 'labour')) throw new Refusal('no-lines');
  await refuseCycle(tx, found(await itemRow(tx, revision.item_id)), lines);
  const parts = await itemRows(
    tx,
    lines.flatMap((line) => line.item_id ?? []),
  );
  balancedShares(revision, lines, parts);
  await tx.run(
    "UPDATE revision SET state = 'retired', version = version + 1 WHERE definition_id = $1 AND state = 'in-use'",
    [revision.definition_id],
  );
  const values = { state: 'in-use', in_use_from: dayOf(doing.now) };
  await updateVersioned(tx, 'revision', id, version, values, () => readDefinition(tx, revision.definition_id));
  doing.changed('definitions', 'items', 'builds');
  return readDefinition(tx, revision.definition_id);
}

/** Throws a draft away; a definition without any revision goes with it. */
export async function discardRevision(doing: Doing, id: number): Promise<{ definitionId: number | null }> {
  const { tx } = doing;
  const revision = await draft(tx, id);
  await tx.run('DELETE FROM revision WHERE id = $1', [id]);
  doing.changed('definitions', 'items');
  const other = await tx.one('SELECT 1 FROM revision WHERE definition_id = $1', [revision.definition_id]);
  if (other) return { definitionId: revision.definition_id };
  await tx.run('DELETE FROM definition WHERE id = $1', [revision.definition_id]);
  return { definitionId: null };
}

/** Take-apart shares of a revision's lines at today's average costs, summing to exactly 100.00 where parts come back. */
export function balancedShares(
  revision: Pick<RevisionRow, 'output_quantity'>,
  lines: readonly LineRow[],
  parts: ReadonlyMap<number, ItemRow>,
): Percent[] {
  const core = toCoreRevision(revision.output_quantity, lines, (itemId) => parts.get(itemId)?.decimals ?? 0);
  const cost = definitionCost(core, (itemId) => averageCostOf(found(parts.get(itemId))));
  return balanceShares(
    lines.map((line, index) => ({
      typed: line.share as Percent | null,
      cost: cost.lines[index] ?? (0 as never),
      comesBack: line.kind === 'part' && line.comes_back === 1,
    })),
  );
}

async function draft(tx: Writer, id: number): Promise<RevisionRow> {
  const revision = found(await revisionRow(tx, id));
  if (revision.state !== 'draft')
    throw new Refusal('wrong-state', { is: revision.state.replace('-', ' '), must: 'a draft' });
  return revision;
}

type NewLine = Omit<LineRow, 'id' | 'revision_id' | 'rate_per_hour'> & SqlRow;

function lineRow(
  line: LineInput,
  position: number,
  parts: ReadonlyMap<number, ItemRow>,
  rates: ReadonlySet<number>,
): NewLine {
  const at = (name: string) => `lines.${position}.${name}`;
  const none = { text: '', item_id: null, waste: 0, taken: null, share: null, comes_back: 0, rate_id: null } as const;
  if (line.kind === 'note') return { ...none, position, kind: 'note', basis: 'per-output', amount: 0, text: line.text };
  const { kind, basis } = line;
  if (line.kind === 'charge') {
    return { ...none, position, kind, basis, text: line.text, amount: moneyFromZero(line.amount, at('amount')) };
  }
  if (line.kind === 'labour') {
    if (!rates.has(line.rateId)) throw new Refusal('unknown-choice', {}, at('rateId'));
    const amount = positiveQuantity(line.minutes, 2, at('minutes'));
    return { ...none, position, kind, basis, text: line.text, amount, rate_id: line.rateId };
  }
  const part = parts.get(line.itemId);
  if (!part) throw new Refusal('unknown-item', {}, at('itemId'));
  return {
    ...none,
    position,
    kind,
    basis,
    item_id: line.itemId,
    amount: positiveQuantity(line.quantity, part.decimals, at('quantity')),
    waste: percentUpTo(line.waste, 1000, at('waste')),
    taken: line.taken,
    share: line.comesBack && line.share !== null ? percentUpTo(line.share, 100, at('share')) : null,
    comes_back: line.comesBack ? 1 : 0,
  };
}

function refuseImpossibleShares(rows: readonly NewLine[]): void {
  balanceShares(
    rows.map((row) => ({ typed: row.share as Percent | null, cost: 0 as never, comesBack: row.comes_back === 1 })),
  );
}

/** @throws Refusal `contains-itself` with the path by code when the product would be part of itself */
async function refuseCycle(tx: Writer, product: ItemRow, rows: readonly { item_id: number | null }[]): Promise<void> {
  const links = await tx.all<{ item_id: number; part_id: number }>(
    `SELECT DISTINCT d.item_id, l.item_id AS part_id FROM definition d JOIN revision r ON r.definition_id = d.id AND r.state <> 'retired'
     JOIN revision_line l ON l.revision_id = r.id WHERE l.item_id IS NOT NULL AND d.purpose = 'build' AND d.item_id <> $1`,
    [product.id],
  );
  const components = new Map<number, number[]>([[product.id, rows.flatMap((row) => row.item_id ?? [])]]);
  for (const { item_id, part_id } of links) {
    const parts = components.get(item_id);
    if (parts) parts.push(part_id);
    else components.set(item_id, [part_id]);
  }
  const path = findCycle(product.id, (id) => components.get(id) ?? []);
  if (!path) return;
  const names = await itemRows(tx, path);
  const index = rows.findIndex((row) => row.item_id === path[1]);
  throw new Refusal('contains-itself', { path: path.map((id) => names.get(id)?.code) }, `lines.${index}.itemId`);
}
