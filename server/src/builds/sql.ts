import type { BuildDetail, BuildLine, BuildRow } from '@yosegi/contract';
import { type BuildNeed, extraLeft, openToPick, type Progress } from '@yosegi/core/builds';
import { canMake } from '@yosegi/core/coverage';
import { isPast } from '@yosegi/core/days';
import { required } from '@yosegi/core/definitions';
import { type Pegged, type Share, type Shortage, sharesOf, sourceKey, type WhenThere } from '@yosegi/core/demand';
import { groupBy } from '@yosegi/core/lists';
import { add, type Quantity, ZERO } from '@yosegi/core/number';
import { boughtFor } from '../buying/index.ts';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, page } from '../db/pages.ts';
import { toCoreLine } from '../definitions/index.ts';
import { readPegging, readStuck } from '../demand/index.ts';
import { itemRows, toItem } from '../items/index.ts';
import { byBin, heldFor, partedPieces, usableOf } from '../ledger/index.ts';
import { builtFor, toBuiltFor, wantingMore } from '../orders/index.ts';
import { tasksOfBuild, toTask } from '../tasks/index.ts';

/** A build joined with its item and unit. */
export interface BuildRecord
  extends Pick<
      Row<'build'>,
      | 'id'
      | 'number'
      | 'item_id'
      | 'revision_id'
      | 'output_quantity'
      | 'quantity'
      | 'finished'
      | 'rejected'
      | 'state'
      | 'due'
      | 'output_bin_id'
      | 'remark'
      | 'split_from_id'
      | 'override_reason'
      | 'version'
      | 'person_id'
      | 'bench_day'
      | 'job_tag'
      | 'repair_id'
      | 'spare'
    >,
    Pick<Row<'item'>, 'code' | 'name' | 'tracking' | 'sell_price'>,
    Pick<Row<'unit'>, 'decimals'> {
  unit: string;
}

/** A line of a build with the decimals of its part's unit, and by whom it was added. */
export type BuildLineRecord = Row<'build_line'> &
  Pick<Row<'unit'>, 'decimals'> & {
    adder: string | null;
    /** How much of it alternates stand in for. */
    instead: Quantity;
  };

export const BUILD_SQL = `
  SELECT b.id, b.number, b.item_id, i.code, i.name, u.code AS unit, u.decimals, i.tracking, i.sell_price, b.revision_id,
    b.output_quantity, b.quantity, b.finished, b.rejected, b.state, b.due, b.output_bin_id, b.remark, b.split_from_id,
    b.override_reason, b.version, b.person_id, b.bench_day, b.job_tag, b.repair_id, b.spare
  FROM build b JOIN item i ON i.id = b.item_id JOIN unit u ON u.id = i.unit_id`;

const LINE_SQL = `
  SELECT l.*, ifnull(u.decimals, 0) AS decimals, w.name AS adder,
    (SELECT ifnull(sum(stands_for), 0) FROM build_line WHERE instead_of = l.id) AS instead
  FROM build_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN unit u ON u.id = i.unit_id
  LEFT JOIN person w ON w.id = l.added_by`;

/** Builds that are not over, by due day: all of them, since they are counted. */
export const openBuilds = (db: Reader) =>
  db.all<BuildRecord>(`${BUILD_SQL} WHERE b.state IN ('planned', 'on-bench') ORDER BY ifnull(b.due, '9999'), b.id`);
/** Builds by id. */
export const buildRecords = (db: Reader, ids: readonly number[]) =>
  db.all<BuildRecord>(`${BUILD_SQL} WHERE b.id IN (SELECT value FROM json_each($1)) ORDER BY b.id`, [
    JSON.stringify(ids),
  ]);
export const buildRecord = (db: Reader, id: number) => db.one<BuildRecord>(`${BUILD_SQL} WHERE b.id = $1`, [id]);
export const buildLines = (db: Reader, buildId: number) =>
  db.all<BuildLineRecord>(`${LINE_SQL} WHERE l.build_id = $1 ORDER BY l.position`, [buildId]);

