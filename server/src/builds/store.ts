import type { BuildDetail, BuildLine, BuildRow } from '@yosegi/contract';
import { openToPick, type Progress } from '@yosegi/core/build';
import { type Allotment, allot, canMake, type OpenBuild, type Shortage } from '@yosegi/core/coverage';
import { type Need, required } from '@yosegi/core/definition';
import type { Percent, Quantity } from '@yosegi/core/number';
import { arrivalsOf } from '../buying/coming.ts';
import type { Reader } from '../db/database.ts';
import { type LineRow, toCoreLine } from '../definitions/store.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { found } from '../http/context.ts';
import { itemRows, toItem } from '../items/store.ts';
import { benchOfBuild, byBin, toPiece, usableOf } from '../stock/standing.ts';

export interface BuildRecord {
  id: number;
  number: string;
  item_id: number;
  code: string;
  name: string;
  unit: string;
  decimals: number;
  tracking: BuildDetail['tracking'];
  sell_price: number | null;
  revision_id: number;
  output_quantity: number;
  quantity: number;
  finished: number;
  state: BuildRow['state'];
  due: string | null;
  output_bin_id: number;
  remark: string;
  split_from_id: number | null;
  override_reason: string | null;
  version: number;
}

export interface BuildLineRecord extends Omit<LineRow, 'revision_id' | 'rate_id'> {
  build_id: number;
  on_bench: number;
  used: number;
  open: number;
  decimals: number;
}

export const BUILD_SQL = `
  SELECT b.id, b.number, b.item_id, i.code, i.name, u.code AS unit, u.decimals, i.tracking, i.sell_price, b.revision_id,
    b.output_quantity, b.quantity, b.finished, b.state, b.due, b.output_bin_id, b.remark, b.split_from_id,
    b.override_reason, b.version
  FROM build b JOIN item i ON i.id = b.item_id JOIN unit u ON u.id = i.unit_id`;

const LINE_SQL = `
  SELECT l.*, ifnull(u.decimals, 0) AS decimals
  FROM build_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN unit u ON u.id = i.unit_id`;

export const buildRecord = (db: Reader, id: number) => db.one<BuildRecord>(`${BUILD_SQL} WHERE b.id = $1`, [id]);
export const buildLines = (db: Reader, buildId: number) =>
  db.all<BuildLineRecord>(`${LINE_SQL} WHERE l.build_id = $1 ORDER BY l.position`, [buildId]);

export const isOpen = (state: BuildRow['state']) => state === 'planned' || state === 'on-bench';

export const progressOf = (build: Pick<BuildRecord, 'quantity' | 'finished' | 'output_quantity'>): Progress => ({
  quantity: build.quantity as Quantity,
  finished: build.finished as Quantity,
  outputQuantity: build.output_quantity as Quantity,
});

export const needOf = (line: Pick<BuildLineRecord, 'basis' | 'amount' | 'waste' | 'decimals'>): Need => ({
  basis: line.basis,
  quantity: line.amount as Quantity,
  waste: line.waste as Percent,
  decimals: line.decimals,
});

/** What a part line still needs from the shelves: nothing once its build is over. */
export const openOf = (build: BuildRecord, line: BuildLineRecord): Quantity =>
  line.kind === 'part' && isOpen(build.state)
    ? openToPick(needOf(line), progressOf(build), line.on_bench as Quantity)
    : (0 as Quantity);

/** How open builds share the shelves, and what is coming. */
export interface Shares {
  readonly allotments: ReadonlyMap<number, Allotment>;
  readonly lines: ReadonlyMap<number, readonly BuildLineRecord[]>;
}

export async function readShares(db: Reader, today: string): Promise<Shares> {
  const builds = await db.all<Pick<BuildRecord, 'id' | 'item_id' | 'state' | 'due'>>(
    "SELECT id, item_id, state, due FROM build WHERE state IN ('planned', 'on-bench')",
  );
  const lines = await db.all<BuildLineRecord>(
    `${LINE_SQL} WHERE l.build_id IN (SELECT id FROM build WHERE state IN ('planned', 'on-bench')) ORDER BY l.build_id, l.position`,
  );
  const byBuild = new Map<number, BuildLineRecord[]>(builds.map((build) => [build.id, []]));
  for (const line of lines) byBuild.get(line.build_id)?.push(line);
  const shelves = await db.all<{ item_id: number; quantity: number }>(
    `SELECT item_id, sum(quantity) AS quantity FROM usable
     WHERE item_id IN (SELECT item_id FROM build_line WHERE open > 0) GROUP BY item_id`,
  );
  const onHand = new Map(shelves.map((row) => [row.item_id, row.quantity as Quantity]));
  const open = builds.map(
    (build): OpenBuild => ({
      id: build.id,
      onBench: build.state === 'on-bench',
      due: build.due,
      needs: needsByItem(byBuild.get(build.id) ?? []),
    }),
  );
  const allotted = allot(open, onHand, await arrivalsOf(db, today));
  return { allotments: new Map(allotted.map((allotment) => [allotment.buildId, allotment])), lines: byBuild };
}

function needsByItem(lines: readonly BuildLineRecord[]): Map<number, Quantity> {
  const needs = new Map<number, Quantity>();
  for (const { item_id, open } of lines) {
    if (item_id !== null && open > 0) needs.set(item_id, ((needs.get(item_id) ?? 0) + open) as Quantity);
  }
  return needs;
}

