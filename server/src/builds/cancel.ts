import { dayOf } from '@yosegi/core/days';
import { Posting } from '@yosegi/core/ledger';
import { negated, ZERO } from '@yosegi/core/number';
import { type Doing, found } from '../command/doing.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { readStock, writeDocument } from '../ledger/index.ts';
import { endBuilt } from '../orders/index.ts';
import { stopClocks } from '../tasks/index.ts';
import { keepLines, type LineChange } from './keep.ts';
import { leftoversOf } from './leftovers.ts';
import { buildLines, buildRecord, readBuild } from './sql.ts';
import { requireOpen } from './state.ts';

/**
 * Cancels a build; what stands on the bench for it goes back to the bins it came from, and the orders it was for wait for
 * it no more.
 */
export async function cancelBuild(doing: Doing, id: number, version: number) {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  requireOpen(build);
  const lines = await buildLines(tx, id);
  const standing = lines.filter((line) => line.on_bench > 0);
  const changes = new Map<number, LineChange>();
  if (standing.length > 0) {
    const posting = new Posting(
      await readStock(
        tx,
        standing.flatMap((line) => line.item_id ?? []),
      ),
    );
    const leftovers = await leftoversOf(tx, build);
    for (const line of standing) {
      leftovers.putBack(posting, line, line.on_bench);
      changes.set(line.id, { onBench: negated(line.on_bench), used: ZERO });
    }
    await writeDocument(
      doing,
      { kind: 'put-back', for: { kind: 'build', id }, remark: `${build.number} cancelled` },
      posting.close(),
    );
  }
  const state = build.finished > 0 ? ('finished' as const) : ('cancelled' as const);
  const values = { state, ended_at: doing.now.toISOString() };
  await updateVersioned(tx, 'build', id, version, values, () => readBuild(tx, id, today));
  await keepLines(tx, { ...build, state }, lines, changes);
  await settleStartOverride(doing, id);
  await stopClocks(tx, id);
  await endBuilt(tx, id);
  doing.changed('builds', 'stock', 'items', 'orders');
  return { ...(await numbered(tx, 'build', id)), state };
}

/** A build that went ahead short needs no eye once it is over. */
export const settleStartOverride = ({ tx, now }: Doing, buildId: number) =>
  tx.models.put_right.update(
    { settled_at: now.toISOString() },
    { where: { for_kind: 'build', for_id: buildId, item_id: null, settled_at: null } },
  );