/** The build that was planned last of those that still need some of an item. */
export const promisedLast = (db: Reader, itemId: number) =>
  db.one<{ number: string; person: string; quantity: Quantity }>(
    `SELECT b.number, p.name AS person, sum(l.open) AS quantity FROM build_line l JOIN build b ON b.id = l.build_id
     JOIN person p ON p.id = b.planned_by WHERE l.item_id = $1 AND l.open > 0
     GROUP BY b.id ORDER BY b.planned_at DESC, b.id DESC LIMIT 1`,
    [itemId],
  );

export const isOpen = (state: BuildRow['state']) => state === 'planned' || state === 'on-bench';

export const progressOf = (
  build: Pick<BuildRecord, 'quantity' | 'finished' | 'rejected' | 'output_quantity'>,
): Progress => ({
  quantity: build.quantity,
  finished: add(build.finished, build.rejected),
  outputQuantity: build.output_quantity,
});

export const needOf = (
  line: Pick<BuildLineRecord, 'basis' | 'amount' | 'waste' | 'decimals' | 'used' | 'added_by' | 'instead'>,
): BuildNeed => ({
  basis: line.basis,
  quantity: line.amount as Quantity,
  waste: line.waste,
  decimals: line.decimals,
  extra: line.added_by === null ? undefined : extraLeft(line.amount as Quantity, line.used),
  instead: line.instead > 0 ? line.instead : undefined,
});

/** What a part line still needs from the shelves: nothing once its build is over. */
export const openOf = (build: BuildRecord, line: BuildLineRecord): Quantity =>
  line.kind === 'part' && isOpen(build.state) ? openToPick(needOf(line), progressOf(build), line.on_bench) : ZERO;

/** What open builds have from shelves and wait for, and their lines. */
export interface Shares {
  /** What serves whom, in turn. */
  readonly pegging: readonly Pegged[];
  /** When each is done; null where nobody knows. */
  readonly doneOn: ReadonlyMap<number, WhenThere>;
  /** By {@link sourceKey}. */
  readonly shares: ReadonlyMap<string, Share>;
  readonly lines: ReadonlyMap<number, readonly BuildLineRecord[]>;
}

export async function readShares(db: Reader, today: string): Promise<Shares> {
  const lines = await db.all<BuildLineRecord>(
    `${LINE_SQL} WHERE l.build_id IN (SELECT id FROM build WHERE state IN ('planned', 'on-bench')) ORDER BY l.build_id, l.position`,
  );
  const byBuild = new Map<number, BuildLineRecord[]>();
  for (const line of lines) {
    const known = byBuild.get(line.build_id);
    if (known) known.push(line);
    else byBuild.set(line.build_id, [line]);
  }
  const { pegged: pegging, doneOn } = await readPegging(db, today);
  return { pegging, doneOn, shares: sharesOf(pegging), lines: byBuild };
}

/** The share of one build; it has no entry where it needs nothing. */
export const shareOf = ({ shares }: Shares, buildId: number): Share | undefined =>
  shares.get(sourceKey({ kind: 'build', id: buildId }));

/** How many of a planned build the parts it was given allow. */
export function canStart(build: BuildRecord, shares: Shares): Quantity {
  const got = shareOf(shares, build.id)?.got;
  const lines = (shares.lines.get(build.id) ?? []).map((line) => toCoreLine(line, line.decimals));
  const revision = { outputQuantity: build.output_quantity, lines };
  const can = canMake(revision, (itemId) => got?.get(itemId) ?? ZERO, build.decimals);
  return Math.min(build.quantity, can.quantity ?? build.quantity) as Quantity;
}

