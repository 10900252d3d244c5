import {
  checkPortion,
  type Finished,
  type Finishing,
  finishCost,
  type LineUse,
  postFinish,
  rejectedCost,
} from '@yosegi/core/builds';
import { dayOf } from '@yosegi/core/days';
import { Posting } from '@yosegi/core/ledger';
import { add, countedIn, type Money, minus, negated, type Quantity, unitCostOf, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { updateVersioned } from '../db/versions.ts';
import { itemRow } from '../items/index.ts';
import { mayGoBelow, readStock, refuseHeld, withNames, writeDocument } from '../ledger/index.ts';
import { endBuilt, keepForOrders, rejectBuilt } from '../orders/index.ts';
import { requireShelf } from '../places/index.ts';
import { endTasks } from '../tasks/index.ts';
import { heapsIn } from '../tracking/index.ts';
import { keepOut, partsOut, type TakenOut } from './came-out.ts';
import { settleStartOverride } from './cancel.ts';
import { keepLines, type LineChange } from './keep.ts';
import { leftoversOf } from './leftovers.ts';
import { tellRepair } from './of-repair.ts';
import { type BuildRecord, progressOf, readBuild } from './sql.ts';
import { requireState } from './state.ts';
import { actualsOf, type Bench, benchOf, finishingLines, requireUnit, usedLines } from './used.ts';

type FinishInput = BodyOf<'finish'>;

/**
 * Finishes some or all of a build with what was really used. The good units arrive at the exact cost consumed, and what is
 * built for orders goes on into their parcels; when the build is complete, what is left on the bench goes back to its bins
 * in the same document.
 */
export async function finishBuild(doing: Doing, id: number, input: FinishInput) {
  const { tx } = doing;
  const bench = await benchOf(tx, id);
  const { build, lines } = bench;
  requireState(build, 'on-bench');
  const good = countedIn(input.good, build.decimals, 'good');
  const rejected = countedIn(input.rejected, build.decimals, 'rejected');
  checkPortion(progressOf(build), good, rejected, input.rejectCost);
  refuseForRepair(build, good, rejected);
  if (input.madeOn !== null && input.madeOn > dayOf(doing.now)) throw new Refusal('day-ahead', {}, 'madeOn');
  await requireReason(tx, rejected, input.rejectReasonId);
  const portion = add(good, rejected);
  const bin = await requireShelf(tx, input.outputBinId, 'outputBinId');

  const closes = input.close || progressOf(build).finished + portion === build.quantity;
  if (closes) await endTasks(doing, id, bench.tasksFirst);
  const actuals = actualsOf(bench, portion, input.lines, closes);
  if (bench.isRework) requireUnit(bench, actuals, portion);
  else if (input.out.length > 0) throw new Refusal('not-a-rework', { name: build.name }, 'out');
  const used = finishingLines(bench, actuals, input);
  const plan = finishCost(usedLines(bench, actuals, used), progressOf(build), portion, closes);
  const writeOff = input.rejectCost === 'carried' ? ZERO : rejectedCost(plan.planned, rejected, good);
  const output = build.repair_id === null ? await outputOf(doing, bench, good, input, used) : [];
  const out = await partsOut(doing, input.out);

  const itemIds = [build.item_id, ...bench.items.keys(), ...out.map(({ itemId }) => itemId)];
  const stock = await readStock(tx, itemIds);
  const posting = new Posting(stock, { mayGoBelow: mayGoBelow(doing, input.override) });
  const portionOf = { output, good, rejected, writeOff, progress: progressOf(build), closes, lines: used };
  const isRepair = build.repair_id !== null;
  const done = postFinish(posting, { ...portionOf, out: { itself: build.item_id, parts: out }, isRepair });
  refuseHeld(bench.standing, (spot) => posting.at(spot));
  const changes = new Map<number, LineChange>(
    lines.map((line) => [
      line.id,
      { onBench: negated(done.fromBench.get(line.id) ?? ZERO), used: actuals.get(line.id) ?? ZERO },
    ]),
  );
  if (closes) await putLeftoversBack(tx, posting, bench, changes);
  const posted = await withNames(tx, () => posting.close());
  const subject = { kind: 'finish', for: { kind: 'build', id }, override: input.override } as const;
  const document = await writeDocument(doing, subject, posted);

  const finish = {
    document_id: document.id,
    build_id: id,
    good,
    rejected,
    written_off: done.writtenOff,
    reject_reason_id: rejected > 0 ? input.rejectReasonId : null,
    made_on: input.madeOn,
    condition_before: input.conditionBefore || null,
    condition_after: input.conditionAfter || null,
  };
  const why = new Map(input.lines.map(({ lineId, because }) => [lineId, because]));
  await keepFinish(tx, finish, plan.lines, done, why);
  await keepOut(tx, document.id, out, done.out);
  const after = {
    ...build,
    finished: add(build.finished, good),
    rejected: add(build.rejected, rejected),
    state: closes ? ('finished' as const) : build.state,
  };
  const values = {
    finished: after.finished,
    rejected: after.rejected,
    state: after.state,
    ended_at: closes ? doing.now.toISOString() : null,
  };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, dayOf(doing.now)));
  await keepLines(tx, after, lines, changes);
  if (closes) await settleStartOverride(doing, id);
  if (bin.kind === 'shelf') await keepForOrders(doing, id, output, document.id);
  await tellRepair(doing, build, 'finish', `Finished with ${document.number}`);
  if (closes) await endBuilt(tx, id, document.id);
  else if (rejected > 0) await rejectBuilt(tx, id, minus(after.quantity, progressOf(after).finished), document.id);
  doing.changed('builds');
  const kept = minus(done.total, add(done.writtenOff, worthKept(out, done.out)));
  return { ...document, unitCost: decimal(good === 0 ? ZERO : unitCostOf(kept, good)) };
}