/** How many of a planned build the parts it was given allow. */
export function canStart(build: BuildRecord, shares: Shares): Quantity {
  const got = shares.allotments.get(build.id)?.got;
  const lines = (shares.lines.get(build.id) ?? []).map((line) => toCoreLine(line, line.decimals));
  const revision = { outputQuantity: build.output_quantity as Quantity, lines };
  const can = canMake(revision, (itemId) => got?.get(itemId) ?? (0 as Quantity), build.decimals);
  return Math.min(build.quantity, can.quantity ?? build.quantity) as Quantity;
}

/** Rows as a list shows them, with what each build waits for. */
export async function toBuildRows(
  db: Reader,
  builds: readonly BuildRecord[],
  shares: Shares,
  today: string,
): Promise<BuildRow[]> {
  const shortIds = builds.flatMap((build) => [...(shares.allotments.get(build.id)?.short.keys() ?? [])]);
  const items = await itemRows(db, shortIds);
  return builds.map((build) => {
    const lines = (shares.lines.get(build.id) ?? []).filter((line) => line.taken === 'picked-first');
    const short = shares.allotments.get(build.id)?.short ?? new Map<number, Shortage>();
    return {
      id: build.id,
      number: build.number,
      itemId: build.item_id,
      code: build.code,
      name: build.name,
      unit: build.unit,
      quantity: decimal(build.quantity),
      finished: decimal(build.finished),
      state: build.state,
      due: build.due,
      late: isOpen(build.state) && build.due !== null && build.due < today,
      waiting: [...short].map(([itemId, missing]) => {
        const item = found(items.get(itemId));
        const { code, name, unit } = item;
        const { quantity, wholeOn, isComing } = missing;
        return { itemId, code, name, unit, short: decimal(quantity), comesOn: wholeOn, isComing };
      }),
      canStart: decimalOrNull(build.state === 'planned' ? canStart(build, shares) : null),
      pickLines: lines.length,
      pickedLines: lines.filter((line) => line.open === 0).length,
      remark: build.remark,
      version: build.version,
    };
  });
}

export async function readBuild(db: Reader, id: number, today: string): Promise<BuildDetail> {
  const build = found(await buildRecord(db, id));
  const lines = await buildLines(db, id);
  const shares = await readShares(db, today);
  const [row] = await toBuildRows(db, [build], { ...shares, lines: new Map([[id, lines]]) }, today);
  const itemIds = lines.flatMap((line) => line.item_id ?? []);
  const items = await itemRows(db, itemIds);
  const shelves = await usableOf(db, itemIds);
  const bench = await benchOfBuild(db, id);
  const about = found(
    await db.one<{ output_bin: string; revision: number; definition_id: number }>(
      `SELECT n.code AS output_bin, r.number AS revision, r.definition_id FROM build b
       JOIN bin n ON n.id = b.output_bin_id JOIN revision r ON r.id = b.revision_id WHERE b.id = $1`,
      [id],
    ),
  );
  const documents = await db.all<BuildDetail['documents'][number]>(
    `SELECT d.id, d.number, d.kind, d.at, p.name AS person FROM document d JOIN person p ON p.id = d.person_id
     WHERE d.build_id = $1 ORDER BY d.id`,
    [id],
  );
  const related = await db.all<{ id: number; number: string }>(
    'SELECT id, number FROM build WHERE id = $1 OR split_from_id = $2 ORDER BY id',
    [build.split_from_id, id],
  );
  const purchases = await db.all<
    Omit<BuildDetail['purchases'][number], 'quantity' | 'open'> & { quantity: number; open: number }
  >(
    `SELECT o.id AS orderId, o.number AS "order", i.code, u.code AS unit, n.quantity, l.open > 0 AS open FROM purchase_need n
     JOIN purchase_order_line l ON l.id = n.line_id JOIN purchase_order o ON o.id = l.order_id
     JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
     WHERE n.build_id = $1 AND o.state <> 'cancelled' ORDER BY o.id`,
    [id],
  );
  return {
    ...found(row),
    decimals: build.decimals,
    tracking: build.tracking,
    outputQuantity: decimal(build.output_quantity),
    outputBinId: build.output_bin_id,
    outputBin: about.output_bin,
    revision: about.revision,
    revisionId: build.revision_id,
    definitionId: about.definition_id,
    overrideReason: build.override_reason,
    documents,
    related,
    purchases: purchases.map((row) => ({ ...row, quantity: decimal(row.quantity), open: row.open === 1 })),
    lines: lines.map((line): BuildLine => {
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
        required: decimal(
          isPart ? required(needOf(line), build.quantity as Quantity, build.output_quantity as Quantity) : 0,
        ),
        onBench: decimal(line.on_bench),
        used: decimal(line.used),
        open: decimal(line.open),
        bins: byBin(shelves.filter((shelf) => shelf.item_id === line.item_id)).sort(
          (a, b) => Number(b.binId === line.from_bin_id) - Number(a.binId === line.from_bin_id),
        ),
        pieces: bench
          .filter((row) => row.item_id === line.item_id && (row.lot_id ?? row.serial_id) !== null)
          .map(toPiece),
      };
    }),
  };
}
