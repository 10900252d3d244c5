import type { LastUse, SavedRevision } from '@yosegi/contract';
import { asLastTime, type LastUses, lastUses } from '@yosegi/core/builds';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { newDraft, savedRevision } from '../definitions/index.ts';
import { pastUses } from './lines.sql.ts';
import { type BuildLineRecord, buildLines, buildRecord } from './sql.ts';

/** So many finishes tell how it usually goes. */
const FINISHES = 5;
/** Decimals of minutes in a definition. */
const MINUTE_DECIMALS = 2;

/** What the last finishes by the same revision used of each line of a build. */
export async function readLastUses(db: Reader, buildId: number): Promise<LastUse[]> {
  return (await linesWithPast(db, buildId)).map(({ line, past }) => ({
    lineId: line.id,
    count: past.count,
    planned: decimal(past.planned),
    actual: decimal(past.actual),
    isDrifted: past.isDrifted,
  }));
}

async function linesWithPast(db: Reader, buildId: number): Promise<{ line: BuildLineRecord; past: LastUses }[]> {
  const build = found(await buildRecord(db, buildId));
  if (build.revision_id === null) return [];
  const uses = await pastUses(db, build.revision_id, FINISHES);
  const lines = (await buildLines(db, buildId)).filter(({ added_by }) => added_by === null);
  return lines.flatMap((line) => {
    const past = lastUses(uses.filter(({ position }) => position === line.position));
    return past ? [{ line, past }] : [];
  });
}

/**
 * Starts a draft of what a build follows, in which the lines that have left the plan for good say what is really used.
 * @throws Refusal `draft-exists`, `unknown-line` where none has
 */
export async function correctDefinition(doing: Doing, buildId: number): Promise<SavedRevision> {
  const { tx } = doing;
  const build = found(await buildRecord(tx, buildId));
  const drifted = (await linesWithPast(tx, buildId)).filter(({ past }) => past.isDrifted);
  const revision = build.revision_id === null ? null : await tx.models.revision.findByPk(build.revision_id);
  if (!revision || drifted.length === 0) throw new Refusal('unknown-line', {});
  const draft = await newDraft(doing, revision.definition_id);
  for (const { line, past } of drifted) {
    const where = { revision_id: draft.id, position: line.position, kind: line.kind, item_id: line.item_id };
    const own = await tx.models.revision_line.findOne({ where });
    if (!own) continue;
    const decimals = line.kind === 'part' ? line.decimals : MINUTE_DECIMALS;
    await own.update({ amount: asLastTime(own.amount as typeof past.planned, past, decimals) });
  }
  doing.changed('definitions');
  return savedRevision(tx, draft.id);
}