/** Where the good units go. A rework gives back the very units that it took in. */
async function outputOf(
  doing: Doing,
  { build, isRework }: Bench,
  good: Quantity,
  input: FinishInput,
  used: Finishing['lines'],
): Promise<Finishing['output']> {
  const taken = used.flatMap((line) => (line.kind === 'part' ? [...line.bench, ...line.shelves] : []));
  const takenOut = new Set(taken.flatMap((spot) => spot.serialId ?? []));
  const item = found(await itemRow(doing.tx, build.item_id));
  const arriving = { mayReturn: false, takenOut };
  const output = await heapsIn(doing, item, input.outputBinId, good, input, (name) => name, arriving);
  if (isRework && output.some(({ spot }) => spot.serialId !== null && !takenOut.has(spot.serialId)))
    throw new Refusal('rework-needs-unit', { name: item.name }, 'serials');
  return output;
}

/** What the parts that came out took to stock with them. */
const worthKept = (out: readonly TakenOut[], worth: readonly Money[]): Money =>
  add<Money>(ZERO, ...worth.filter((_, index) => out[index]?.went === 'stock'));

/** @throws Refusal `repair-whole` where some of a repair would be rejected, or left for later */
function refuseForRepair({ repair_id, quantity }: BuildRecord, good: Quantity, rejected: Quantity): void {
  if (repair_id === null) return;
  if (rejected > 0) throw new Refusal('repair-whole', {}, 'rejected');
  if (good !== quantity) throw new Refusal('repair-whole', {}, 'good');
}

/** @throws Refusal `reject-reason` where some are rejected and nobody says why */
async function requireReason(tx: Writer, rejected: Quantity, reasonId: number | null): Promise<void> {
  if (rejected === 0) return;
  const reason = reasonId === null ? null : await tx.models.reason.findByPk(reasonId);
  if (reason?.used_for !== 'reject') throw new Refusal('reject-reason', {}, 'rejectReasonId');
}

/** Keeps with the document what was planned for this portion and what it really took. */
async function keepFinish(
  tx: Writer,
  finish: Row<'finish'>,
  planned: readonly LineUse[],
  { costs }: Finished,
  why: ReadonlyMap<number, string>,
): Promise<void> {
  const { document_id } = finish;
  await tx.insert('finish', finish);
  await tx.insertMany(
    'finish_line',
    planned.map((line) => ({
      document_id,
      build_line_id: line.lineId,
      planned: line.planned,
      actual: line.actual,
      planned_cost: line.plannedCost,
      cost: costs.get(line.lineId) ?? ZERO,
      because: why.get(line.lineId) || null,
    })),
  );
}

async function putLeftoversBack(
  tx: Writer,
  posting: Posting,
  { build, lines }: Bench,
  changes: Map<number, LineChange>,
): Promise<void> {
  const leftovers = await leftoversOf(tx, build);
  for (const line of lines) {
    const change = changes.get(line.id) ?? { onBench: ZERO, used: ZERO };
    const left = add(line.on_bench, change.onBench);
    if (left <= 0) continue;
    leftovers.putBack(posting, line, left);
    changes.set(line.id, { ...change, onBench: minus(change.onBench, left) });
  }
}
