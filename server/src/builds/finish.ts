import {
  checkPortion,
  type Finishing,
  type FinishingPart,
  finishCost,
  plannedPortion,
  plannedUse,
  postFinish,
  type UsedLine,
} from '@yosegi/core/build';
import { type Money, type Quantity, unitCostOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, placeOf } from '@yosegi/core/stock';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { decimal, positiveQuantity, quantityFromZero } from '../http/amounts.ts';
import { type Doing, dayOf, found } from '../http/context.ts';
import { averageCostOf, type ItemRow, itemRows } from '../items/store.ts';
import { benchOf, requireShelf, usualBin } from '../places/store.ts';
import { mayGoBelow, type Override, readStock, writeDocument } from '../stock/posting.ts';
import { withNames } from '../stock/shortage.ts';
import { requireState, settleStartOverride } from './bench.ts';
import { keepLines, type LineChange } from './keep.ts';
import { lastPickedFrom } from './leftovers.ts';
import {
  type BuildLineRecord,
  type BuildRecord,
  buildLines,
  buildRecord,
  needOf,
  progressOf,
  readBuild,
  shelvesOf,
} from './store.ts';

interface FinishInput {
  readonly version: number;
  readonly good: string;
  readonly outputBinId: number;
  readonly lines: readonly { lineId: number; actual: string }[];
  readonly close: boolean;
  readonly override?: Override | undefined;
}

/**
 * Finishes some or all of a build with what was really used. The good units arrive at the exact cost consumed; when the
 * build is complete, what is left on the bench goes back to its bins in the same document.
 */
export async function finishBuild(doing: Doing, id: number, input: FinishInput) {
  const { tx } = doing;
  const today = dayOf(doing.now);
  const build = found(await buildRecord(tx, id));
  requireState(build, 'on-bench');
  const good = positiveQuantity(input.good, build.decimals, 'good');
  checkPortion(progressOf(build), good);
  await requireShelf(tx, input.outputBinId, 'outputBinId');
  const lines = await buildLines(tx, id);
  const actuals = readActuals(build, lines, good, input.lines);
  const bench = await benchOf(tx, build.output_bin_id);
  const partIds = lines.flatMap((line) => line.item_id ?? []);
  const items = await itemRows(tx, partIds);
  const stock = await readStock(tx, [build.item_id, ...partIds]);
  const posting = new Posting(stock, { mayGoBelow: mayGoBelow(doing, input.override) });
  const output = placeOf(build.item_id, input.outputBinId);
  const finishing: Finishing = {
    buildId: id,
    benchBinId: bench,
    output,
    good,
    progress: progressOf(build),
    lines: await finishingLines(tx, lines, actuals, items),
  };
  const planned = plannedCosts(build, lines, actuals, good, items);
  const done = postFinish(posting, finishing);
  const closes = input.close || build.finished + good === build.quantity;
  const changes = new Map<number, LineChange>(
    lines.map((line) => [line.id, { onBench: -(done.fromBench.get(line.id) ?? 0), used: actuals.get(line.id) ?? 0 }]),
  );
  if (closes) await putLeftoversBack(tx, posting, build, lines, bench, changes);
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(doing, { kind: 'finish', buildId: id, override: input.override }, posted);
  await tx.insert('finish', { document_id: document.id, build_id: id, good });
  await tx.insertMany(
    'finish_line',
    planned.lines.map((line) => ({
      document_id: document.id,
      build_line_id: line.lineId,
      planned: line.planned,
      actual: line.actual,
      planned_cost: line.plannedCost,
      cost: done.costs.get(line.lineId) ?? 0,
    })),
  );
  const after = { ...build, finished: build.finished + good, state: closes ? ('finished' as const) : build.state };
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
    actuals.set(lineId, quantityFromZero(actual, decimals, `lines.${index}.actual`));
  }
  return actuals;
}

async function finishingLines(
  tx: Writer,
  lines: readonly BuildLineRecord[],
  actuals: ReadonlyMap<number, Quantity>,
  items: ReadonlyMap<number, ItemRow>,
): Promise<Finishing['lines']> {
  const shelves = await shelvesOf(tx, [...items.keys()]);
  const result: Finishing['lines'][number][] = [];
  for (const line of lines) {
    const actual = actuals.get(line.id) ?? (0 as Quantity);
    if (line.kind === 'part') {
      const home = line.from_bin_id ?? found(items.get(line.item_id ?? 0)).home_bin_id;
      const holding = shelves.filter((shelf) => shelf.item_id === line.item_id);
      const homeFirst = holding.sort((a, b) => Number(b.bin_id === home) - Number(a.bin_id === home));
      const part: FinishingPart = {
        kind: 'part',
        ...needOf(line),
        lineId: line.id,
        itemId: line.item_id ?? 0,
        actual,
        onBench: line.on_bench as Quantity,
        shelves: homeFirst.map((shelf) => ({ binId: shelf.bin_id, quantity: shelf.quantity as Quantity })),
        usualBinId: await usualBin(tx, home),
      };
      result.push(part);
    } else if (line.kind === 'labour') {
      result.push({ kind: 'labour', lineId: line.id, actual, ratePerHour: (line.rate_per_hour ?? 0) as Money });
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
    const actual = actuals.get(line.id) ?? (0 as Quantity);
    const lineId = line.id;
    if (line.kind === 'part') {
      const item = found(items.get(line.item_id ?? 0));
      return [{ kind: 'part', ...needOf(line), lineId, itemId: item.id, actual, unitCost: averageCostOf(item) }];
    }
    if (line.kind === 'labour') {
      const ratePerHour = (line.rate_per_hour ?? 0) as Money;
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
  bench: number,
  changes: Map<number, LineChange>,
): Promise<void> {
  const cameFrom = await lastPickedFrom(tx, build.id);
  for (const line of lines) {
    const change = changes.get(line.id) ?? { onBench: 0, used: 0 };
    const left = (line.on_bench + change.onBench) as Quantity;
    if (left <= 0) continue;
    const itemId = line.item_id ?? 0;
    const back = placeOf(itemId, cameFrom.get(line.id) ?? build.output_bin_id);
    posting.move(placeOf(itemId, bench, build.id), back, left, line.id);
    changes.set(line.id, { ...change, onBench: change.onBench - left });
  }
}
