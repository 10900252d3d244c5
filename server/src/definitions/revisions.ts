import type { Definition } from '@yosegi/contract';
import { balanceShares, lineCosts, refuseContradiction } from '@yosegi/core/definition';
import type { Percent } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { takeLines } from '../builds/plan.ts';
import { buildRecord } from '../builds/store.ts';
import type { Reader, SqlRow, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { type Doing, dayOf, found } from '../http/context.ts';
import { averageCostOf, type ItemRow, itemRow, itemRows } from '../items/store.ts';
import { surroundings } from './behaviour.ts';
import { requireDraft } from './drafts.ts';
import { refuseEmptyRework, refuseImpossibleParts } from './rules.ts';
import {
  definitionRecord,
  type LineRow,
  type RevisionRow,
  readDefinition,
  revisionLines,
  revisionRow,
  toCoreBehaviour,
  toCoreRevision,
} from './store.ts';

/**
 * Puts a draft in use: from now on it is frozen, and new builds take it. With a later day it is frozen now and comes
 * into use on that day.
 */
export async function putInUse(
  doing: Doing,
  id: number,
  input: { version: number; from: string | null },
): Promise<Definition> {
  const { tx } = doing;
  const revision = await requireDraft(tx, id);
  const today = dayOf(doing.now);
  if (input.from !== null && input.from < today) throw new Refusal('day-passed', {}, 'from');
  await refuseUnfit(tx, revision);
  const waits = input.from !== null && input.from > today;
  if (!waits) await retireInUse(tx, revision.definition_id);
  const values: SqlRow = waits ? { in_use_from: input.from } : { state: 'in-use', in_use_from: today };
  await updateVersioned(tx, 'revision', id, input.version, values, () => readDefinition(tx, revision.definition_id));
  doing.changed('definitions', 'items', 'builds');
  return readDefinition(tx, revision.definition_id);
}

/** Takes back the day from which a draft would be in use, so that it can be changed again. */
export async function holdBack(doing: Doing, id: number, version: number): Promise<Definition> {
  const { tx } = doing;
  const revision = found(await revisionRow(tx, id));
  if (revision.state !== 'draft')
    throw new Refusal('wrong-state', { is: revision.state.replace('-', ' '), must: 'a draft' });
  const current = () => readDefinition(tx, revision.definition_id);
  await updateVersioned(tx, 'revision', id, version, { in_use_from: null }, current);
  doing.changed('definitions');
  return current();
}

/** Retires the revision in use; until another is in use, nothing new can be built by this definition. */
export async function retireRevision(doing: Doing, id: number, version: number): Promise<Definition> {
  const { tx } = doing;
  const revision = found(await revisionRow(tx, id));
  if (revision.state !== 'in-use') throw new Refusal('wrong-state', { is: revision.state, must: 'in use' });
  const current = () => readDefinition(tx, revision.definition_id);
  await updateVersioned(tx, 'revision', id, version, { state: 'retired' }, current);
  doing.changed('definitions', 'items', 'builds');
  return current();
}

/** Lets planned builds take the revision in use. @throws Refusal `wrong-state` for a build that has started */
export async function moveBuilds(doing: Doing, definitionId: number, buildIds: readonly number[]): Promise<Definition> {
  const { tx } = doing;
  const inUse = await tx.one<{ id: number; output_quantity: number }>(
    "SELECT id, output_quantity FROM revision WHERE definition_id = $1 AND state = 'in-use'",
    [definitionId],
  );
  if (!inUse) throw new Refusal('no-definition-in-use', { name: 'This' });
  for (const [index, id] of buildIds.entries()) {
    const build = await buildRecord(tx, id);
    const taken = build && (await revisionRow(tx, build.revision_id));
    if (!build || taken?.definition_id !== definitionId) throw new Refusal('unknown-line', {}, `buildIds.${index}`);
    if (build.state !== 'planned')
      throw new Refusal('wrong-state', { is: build.state.replace('-', ' '), must: 'planned' }, `buildIds.${index}`);
    await tx.run('UPDATE build SET revision_id = $1, output_quantity = $2, version = version + 1 WHERE id = $3', [
      inUse.id,
      inUse.output_quantity,
      id,
    ]);
    await takeLines(tx, id, inUse.id);
  }
  doing.changed('builds', 'definitions', 'stock', 'items');
  return readDefinition(tx, definitionId);
}

/** Puts every draft in use whose day has come. @returns the event to announce, 0 when there is nothing to tell */
export async function takeDueRevisions(tx: Writer, now: Date): Promise<number> {
  const due = await tx.all<{ id: number; definition_id: number }>(
    "SELECT id, definition_id FROM revision WHERE state = 'draft' AND in_use_from <= $1",
    [dayOf(now)],
  );
  if (due.length === 0) return 0;
  for (const { id, definition_id } of due) {
    await retireInUse(tx, definition_id);
    await tx.run("UPDATE revision SET state = 'in-use', version = version + 1 WHERE id = $1", [id]);
  }
  const at = now.toISOString();
  const body = JSON.stringify(due.map(({ id }) => id));
  await tx.insert('audit', { at, person_id: null, action: 'takeDueRevisions', params: 'null', body, request_id: '' });
  return tx.insert('event', { at, topics: JSON.stringify(['definitions', 'items', 'builds']) });
}

const retireInUse = (tx: Writer, definitionId: number) =>
  tx.run("UPDATE revision SET state = 'retired', version = version + 1 WHERE definition_id = $1 AND state = 'in-use'", [
    definitionId,
  ]);

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
    const name = parts.get(lines[archived]?.item_id ?? 0)?.name;
    throw new Refusal('item-archived', { name }, `lines.${archived}.itemId`);
  }
  balancedShares(revision, lines, parts);
  const record = found(await definitionRecord(tx, revision.definition_id));
  const hasAlternates = await listsAlternates(tx, revision.id);
  refuseContradiction(toCoreBehaviour(record), { ...(await surroundings(tx, record)), hasAlternates });
}

const listsAlternates = async (db: Reader, revisionId: number) =>
  (await db.one(
    'SELECT 1 FROM revision_line_alternate a JOIN revision_line l ON l.id = a.line_id WHERE l.revision_id = $1 LIMIT 1',
    [revisionId],
  )) !== undefined;

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
      typed: line.share as Percent | null,
      cost: costs[index] ?? 0,
      comesBack: line.kind === 'part' && line.comes_back === 1,
    })),
  );
}