/** Rows as a list shows them, with what each build waits for. */
export async function toBuildRows(
  db: Reader,
  builds: readonly BuildRecord[],
  shares: Shares,
  today: string,
): Promise<BuildRow[]> {
  const shortIds = builds.flatMap((build) => [...(shareOf(shares, build.id)?.short.keys() ?? [])]);
  const held = groupBy(await readStuck(db), ({ holder_id }) => holder_id);
  const heldIds = [...held.values()].flat().map(({ item_id }) => item_id);
  const items = await itemRows(db, [...shortIds, ...heldIds]);
  const orders = await builtFor(
    db,
    builds.map(({ id }) => id),
  );
  const repairs = await repairsOf(
    db,
    builds.flatMap(({ repair_id }) => repair_id ?? []),
  );
  return builds.map((build) => {
    const lines = (shares.lines.get(build.id) ?? []).filter((line) => line.taken === 'picked-first');
    const short = shareOf(shares, build.id)?.short ?? new Map<number, Shortage>();
    return {
      id: build.id,
      number: build.number,
      itemId: build.item_id,
      code: build.code,
      name: build.name,
      unit: build.unit,
      quantity: decimal(build.quantity),
      finished: decimal(build.finished),
      rejected: decimal(build.rejected),
      state: build.state,
      due: build.due,
      late: isOpen(build.state) && isPast(build.due, today),
      waiting: [...short].map(([itemId, missing]) => {
        const item = found(items.get(itemId));
        const { code, name, unit } = item;
        const { quantity, completeOn, isComing } = missing;
        return { itemId, code, name, unit, short: decimal(quantity), comesOn: completeOn, isComing };
      }),
      held: (held.get(build.id) ?? []).map(({ item_id, quantity }) => {
        const { code, name, unit } = found(items.get(item_id));
        return { itemId: item_id, code, name, unit, quantity: decimal(quantity) };
      }),
      canStart: decimalOrNull(build.state === 'planned' ? canStart(build, shares) : null),
      pickLines: lines.length,
      pickedLines: lines.filter((line) => line.open === 0).length,
      remark: build.remark,
      repair: repairs.get(build.repair_id ?? 0) ?? null,
      orders: orders.filter(({ build_id }) => build_id === build.id).map(toBuiltFor),
      version: build.version,
    };
  });
}

