import { benchDays, isPast, type WorkCalendar } from '@yosegi/core/days';
import { type Basis, scaled } from '@yosegi/core/definitions';
import type { Alternate, Demand, Pegging, Picture, Source, Supply, WhenThere } from '@yosegi/core/demand';
import { peg } from '@yosegi/core/demand';
import { add, handOut, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';

/**
 * Everything that is needed, with what shelves have of it or of what may stand in for it, and all that is coming.
 * @param also items whose shelves are read though nobody needs them yet
 */
export async function readPicture(db: Reader, today: string, also: readonly number[] = []): Promise<Picture> {
  const demands = await demandsOf(db);
  const touched = new Set<number>(also);
  for (const { itemId, alternates } of demands) {
    touched.add(itemId);
    for (const alternate of alternates) touched.add(alternate.itemId);
  }
  const supplies = [...(await shelves(db, touched)), ...(await comingSupplies(db, today))];
  return { demands, supplies, calendar: await readCalendar(db, today) };
}

/** What serves whom, in turn, and when builds are done. */
export const readPegging = async (db: Reader, today: string): Promise<Pegging> => peg(await readPicture(db, today));

/**
 * The same as the buy list sees it: what draft orders would bring counts as coming, and reorder points are to be kept once
 * everybody else is served.
 */
export async function readPeggingToBuy(db: Reader, today: string): Promise<Pegging> {
  const demands = [...(await demandsOf(db)), ...(await reorderPoints(db))];
  const coming = [...(await comingSupplies(db, today)), ...(await draftSupplies(db))];
  return peg({ demands, supplies: [...(await shelves(db)), ...coming], calendar: await readCalendar(db, today) });
}

/** Everything that is needed, everything that can serve it, and what orders that are not sent yet would bring. */
export async function readWhole(db: Reader, today: string): Promise<Picture & { readonly drafts: readonly Supply[] }> {
  return {
    demands: await demandsOf(db),
    supplies: [...(await shelves(db)), ...(await comingSupplies(db, today))],
    drafts: await draftSupplies(db),
    calendar: await readCalendar(db, today),
  };
}

/** The day it is, and the days on which the company works. */
export async function readCalendar(db: Reader, today: string): Promise<WorkCalendar> {
  const { work_days } = required(await db.models.company.findByPk(1, { attributes: ['work_days'] }));
  return { today, workDays: new Set(JSON.parse(work_days) as number[]) };
}

/**
 * Rows of a query as arrays of its columns. All of them come over as one text: the driver takes longer to make an object of
 * every row than SQLite takes to find them (bench/src/pegging.ts).
 */
async function rowsAsOne<T extends readonly unknown[]>(
  db: Reader,
  columns: string,
  from: string,
  bind: readonly string[] = [],
): Promise<T[]> {
  const sql = `SELECT json_group_array(json_array(${columns})) AS rows FROM ${from}`;
  return JSON.parse((await db.one<{ rows: string }>(sql, bind))?.rows ?? '[]');
}

type DemandRow = [
  kind: Source['kind'],
  sourceId: number,
  lineId: number | null,
  itemId: number,
  quantity: Quantity,
  wantedOn: string | null,
  begun: number,
  decimals: number,
  priority: number | null,
  promisedAt: string,
  transport: number,
];

async function demandsOf(db: Reader): Promise<Demand[]> {
  const rows = await rowsAsOne<DemandRow>(
    db,
    'd.kind, d.source_id, d.line_id, d.item_id, d.quantity, d.wanted_on, d.begun, u.decimals, p.rank, d.promised_at, d.transport_days',
    `demand d JOIN item i ON i.id = d.item_id JOIN unit u ON u.id = i.unit_id
     LEFT JOIN priority p ON p.kind = d.kind AND p.source_id = d.source_id`,
  );
  const alternates = await alternatesOf(db);
  return rows.map(
    ([kind, id, lineId, itemId, quantity, wantedOn, begun, decimals, priority, promisedAt, transport]) => ({
      source: { kind, id },
      lineId,
      itemId,
      quantity,
      decimals,
      turn: { begun: begun === 1, priority, wantedOn, age: Date.parse(promisedAt) },
      transport,
      stores: null,
      alternates: alternates.get(`${kind}:${lineId}`) ?? [],
    }),
  );
}

/** What may stand in for what is needed, by line, the best first. */
async function alternatesOf(db: Reader): Promise<Map<string, Alternate[]>> {
  const rows = await db.all<{ kind: string; line_id: number; item_id: number; ratio: Quantity; decimals: number }>(
    `SELECT a.kind, a.line_id, a.item_id, a.ratio, u.decimals FROM demand_alternate a
     JOIN item i ON i.id = a.item_id JOIN unit u ON u.id = i.unit_id ORDER BY a.kind, a.line_id, a.position`,
  );
  const byLine = new Map<string, Alternate[]>();
  for (const { kind, line_id, item_id, ratio, decimals } of rows) {
    const key = `${kind}:${line_id}`;
    byLine.set(key, [...(byLine.get(key) ?? []), { itemId: item_id, ratio, decimals }]);
  }
  return byLine;
}

/** Reorder points that somebody has set: wanted by nobody in particular. */
async function reorderPoints(db: Reader): Promise<Demand[]> {
  const rows = await db.all<{ id: number; quantity: Quantity; decimals: number }>(
    `SELECT i.id, i.reorder_point AS quantity, u.decimals FROM item i JOIN unit u ON u.id = i.unit_id
     WHERE i.reorder_point > 0 AND i.archived_at IS NULL`,
  );
  return rows.map(({ id, quantity, decimals }) => ({
    source: { kind: 'reorder', id },
    lineId: null,
    itemId: id,
    quantity,
    decimals,
    turn: { begun: false, priority: null, wantedOn: null, age: id },
    stores: null,
    alternates: [],
  }));
}

/**
 * What can be taken from shelves, store by store; below zero where too much was taken.
 * @param itemIds only of these; of all when left out
 */
async function shelves(db: Reader, itemIds?: Iterable<number>): Promise<Supply[]> {
  const rows = await rowsAsOne<[itemId: number, storeId: number, quantity: Quantity]>(
    db,
    'item_id, store_id, quantity',
    `(SELECT v.item_id, v.store_id, sum(v.quantity) AS quantity
      FROM ${itemIds ? 'json_each($1) e CROSS JOIN usable v ON v.item_id = e.value' : 'usable v'}
      GROUP BY v.item_id, v.store_id) WHERE quantity <> 0`,
    itemIds ? [JSON.stringify([...itemIds])] : [],
  );
  return rows.map(([itemId, storeId, quantity]) => ({
    from: { kind: 'shelf', id: storeId },
    itemId,
    quantity,
    on: '',
    storeId,
    only: null,
  }));
}

/** Something on its way, as a list shows it. */
export interface ComingRow {
  readonly kind: 'purchase' | 'build';
  readonly source_id: number;
  readonly line_id: number | null;
  readonly number: string;
  readonly brought_by: string;
  readonly item_id: number;
  readonly quantity: Quantity;
  /** The day it was due, also when that has passed. */
  readonly due: string | null;
}

const IN_ORDER = `ORDER BY ifnull(due, '9999'), number`;

/** Everything that is on its way, the first to come first. */
export const readComing = (db: Reader) => db.all<ComingRow>(`SELECT * FROM coming ${IN_ORDER}`);
/** The same of one item. */
export const readComingOf = (db: Reader, itemId: number) =>
  db.all<ComingRow>(`SELECT * FROM coming WHERE item_id = $1 ${IN_ORDER}`, [itemId]);

/** The day on which something that was bought comes. What is overdue will come, but nobody knows when. */
const comesOn = ({ due }: Pick<ComingRow, 'due'>, today: string): WhenThere => (isPast(due, today) ? null : due);

/** What is held on the benches of builds, by build and item. */
export const readStuck = (db: Reader) =>
  db.all<{ holder_id: number; item_id: number; quantity: Quantity }>(
    "SELECT holder_id, item_id, quantity FROM stuck WHERE holder_kind = 'build'",
  );

async function comingSupplies(db: Reader, today: string): Promise<Supply[]> {
  const stuck = new Set((await readStuck(db)).map(({ holder_id }) => holder_id));
  const kept = await keptOfBuilds(db);
  const bench = await benchOfBuilds(db);
  return (await readComing(db)).flatMap((row): Supply[] => {
    const common = { itemId: row.item_id, quantity: row.quantity, storeId: null, only: null };
    if (row.kind === 'purchase')
      return [{ ...common, from: { kind: 'purchase', id: row.line_id ?? row.source_id }, on: comesOn(row, today) }];
    const from = { kind: 'build' as const, id: row.source_id };
    // Nobody knows when what is held on its bench is released.
    const own = stuck.has(row.source_id) ? common : { ...common, bench: bench.get(row.source_id) ?? 1 };
    return keepFor({ ...own, from, on: null }, kept.get(row.source_id) ?? []);
  });
}

/** The working days that each open build still takes once its parts are there: for the labour of what is not finished. */
async function benchOfBuilds(db: Reader): Promise<Map<number, number>> {
  const { bench_minutes } = required(await db.models.company.findByPk(1, { attributes: ['bench_minutes'] }));
  const rows = await db.all<{
    id: number;
    open: Quantity;
    output_quantity: Quantity;
    bench_days: number | null;
    basis: Basis | null;
    amount: Quantity | null;
    /** Worked on it and not booked yet. */
    taken: Quantity;
    over: 0 | 1;
  }>(
    `SELECT b.id, b.quantity - b.finished - b.rejected AS open, b.output_quantity, d.bench_days, l.basis, l.amount,
       ifnull((SELECT sum(minutes) FROM task_time WHERE task_id = l.id), 0) - ifnull(l.used, 0) AS taken,
       ifnull((SELECT state IN ('done', 'skipped') FROM task WHERE id = l.id), 0) AS over
     FROM build b LEFT JOIN revision r ON r.id = b.revision_id LEFT JOIN definition d ON d.id = r.definition_id
     LEFT JOIN build_line l ON l.build_id = b.id AND l.kind = 'labour'
     WHERE b.state IN ('planned', 'on-bench')`,
  );
  const minutes = new Map<number, { total: number; least: number | null }>();
  for (const { id, open, output_quantity, bench_days, basis, amount, taken, over } of rows) {
    const planned = basis && amount && !over ? scaled(basis, amount, open, output_quantity) : ZERO;
    const own = Math.max(0, planned - Math.max(0, taken));
    minutes.set(id, { total: (minutes.get(id)?.total ?? 0) + own, least: bench_days });
  }
  return new Map([...minutes].map(([id, { total, least }]) => [id, benchDays(total, bench_minutes, least)]));
}

/** What open builds make for orders, by build, the first in turn first. */
async function keptOfBuilds(db: Reader): Promise<Map<number, { orderId: number; quantity: Quantity }[]>> {
  const rows = await db.all<{ build_id: number; order_id: number; quantity: Quantity }>(
    `SELECT build_id, order_id, sum(quantity) AS quantity FROM built_for GROUP BY build_id, order_id
     ORDER BY build_id, min(ifnull(wanted_on, '9999')), min(promised_at), order_id`,
  );
  const kept = new Map<number, { orderId: number; quantity: Quantity }[]>();
  for (const { build_id, order_id: orderId, quantity } of rows)
    kept.set(build_id, [...(kept.get(build_id) ?? []), { orderId, quantity }]);
  return kept;
}

/** What a build brings, parted among the orders that it is for and anybody else. */
function keepFor(supply: Supply, orders: readonly { orderId: number; quantity: Quantity }[]): Supply[] {
  const shares = handOut(
    supply.quantity,
    orders.map(({ quantity }) => quantity),
  );
  const own = orders.map(({ orderId }, index) => ({
    ...supply,
    quantity: shares[index] ?? ZERO,
    only: { kind: 'order' as const, id: orderId },
  }));
  const rest = { ...supply, quantity: minus(supply.quantity, add(ZERO, ...shares)) };
  return [...own, rest].filter(({ quantity }) => quantity > 0);
}

/** What orders that are not sent yet would bring; nobody knows when. */
async function draftSupplies(db: Reader): Promise<Supply[]> {
  const rows = await db.all<{ id: number; item_id: number; quantity: Quantity }>(
    `SELECT l.id, l.item_id, l.quantity FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
     WHERE o.state = 'draft' ORDER BY l.id`,
  );
  return rows.map(({ id, item_id, quantity }) => ({
    from: { kind: 'purchase', id },
    itemId: item_id,
    quantity,
    on: null,
    storeId: null,
    only: null,
  }));
}
