import type { Replacement } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import type { Line } from '@yosegi/core/definitions';
import { divide, type Quantity, SCALE, stepOf, sumForText, toExact } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull, orNull } from '../command/amounts.ts';
import { type BodyOf, type Doing, found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf, type ItemRow, itemRow } from '../items/index.ts';
import { newDraft } from './drafts.ts';
import { type LoadedRevision, unitCostOrNull, usesOf } from './inuse.sql.ts';
import { refuseImpossibleParts } from './rules.ts';
import { revisionLines } from './sql.ts';

type ReplaceInput = QueryOf<'replacements'>;

/** What replacing a part by another would do to every definition in use that lists it. */
export async function previewReplacement(db: Reader, input: ReplaceInput): Promise<Replacement[]> {
  const { by, ratio } = await readInput(db, input);
  const previews: Replacement[] = [];
  for (const use of await usesOf(db, input.partId)) {
    const problem = await problemOf(db, use, input);
    const cost = (itemId: number) => averageCostOf(itemId === by.id ? by : found(use.parts.get(itemId)));
    const after = orNull(() => use.core.lines.map((line) => replaced(line, input.partId, by, ratio)));
    if (after === null) {
      previews.push(tooMuch(use, input.partId));
      continue;
    }
    const others = sum(use.core.lines, by.id);
    previews.push({
      definitionId: use.revision.definition_id,
      code: use.product.code,
      name: use.product.name,
      revision: use.revision.number,
      outputQuantity: decimal(use.revision.output_quantity),
      quantityBefore: decimal(sum(use.core.lines, input.partId)),
      quantityAfter: decimal(sum(after, by.id) - others),
      costBefore: decimalOrNull(unitCostOrNull(use.core, cost)),
      costAfter: decimalOrNull(unitCostOrNull({ ...use.core, lines: after }, cost)),
      problem,
    });
  }
  return previews;
}

const sum = (lines: readonly Line[], itemId: number): bigint =>
  sumForText(lines.flatMap((line) => (line.kind === 'part' && line.itemId === itemId ? line.quantity : [])));

/** A definition in which so much of the new part would be needed that it cannot be kept. */
function tooMuch(use: LoadedRevision, partId: number): Replacement {
  const quantity = decimal(sum(use.core.lines, partId));
  return {
    definitionId: use.revision.definition_id,
    code: use.product.code,
    name: use.product.name,
    revision: use.revision.number,
    outputQuantity: decimal(use.revision.output_quantity),
    quantityBefore: quantity,
    quantityAfter: quantity,
    costBefore: null,
    costAfter: null,
    problem: 'This ratio would need more than is allowed.',
  };
}

/** Starts a draft of each definition in which the part is replaced; refused for all when it cannot be for one. */
export async function replacePart(doing: Doing, input: BodyOf<'replacePart'>) {
  const { tx } = doing;
  const { by, ratio } = await readInput(tx, input);
  const uses = new Map((await usesOf(tx, input.partId)).map((use) => [use.revision.definition_id, use]));
  const drafts: { definitionId: number; name: string; revision: number }[] = [];
  for (const [index, definitionId] of [...new Set(input.definitionIds)].entries()) {
    const use = uses.get(definitionId);
    if (!use) throw new Refusal('unknown-line', {}, `definitionIds.${index}`);
    const { id, number } = await newDraft(doing, definitionId);
    for (const line of await revisionLines(tx, id)) {
      if (line.item_id !== input.partId) continue;
      const amount = replacedQuantity(line.amount as Quantity, ratio, by);
      await tx.models.revision_line.update({ item_id: by.id, amount }, { where: { id: line.id } });
      await tx.models.revision_line_alternate.destroy({ where: { line_id: line.id, item_id: by.id } });
    }
    await refuseImpossibleParts(tx, use.revision, await revisionLines(tx, id));
    drafts.push({ definitionId, name: use.product.name, revision: number });
  }
  doing.changed('definitions');
  return { drafts };
}

async function readInput(db: Reader, input: ReplaceInput): Promise<{ by: ItemRow; ratio: Quantity }> {
  const by = await itemRow(db, input.byId);
  if (!by || !(await itemRow(db, input.partId))) throw new Refusal('unknown-item', {}, by ? 'partId' : 'byId');
  if (by.id === input.partId) throw new Refusal('alternate-is-part', {}, 'byId');
  if (by.archived_at !== null) throw new Refusal('item-archived', { name: by.name }, 'byId');
  return { by, ratio: input.ratio };
}

/** Why a definition cannot take the new part, in words; null when it can. */
async function problemOf(db: Reader, use: LoadedRevision, input: ReplaceInput): Promise<string | null> {
  const draft = await db.models.revision.findOne({
    where: { definition_id: use.revision.definition_id, state: 'draft' },
  });
  if (draft) return `Revision ${draft.number} is a draft already. Change the part there.`;
  const rows = use.lines.map((line) => ({ item_id: line.item_id === input.partId ? input.byId : line.item_id }));
  try {
    await refuseImpossibleParts(db, use.revision, rows);
    return null;
  } catch (error) {
    const words = wordsOf(error);
    if (!words) throw error;
    return words;
  }
}

const replaced = (line: Line, partId: number, by: ItemRow, ratio: Quantity): Line =>
  line.kind === 'part' && line.itemId === partId
    ? { ...line, itemId: by.id, decimals: by.decimals, quantity: replacedQuantity(line.quantity, ratio, by) }
    : line;

/** The quantity of the new part, rounded up to its unit so that nothing comes out short. */
function replacedQuantity(quantity: Quantity, ratio: Quantity, by: ItemRow): Quantity {
  const step = BigInt(stepOf(by.decimals));
  return toExact(divide(BigInt(quantity) * BigInt(ratio), BigInt(SCALE) * step, 'up') * step) as Quantity;
}