/** Whose goods are repaired, by repair. */
async function repairsOf(db: Reader, ids: readonly number[]): Promise<ReadonlyMap<number, BuildRow['repair']>> {
  if (ids.length === 0) return new Map();
  const rows = await db.all<
    Pick<Row<'repair'>, 'id' | 'state' | 'fault'> & { customer: string; serial: string | null }
  >(
    `SELECT r.id, r.state, r.fault, c.name AS customer, s.code AS serial FROM repair r JOIN customer c ON c.id = r.customer_id
     LEFT JOIN serial s ON s.id = r.serial_id WHERE r.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

export async function readBuild(db: Reader, id: number, today: string): Promise<BuildDetail> {
  const build = found(await buildRecord(db, id));
  const lines = await buildLines(db, id);
  const shares = await readShares(db, today);
  const [row] = await toBuildRows(db, [build], { ...shares, lines: new Map([[id, lines]]) }, today);
  const itemIds = lines.flatMap((line) => line.item_id ?? []);
  const items = await itemRows(db, itemIds);
  const shelves = await usableOf(db, itemIds);
  const pieces = partedPieces(
    await heldFor(db, { kind: 'build', id }),
    lines.map((line) => ({ line: line.id, itemId: line.item_id, quantity: line.on_bench })),
  );
  const about = found(
    await db.one<{ output_bin: string; revision: number | null; definition_id: number | null; person: string | null }>(
      `SELECT n.code AS output_bin, r.number AS revision, r.definition_id, p.name AS person FROM build b
       JOIN bin n ON n.id = b.output_bin_id LEFT JOIN revision r ON r.id = b.revision_id
       LEFT JOIN person p ON p.id = b.person_id WHERE b.id = $1`,
      [id],
    ),
  );
  const documents = await db.all<BuildDetail['documents'][number]>(
    `SELECT d.id, d.number, d.kind, d.at, p.name AS person FROM document d JOIN person p ON p.id = d.person_id
     WHERE d.for_kind = 'build' AND d.for_id = $1 ORDER BY d.id`,
    [id],
  );
  const related = await db.all<{ id: number; number: string }>(
    'SELECT id, number FROM build WHERE id = $1 OR split_from_id = $2 ORDER BY id',
    [build.split_from_id, id],
  );
  return {
    ...found(row),
    decimals: build.decimals,
    tracking: build.tracking,
    outputQuantity: decimal(build.output_quantity),
    outputBinId: build.output_bin_id,
    outputBin: about.output_bin,
    definition:
      about.definition_id === null || about.revision === null || build.revision_id === null
        ? null
        : { id: about.definition_id, revision: about.revision, revisionId: build.revision_id },
    overrideReason: build.override_reason,
    documents,
    wanting: isOpen(build.state)
      ? (await wantingMore(db, build.item_id)).map((row) => ({
          orderId: row.order_id,
          order: row.number,
          customer: row.customer,
          wantedOn: row.wanted_on,
          partId: row.part_id,
          quantity: decimal(row.quantity),
        }))
      : [],
    related,
    purchases: await boughtFor(db, 'build', id),
    ...(await finishRule(db, build.revision_id)),
    personId: build.person_id,
    person: about.person,
    benchDay: build.bench_day,
    spare: build.spare === 1,
    jobTag: build.job_tag,
    tasks: (await tasksOfBuild(db, id)).map((task) => toTask(task, today)),
    lines: lines
      .filter((line) => !isTakenBack(line))
      .map((line): BuildLine => {
        const isPart = line.item_id !== null;
        return {
          id: line.id,
          kind: line.kind,
          text: line.text,
          item: isPart ? toItem(found(items.get(line.item_id ?? 0))) : null,
          basis: line.basis,
          amount: decimal(line.amount),
          waste: decimal(line.waste),
          taken: line.taken,
          ratePerHour: decimalOrNull(line.rate_per_hour),
          share: decimalOrNull(line.share),
          comesBack: line.comes_back === 1,
          required: decimal(
            isPart ? Math.max(0, required(needOf(line), build.quantity, build.output_quantity) - line.instead) : 0,
          ),
          instead: decimal(line.instead),
          onBench: decimal(line.on_bench),
          used: decimal(line.used),
          open: decimal(line.open),
          bins: byBin(shelves.filter((shelf) => shelf.item_id === line.item_id)).sort(
            (a, b) => Number(b.binId === line.from_bin_id) - Number(a.binId === line.from_bin_id),
          ),
          pieces: [...(pieces.get(line.id) ?? [])],
          tolerance: decimalOrNull(line.tolerance),
          added: line.adder === null ? null : { by: line.adder, because: line.added_because ?? '' },
        };
      }),
  };
}

/** What was added on the bench and taken back is not spoken of any more. */
const isTakenBack = (line: BuildLineRecord) =>
  line.added_by !== null && line.kind === 'part' && line.amount === 0 && line.used === 0 && line.on_bench === 0;

/** How a definition wants what it makes to be finished; a repair has none and asks nothing. */
export async function finishRule(db: Reader, revisionId: number | null) {
  const rule =
    revisionId === null
      ? undefined
      : await db.one<Pick<Row<'definition'>, 'tasks_first' | 'purpose'>>(
          'SELECT d.tasks_first, d.purpose FROM revision r JOIN definition d ON d.id = r.definition_id WHERE r.id = $1',
          [revisionId],
        );
  return { tasksFirst: rule?.tasks_first === 1, isRework: rule?.purpose === 'rework' };
}

/** Open builds by due day, the ones without a day last; ended ones with the newest first. */
export async function listBuilds(db: Reader, query: QueryOf<'builds'>, today: string) {
  const ended = query.state === 'finished' || query.state === 'cancelled';
  const states = query.state === 'open' ? ['planned', 'on-bench'] : [query.state];
  const [due, id] = (query.cursor ?? '').split('|');
  const after = ended
    ? 'b.id < $3 AND $4 = $4'
    : "(ifnull(b.due, '9999') > $4 OR (ifnull(b.due, '9999') = $4 AND b.id > $3))";
  const records = await db.all<BuildRecord>(
    `${BUILD_SQL} WHERE b.state IN (SELECT value FROM json_each($1))
       AND (b.number LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\' OR i.code LIKE $2 ESCAPE '\\') AND ${after}
     ORDER BY ${ended ? 'b.id DESC' : "ifnull(b.due, '9999'), b.id"} LIMIT $5`,
    [
      JSON.stringify(states),
      containing(query.q ?? ''),
      id === undefined ? (ended ? Number.MAX_SAFE_INTEGER : 0) : Number(id),
      due ?? '',
      query.limit + 1,
    ],
  );
  const shown = page(records, query.limit, (row) => `${row.due ?? '9999'}|${row.id}`);
  return { rows: await toBuildRows(db, shown.rows, await readShares(db, today), today), next: shown.next };
}
