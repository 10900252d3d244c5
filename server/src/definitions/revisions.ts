import type { SavedRevision, Topic } from '@yosegi/contract';
import { dayOf, isPast } from '@yosegi/core/days';
import { balanceShares, lineCosts, refuseContradiction } from '@yosegi/core/definitions';
import type { Money, Percent } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Op } from 'sequelize';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { SqlRow, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { averageCostOf, type ItemRow, itemRow, itemRows } from '../items/index.ts';
import { listsAlternates } from './around.sql.ts';
import { surroundings } from './behaviour.ts';
import { requireDraft, requireState } from './drafts.ts';
import { refuseEmptyRework, refuseImpossibleParts } from './rules.ts';
import {
  definitionRecord,
  type LineRow,
  type RevisionRow,
  readDefinition,
  revisionLines,
  revisionRow,
  savedRevision,
  toCoreBehaviour,
  toCoreRevision,
} from './sql.ts';

/**
 * Puts a draft in use: from now on it is frozen, and new builds take it. With a later day it is frozen now and comes
 * into use on that day.
 */
export async function putInUse(doing: Doing, id: number, input: BodyOf<'putInUse'>): Promise<SavedRevision> {
  const { tx } = doing;
  const revision = await requireDraft(tx, id);
  const today = dayOf(doing.now);
  if (isPast(input.from, today)) throw new Refusal('day-passed', {}, 'from');
  await refuseUnfit(tx, revision);
  const waits = input.from !== null && input.from > today;
  if (!waits) await retireInUse(tx, revision.definition_id);
  const values: SqlRow = waits ? { in_use_from: input.from } : { state: 'in-use', in_use_from: today };
  await updateVersioned(tx, 'revision', id, input.version, values, () => readDefinition(tx, revision.definition_id));
  if (!waits) await sellAt(tx, revision.item_id, revision.sell_price);
  doing.changed('definitions', 'items', 'builds');
  return savedRevision(tx, id);
}

/** Sells what a revision makes at what was said when it was drafted, from the moment it is in use. */
async function sellAt(tx: Writer, itemId: number, price: Money | null): Promise<void> {
  if (price === null) return;
  const item = found((await tx.models.item.findByPk(itemId)) ?? undefined);
  await item.update({ sell_price: price, version: item.version + 1 });
}

/** Takes back the day from which a draft would be in use, so that it can be changed again. */
export async function holdBack(doing: Doing, id: number, version: number): Promise<SavedRevision> {
  const { tx } = doing;
  const revision = found(await revisionRow(tx, id));
  requireState(revision, 'draft');
  const current = () => readDefinition(tx, revision.definition_id);
  await updateVersioned(tx, 'revision', id, version, { in_use_from: null }, current);
  doing.changed('definitions');
  return savedRevision(tx, id);
}

/** Retires the revision in use; until another is in use, nothing new can be built by this definition. */
export async function retireRevision(doing: Doing, id: number, version: number): Promise<SavedRevision> {
  const { tx } = doing;
  const revision = found(await revisionRow(tx, id));
  requireState(revision, 'in-use');
  const current = () => readDefinition(tx, revision.definition_id);
  await updateVersioned(tx, 'revision', id, version, { state: 'retired' }, current);
  doing.changed('definitions', 'items', 'builds');
  return savedRevision(tx, id);
}

/** Puts every draft in use whose day has come. @returns the topics it changed */
export async function takeDueRevisions(tx: Writer, now: Date): Promise<readonly Topic[]> {
  const due = await tx.models.revision.findAll({
    where: { state: 'draft', in_use_from: { [Op.lte]: dayOf(now) } },
  });
  if (due.length === 0) return [];
  for (const revision of due) {
    await retireInUse(tx, revision.definition_id);
    await revision.update({ state: 'in-use' });
    const { item_id } = found(await revisionRow(tx, revision.id));
    await sellAt(tx, item_id, revision.sell_price);
  }
  const at = now.toISOString();
  const body = JSON.stringify(due.map(({ id }) => id));
  await tx.insert('audit', { at, person_id: null, action: 'takeDueRevisions', params: 'null', body, request_id: '' });
  return ['definitions', 'items', 'builds'];
}

/** Retires the revision of a definition that is in use, if there is one. */
async function retireInUse(tx: Writer, definitionId: number): Promise<void> {
  const inUse = await tx.models.revision.findOne({ where: { definition_id: definitionId, state: 'in-use' } });
  await inUse?.update({ state: 'retired' });
}

/** @throws Refusal when a draft could not be built, sold or taken apart as it stands */
async function refuseUnfit(tx: Writer, revision: RevisionRow): Promise<void> {
  const lines = await revisionLines(tx, revision.id);
  const product = found(await itemRow(tx, revision.item_id));
  if (!lines.some((line) => line.kind === 'part' || line.kind === 'labour')) throw new Refusal('no-lines');
  refuseEmptyRework(product, revision.purpose, lines);
  await refuseImpossibleParts(tx, revision, lines);
  const parts = await itemRows(
    tx,
    lines.flatMap((line) => line.item_id ?? []),
  );
  const archived = lines.findIndex((line) => line.item_id !== null && parts.get(line.item_id)?.archived_at);
  if (archived >= 0) {
    const { name } = found(parts.get(lines[archived]?.item_id ?? 0));
    throw new Refusal('item-archived', { name }, `lines.${archived}.itemId`);
  }
  balancedShares(revision, lines, parts);
  const record = found(await definitionRecord(tx, revision.definition_id));
  const hasAlternates = await listsAlternates(tx, revision.id);
  refuseContradiction(toCoreBehaviour(record), { ...(await surroundings(tx, record)), hasAlternates });
}

/** Take-apart shares of a revision's lines at today's average costs, summing to exactly 100.00 where parts come back. */
export function balancedShares(
  revision: Pick<RevisionRow, 'output_quantity'>,
  lines: readonly LineRow[],
  parts: ReadonlyMap<number, ItemRow>,
): Percent[] {
  const core = toCoreRevision(revision.output_quantity, lines, (itemId) => parts.get(itemId)?.decimals ?? 0);
  const costs = lineCosts(core, (itemId) => averageCostOf(found(parts.get(itemId))));
  return balanceShares(
    lines.map((line, index) => ({
      typed: line.share,
      cost: costs[index] ?? 0,
      comesBack: line.kind === 'part' && line.comes_back === 1,
    })),
  );
}
