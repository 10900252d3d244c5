import { add, minus, negated, type Quantity, ZERO } from '@yosegi/core/number';
import { type Doing, found, required } from '../command/doing.ts';
import { saveAnew } from '../db/versions.ts';
import { type LedgerFeature, type PostedDocument, refusePickGone } from '../ledger/index.ts';
import { makeAgain } from '../orders/index.ts';
import { describeFinish } from './describe.sql.ts';
import { keepLines, type LineChange } from './keep.ts';
import { tellRepair } from './of-repair.ts';
import { buildLines, buildRecord } from './sql.ts';

export const buildLedger: LedgerFeature = {
  refuseUndo: async (db, document) => {
    if (document.kind !== 'pick' || document.for?.kind !== 'build') return;
    const lines = await buildLines(db, document.for.id);
    refusePickGone(document, new Map(lines.map((line) => [line.id, line.on_bench])));
  },
  undone: { pick: setBuildBack, finish: setBuildBack },
  describe: describeFinish,
};

/** A build whose posting is undone stands again where it stood before. */
async function setBuildBack(doing: Doing, document: PostedDocument): Promise<void> {
  if (document.for?.kind !== 'build') return;
  const { tx } = doing;
  const build = found(await buildRecord(tx, document.for.id));
  const changes = new Map<number, LineChange>();
  const change = (lineId: number, onBench: Quantity, used: Quantity) => {
    const before = changes.get(lineId) ?? { onBench: ZERO, used: ZERO };
    changes.set(lineId, { onBench: add(before.onBench, onBench), used: add(before.used, used) });
  };
  for (const { lineId, holder, quantity } of document.movements)
    if (lineId !== null && holder !== null) change(lineId, negated(quantity), ZERO);
  const finish = await tx.models.finish.findByPk(document.id, { include: ['lines'] });
  for (const use of finish?.lines ?? []) change(use.build_line_id, ZERO, negated(use.actual));
  const finished = minus(build.finished, finish?.good ?? ZERO);
  const state = build.state === 'finished' && finish ? 'on-bench' : build.state;
  const rejected = minus(build.rejected, finish?.rejected ?? ZERO);
  const values = { finished, rejected, state, ...(state === 'on-bench' ? { ended_at: null } : {}) };
  await saveAnew<'build'>(required(await tx.models.build.findByPk(build.id)), values);
  await keepLines(tx, { ...build, finished, rejected, state }, await buildLines(tx, build.id), changes);
  if (finish) await makeAgain(tx, build.id, document.id);
  if (finish) await tellRepair(doing, build, 'unfinish', `${document.number} was undone`);
  doing.changed('builds');
}
