import {
  checkPortion,
  type Finishing,
  type FinishingPart,
  finishCost,
  plannedPortion,
  plannedUse,
  postFinish,
  type UsedLine,
} from '@yosegi/core/builds';
import { Posting, spotOf } from '@yosegi/core/ledger';
import {
  add,
  countedIn,
  type Money,
  minus,
  negated,
  type Quantity,
  SCALE,
  unitCostOf,
  ZERO,
} from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { dayOf } from '../command/clock.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { averageCostOf, type ItemRow, itemRow, itemRows } from '../items/index.ts';
import { heldFor, mayGoBelow, readStock, usableOf, withNames, writeDocument } from '../ledger/index.ts';
import { benchBinOf, requireShelf, usualBin } from '../places/index.ts';
import { heapsIn } from '../tracking/index.ts';
import { settleStartOverride } from './cancel.ts';
import { keepLines, type LineChange } from './keep.ts';
import { leftoversOf } from './leftovers.ts';
import { choosePieces, inOrder } from './pieces.ts';
import {
  type BuildLineRecord,
  type BuildRecord,
  buildLines,
  buildRecord,
  needOf,
  progressOf,
  readBuild,
} from './sql.ts';
import { requireState } from './state.ts';

type FinishInput = BodyOf<'finish'>;

/**
 * Finishes some or all of a build with what was really used. The good units arrive at the exact cost consumed; when the
 * build is complete, what is left on the bench goes back to its bins in the same document.
 */
export async function finishBuild(doing: Doing, id: number, input: FinishInput) {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  requireState(build, 'on-bench');
  const good = countedIn(input.good, build.decimals, 'good');
  checkPortion(progressOf(build), good);
  await requireShelf(tx, input.outputBinId, 'outputBinId');
  const lines = await buildLines(tx, id);
  const actuals = readActuals(build, lines, good, input.lines);
  const partIds = lines.flatMap((line) => line.item_id ?? []);
  const items = await itemRows(tx, partIds);
  const stock = await readStock(tx, [build.item_id, ...partIds]);
  const posting = new Posting(stock, { mayGoBelow: mayGoBelow(doing, input.override) });
  const parts = await finishingLines(tx, build, lines, actuals, items, input);
  // A rework gives back the very units that it took in.
  const takenOut = new Set(
    parts
      .flatMap((line) => (line.kind === 'part' ? [...line.bench, ...line.shelves] : []))
      .flatMap((spot) => spot.serialId ?? []),
  );
  const output = await heapsIn(
    doing,
    found(await itemRow(tx, build.item_id)),
    input.outputBinId,
    good,
    input,
    (name) => name,
    { mayReturn: false, takenOut },
  );
  const finishing: Finishing = { output, good, progress: progressOf(build), lines: parts };
  const planned = plannedCosts(build, lines, actuals, good, items);
  const done = postFinish(posting, finishing);
  const closes = input.close || build.finished + good === build.quantity;
  const changes = new Map<number, LineChange>(
    lines.map((line) => [
      line.id,
      { onBench: negated(done.fromBench.get(line.id) ?? ZERO), used: actuals.get(line.id) ?? ZERO },
    ]),
  );
  if (closes) await putLeftoversBack(tx, posting, build, lines, changes);
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(
    doing,
    { kind: 'finish', for: { kind: 'build', id }, override: input.override },
    posted,
  );
  await tx.insert('finish', { document_id: document.id, build_id: id, good });
  await tx.insertMany(
    'finish_line',
    planned.lines.map((line) => ({
      document_id: document.id,
      build_line_id: line.lineId,
      planned: line.planned,
      actual: line.actual,
      planned_cost: line.plannedCost,
      cost: done.costs.get(line.lineId) ?? ZERO,
    })),
  );
  const after = { ...build, finished: add(build.finished, good), state: closes ? ('finished' as const) : build.state };
  const values = { finished: after.finished, state: after.state, ended_at: closes ? doing.now.toISOString() : null };
  await updateVersioned(tx, 'build', id, input.version, values, () => readBuild(tx, id, today));
  await keepLines(tx, after, lines, changes);
  if (closes) await settleStartOverride(doing, id);
  doing.changed('builds');
  const unitCost = decimal(unitCostOf(done.total, good));
  return { documentId: document.id, number: document.number, unitCost, build: await readBuild(tx, id, today) };
}

