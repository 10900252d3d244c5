import {
  type FinishCost,
  type Finishing,
  type FinishingPart,
  finishCost,
  isBeyond,
  labourPortion,
  plannedUse,
  type UsedCharge,
  type UsedLine,
} from '@yosegi/core/builds';
import { spotOf } from '@yosegi/core/ledger';
import { add, countedIn, type Money, minus, type Quantity, SCALE, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { Spent } from '@yosegi/core/tasks';
import { type BodyOf, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { averageCostOf, type ItemRow, itemRows } from '../items/index.ts';
import { type BalanceRow, heldFor, heldLast, usableOf } from '../ledger/index.ts';
import { benchBinOf, usualBin } from '../places/index.ts';
import { spentByLine, tasksOfBuild } from '../tasks/index.ts';
import { choosePieces, inOrder } from '../tracking/index.ts';
import {
  type BuildLineRecord,
  type BuildRecord,
  buildLines,
  buildRecord,
  finishRule,
  needOf,
  progressOf,
} from './sql.ts';

/** A build with everything that decides what is used for it. */
export interface Bench {
  readonly build: BuildRecord;
  readonly lines: readonly BuildLineRecord[];
  readonly items: ReadonlyMap<number, ItemRow>;
  /** What stands on the bench for it. */
  readonly standing: readonly BalanceRow[];
  readonly shelves: readonly BalanceRow[];
  readonly binId: number;
  /** Where a shortage of a line is noted, by line. */
  readonly usual: ReadonlyMap<number, number>;
  /** What was spent on its tasks, by line. */
  readonly spent: ReadonlyMap<number, Spent<number>>;
  /** It is finished only once its tasks are done. */
  readonly tasksFirst: boolean;
  /** It takes in the very thing that it gives back. */
  readonly isRework: boolean;
}

export async function benchOf(db: Reader, buildId: number): Promise<Bench> {
  const build = found(await buildRecord(db, buildId));
  const lines = await buildLines(db, buildId);
  const items = await itemRows(
    db,
    lines.flatMap((line) => line.item_id ?? []),
  );
  const usual = new Map<number, number>();
  for (const line of lines)
    if (line.item_id !== null) usual.set(line.id, await usualBin(db, homeOf(line, found(items.get(line.item_id)))));
  return {
    build,
    lines,
    items,
    standing: heldLast(await heldFor(db, { kind: 'build', id: buildId })),
    shelves: await usableOf(db, [...items.keys()]),
    binId: await benchBinOf(db, build.output_bin_id),
    usual,
    spent: spentByLine(await tasksOfBuild(db, buildId)),
    ...(await finishRule(db, build.revision_id)),
  };
}

const homeOf = (line: BuildLineRecord, item: ItemRow) => line.from_bin_id ?? item.home_bin_id;

type Typed = BodyOf<'finish'>;

/**
 * What was really used by line, parts and minutes: as typed, or as planned for the finished quantity.
 * @throws Refusal `unknown-line`, `too-precise`, `beyond-tolerance`
 */
export function actualsOf(
  { build, lines, spent, items }: Bench,
  good: Quantity,
  typed: Typed['lines'],
  closes: boolean,
): ReadonlyMap<number, Quantity> {
  const actuals = new Map<number, Quantity>();
  for (const line of lines) {
    if (line.kind === 'part') actuals.set(line.id, plannedUse(needOf(line), progressOf(build), good));
    if (line.kind === 'labour') {
      const labour = { basis: line.basis, minutes: line.amount as Quantity, spent: spent.get(line.id) };
      actuals.set(line.id, labourPortion(labour, progressOf(build), good, closes));
    }
  }
  const known = new Map(lines.map((line) => [line.id, line]));
  for (const [index, { lineId, actual, because }] of typed.entries()) {
    const line = known.get(lineId);
    const planned = actuals.get(lineId);
    if (!line || planned === undefined) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    const decimals = line.kind === 'labour' ? 6 : line.decimals;
    const used = countedIn(actual, decimals, `lines.${index}.actual`);
    const { tolerance } = line;
    if (tolerance !== null && because === '' && isBeyond(planned, used, tolerance)) {
      const { name } = found(items.get(line.item_id ?? 0));
      throw new Refusal('beyond-tolerance', { name, tolerance }, `lines.${index}.because`);
    }
    actuals.set(lineId, used);
  }
  return actuals;
}

/** @throws Refusal `rework-needs-unit` where less of the thing itself goes in than comes out */
export function requireUnit({ build, lines }: Bench, actuals: ReadonlyMap<number, Quantity>, portion: Quantity): void {
  const own = lines.filter((line) => line.item_id === build.item_id);
  const goingIn = add(ZERO, ...own.map(({ id }) => actuals.get(id) ?? ZERO));
  if (goingIn < portion) throw new Refusal('rework-needs-unit', { name: build.name }, 'good');
}

/** Where each part comes from and what else adds value. @throws Refusal as {@link choosePieces} */
export function finishingLines(
  bench: Bench,
  actuals: ReadonlyMap<number, Quantity>,
  typed: Pick<Typed, 'lines' | 'serials' | 'override'>,
): Finishing['lines'] {
  return bench.lines.flatMap((line): Finishing['lines'][number][] => {
    const actual = actuals.get(line.id) ?? ZERO;
    if (line.kind === 'part') return [finishingPart(bench, line, actual, typed)];
    if (line.kind === 'labour')
      return [{ kind: 'labour', lineId: line.id, actual, ratePerHour: line.rate_per_hour ?? ZERO }];
    return line.kind === 'charge' ? [chargeOf(line, bench)] : [];
  });
}

function finishingPart(
  { build, items, standing, shelves, binId, usual }: Bench,
  line: BuildLineRecord,
  actual: Quantity,
  typed: Pick<Typed, 'lines' | 'serials' | 'override'>,
): FinishingPart {
  const item = found(items.get(line.item_id ?? 0));
  const index = typed.lines.findIndex((one) => one.lineId === line.id);
  const own = typed.lines[index];
  // A rework takes in the units that it is said to give back, unless told otherwise.
  const same = item.id === build.item_id && typed.serials.length * SCALE === actual && !own?.serials.length;
  const named = same ? { lot: null, serials: typed.serials } : own;
  const at = (name: string) => (same ? name : index < 0 ? 'lines' : `lines.${index}.${name}`);
  const chosen = choosePieces({
    item,
    quantity: actual,
    standing: line.on_bench,
    bench: standing.filter((row) => row.item_id === item.id),
    shelves: inOrder(shelves, item, homeOf(line, item)),
    named,
    at,
  });
  const shelf = spotOf(item.id, found(usual.get(line.id)));
  // What goes below zero of a lot goes below zero of one that is known.
  const last = chosen.shelves.at(-1) ?? { ...shelf, lotId: chosen.bench.at(-1)?.lotId ?? null };
  const isShort = item.tracking === 'lot' && actual > line.on_bench && last.lotId === null;
  if (isShort && typed.override) throw new Refusal('lot-needed', { name: item.name }, at('lot'));
  return {
    kind: 'part',
    ...needOf(line),
    lineId: line.id,
    itemId: item.id,
    actual,
    onBench: line.on_bench,
    bench: chosen.bench.length > 0 ? chosen.bench : [spotOf(item.id, binId, { kind: 'build', id: build.id })],
    shelves: chosen.shelves,
    usual: item.tracking === 'lot' ? last : shelf,
  };
}

/**
 * The lines as the plan for a portion reckons them: at the averages before posting, and units that are known by serial at
 * their own cost.
 */
export function usedLines(
  { lines, items, spent, standing, shelves }: Bench,
  actuals: ReadonlyMap<number, Quantity>,
  finishing: Finishing['lines'] = [],
): UsedLine[] {
  const worths = new Map([...standing, ...shelves].map((row) => [row.serial_id, row.worth]));
  const worthIn = (lineId: number, itemId: number, actual: Quantity): Money | undefined => {
    if (items.get(itemId)?.tracking !== 'serial' || actual === 0) return undefined;
    const part = finishing.find((one) => one.lineId === lineId && one.kind === 'part');
    const named = part?.kind === 'part' ? [...part.bench, ...part.shelves].map(({ serialId }) => serialId) : [];
    const onBench = standing.filter((row) => row.item_id === itemId).map(({ serial_id }) => serial_id);
    const used = (named.length > 0 ? named : onBench).slice(0, actual / SCALE);
    if (used.length * SCALE !== actual) return undefined;
    return add<Money>(ZERO, ...used.map((id) => worths.get(id) ?? ZERO));
  };
  return lines.flatMap((line): UsedLine[] => {
    const actual = actuals.get(line.id) ?? ZERO;
    const lineId = line.id;
    if (line.kind === 'part') {
      const item = found(items.get(line.item_id ?? 0));
      const worth = worthIn(lineId, item.id, actual);
      return [{ kind: 'part', ...needOf(line), lineId, itemId: item.id, actual, unitCost: averageCostOf(item), worth }];
    }
    if (line.kind === 'labour') {
      const ratePerHour = line.rate_per_hour ?? ZERO;
      return [{ kind: 'labour', lineId, basis: line.basis, minutes: line.amount as Quantity, ratePerHour, actual }];
    }
    return line.kind === 'charge' ? [chargeOf(line, { spent })] : [];
  });
}

/** What finishing all that is left of a build costs with what is known of it now: the plan where nothing else is. */
export async function costNow(db: Reader, buildId: number): Promise<FinishCost> {
  const bench = await benchOf(db, buildId);
  const progress = progressOf(bench.build);
  const left = minus(progress.quantity, progress.finished);
  return finishCost(usedLines(bench, actualsOf(bench, left, [], true)), progress, left, true);
}

const chargeOf = (line: BuildLineRecord, { spent }: Pick<Bench, 'spent'>): UsedCharge => ({
  kind: 'charge',
  lineId: line.id,
  basis: line.basis,
  amount: line.amount as Money,
  spent: spent.get(line.id),
});