/** What was really used by line: as typed, or as planned for the finished quantity. */
function readActuals(
  build: BuildRecord,
  lines: readonly BuildLineRecord[],
  good: Quantity,
  typed: FinishInput['lines'],
) {
  const known = new Map(lines.map((line) => [line.id, line]));
  const actuals = new Map<number, Quantity>();
  for (const line of lines) {
    if (line.kind === 'part') actuals.set(line.id, plannedUse(needOf(line), progressOf(build), good));
    if (line.kind === 'labour')
      actuals.set(line.id, plannedPortion(line.basis, line.amount as Quantity, progressOf(build), good));
  }
  for (const [index, { lineId, actual }] of typed.entries()) {
    const line = known.get(lineId);
    if (!line || !actuals.has(lineId)) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    const decimals = line.kind === 'labour' ? 6 : line.decimals;
    actuals.set(lineId, countedIn(actual, decimals, `lines.${index}.actual`));
  }
  return actuals;
}

async function finishingLines(
  tx: Writer,
  build: BuildRecord,
  lines: readonly BuildLineRecord[],
  actuals: ReadonlyMap<number, Quantity>,
  items: ReadonlyMap<number, ItemRow>,
  input: FinishInput,
): Promise<Finishing['lines']> {
  const shelves = await usableOf(tx, [...items.keys()]);
  const holder = { kind: 'build', id: build.id } as const;
  const standing = await heldFor(tx, holder);
  const bench = await benchBinOf(tx, build.output_bin_id);
  const result: Finishing['lines'][number][] = [];
  for (const line of lines) {
    const actual = actuals.get(line.id) ?? ZERO;
    if (line.kind === 'part') {
      const item = found(items.get(line.item_id ?? 0));
      const home = line.from_bin_id ?? item.home_bin_id;
      const index = input.lines.findIndex((typed) => typed.lineId === line.id);
      const usual = spotOf(item.id, await usualBin(tx, home));
      const onBench = standing.filter((row) => row.item_id === item.id);
      const typed = input.lines[index];
      // A rework takes in the units that it is said to give back, unless told otherwise.
      const same = item.id === build.item_id && input.serials.length * SCALE === actual && !typed?.serials.length;
      const named = same ? { lot: null, serials: input.serials } : typed;
      const chosen = choosePieces(item, line, actual, onBench, inOrder(shelves, item, home), named, index);
      const part: FinishingPart = {
        kind: 'part',
        ...needOf(line),
        lineId: line.id,
        itemId: line.item_id ?? 0,
        actual,
        onBench: line.on_bench,
        bench: chosen.bench.length > 0 ? chosen.bench : [spotOf(item.id, bench, holder)],
        shelves: chosen.shelves,
        usual,
      };
      result.push(part);
    } else if (line.kind === 'labour') {
      result.push({ kind: 'labour', lineId: line.id, actual, ratePerHour: line.rate_per_hour ?? ZERO });
    } else if (line.kind === 'charge') {
      result.push({ kind: 'charge', lineId: line.id, basis: line.basis, amount: line.amount as Money });
    }
  }
  return result;
}

/** The plan for this portion at the averages before posting, for the differences kept with the document. */
function plannedCosts(
  build: BuildRecord,
  lines: readonly BuildLineRecord[],
  actuals: ReadonlyMap<number, Quantity>,
  good: Quantity,
  items: ReadonlyMap<number, ItemRow>,
) {
  const used = lines.flatMap((line): UsedLine[] => {
    const actual = actuals.get(line.id) ?? ZERO;
    const lineId = line.id;
    if (line.kind === 'part') {
      const item = found(items.get(line.item_id ?? 0));
      return [{ kind: 'part', ...needOf(line), lineId, itemId: item.id, actual, unitCost: averageCostOf(item) }];
    }
    if (line.kind === 'labour') {
      const ratePerHour = line.rate_per_hour ?? ZERO;
      return [{ kind: 'labour', lineId, basis: line.basis, minutes: line.amount as Quantity, ratePerHour, actual }];
    }
    return line.kind === 'charge' ? [{ kind: 'charge', lineId, basis: line.basis, amount: line.amount as Money }] : [];
  });
  return finishCost(used, progressOf(build), good);
}

async function putLeftoversBack(
  tx: Writer,
  posting: Posting,
  build: BuildRecord,
  lines: readonly BuildLineRecord[],
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
