import type { Quantity } from '@yosegi/core/number';
import type { Goal, OnShelf, PickedAt, Wanted } from '@yosegi/core/picking';
import { listWishes } from '../counts/index.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { type BalanceRow, usableOf } from '../ledger/index.ts';

/** A line that goods are still to be picked for, in turn. */
interface WantedRow {
  kind: Goal['kind'];
  source_id: number;
  line_id: number;
  item_id: number;
  open: Quantity;
  from_bin_id: number | null;
}

/**
 * What is still to be picked, in turn: parts that builds on the bench have picked first, and what confirmed orders take
 * from shelves beyond what is built for them.
 * @param goals only for these; for all when left out
 */
export async function wantedFor(db: Reader, goals?: readonly Goal[]): Promise<Wanted[]> {
  const rows = await db.all<WantedRow>(
    `SELECT d.* FROM (
      SELECT d.kind, d.source_id, d.line_id, d.item_id, l.from_bin_id, d.wanted_on, d.begun, d.promised_at, d.quantity AS open
      FROM demand_of_builds d JOIN build_line l ON l.id = d.line_id WHERE l.taken = 'picked-first' AND d.begun = 1
      UNION ALL
      SELECT d.kind, d.source_id, d.line_id, d.item_id, NULL, d.wanted_on, d.begun, d.promised_at,
        d.quantity - ifnull((SELECT sum(quantity) FROM built_for WHERE part_id = d.line_id), 0)
      FROM demand_of_orders d) d
     LEFT JOIN priority p ON p.kind = d.kind AND p.source_id = d.source_id
     WHERE open > 0 AND ($1 IS NULL OR EXISTS (SELECT 1 FROM json_each($1) g
       WHERE g.value ->> 0 = d.kind AND g.value ->> 1 = d.source_id))
     ORDER BY d.begun DESC, ifnull(p.rank, 0), ifnull(d.wanted_on, '9999'), d.promised_at, d.source_id, d.line_id`,
    [goals ? JSON.stringify(goals.map(({ kind, id }) => [kind, id])) : null],
  );
  return rows.map(({ kind, source_id, line_id, item_id, open, from_bin_id }) => ({
    goal: { kind, id: source_id },
    lineId: line_id,
    itemId: item_id,
    open,
    fromBinId: from_bin_id,
  }));
}

/** After every lot that has a day. */
const NO_DAY = '9999-12-31';

/**
 * What can be taken from shelves of these items, in the order to walk; not from bins where somebody found less than the
 * books say.
 * @param storeId only of this store; of all when null
 */
export async function shelvesFor(
  db: Reader,
  itemIds: readonly number[],
  storeId: number | null,
): Promise<{ readonly shelves: OnShelf[]; readonly rows: readonly BalanceRow[] }> {
  const prescribed = new Set(
    (
      await db.all<{ id: number }>(
        `SELECT id FROM item WHERE tracking = 'lot' AND lot_order = 'prescribed' AND id IN (SELECT value FROM json_each($1))`,
        [JSON.stringify(itemIds)],
      )
    ).map(({ id }) => id),
  );
  const passed = new Set((await listWishes(db)).map(({ itemId, binId, lotId }) => placeKey(itemId, binId, lotId)));
  // Where no lot was named, none of them was found.
  const isPassed = ({ item_id, bin_id, lot_id }: BalanceRow) =>
    passed.has(placeKey(item_id, bin_id, lot_id)) || passed.has(placeKey(item_id, bin_id, null));
  const rows = (await usableOf(db, itemIds)).filter(
    (row) => row.quantity > 0 && (storeId === null || row.store_id === storeId) && !isPassed(row),
  );
  return {
    rows,
    shelves: rows.map((row) => ({
      itemId: row.item_id,
      storeId: row.store_id,
      binId: row.bin_id,
      lotId: row.lot_id,
      serialId: row.serial_id,
      quantity: row.quantity,
      ...(prescribed.has(row.item_id) ? { day: row.best_before ?? NO_DAY } : {}),
    })),
  };
}

const placeKey = (itemId: number, binId: number, lotId: number | null) => `${itemId}:${binId}:${lotId ?? ''}`;

export type RunRecord = Row<'pick_run'> & { store: string | null; person: string };

const RUN_SQL = `SELECT r.*, s.name AS store, p.name AS person FROM pick_run r JOIN person p ON p.id = r.made_by
  LEFT JOIN store s ON s.id = r.store_id`;

export const runRecord = (db: Reader, id: number) => db.one<RunRecord>(`${RUN_SQL} WHERE r.id = $1`, [id]);
export const openRuns = (db: Reader) => db.all<RunRecord>(`${RUN_SQL} WHERE r.ended_at IS NULL ORDER BY r.id`);
/** One more than a page of runs that have ended, the newest first. */
export const endedRuns = (db: Reader, before: number, limit: number) =>
  db.all<RunRecord>(`${RUN_SQL} WHERE r.ended_at IS NOT NULL AND r.id < $1 ORDER BY r.id DESC LIMIT $2`, [
    before,
    limit + 1,
  ]);

/** Whom runs serve, in the order of their places on the cart. */
export const goalsOf = (db: Reader, runIds: readonly number[]) =>
  db.all<Row<'pick_run_goal'>>(
    'SELECT * FROM pick_run_goal WHERE run_id IN (SELECT value FROM json_each($1)) ORDER BY run_id, position',
    [JSON.stringify(runIds)],
  );

/** Open runs that serve one of these in a store that both walk, with the goal they share. */
export const runsServing = (db: Reader, goals: readonly Goal[], storeId: number | null, except: number) =>
  db.all<{ kind: Goal['kind']; source_id: number; run: string; number: string }>(
    `SELECT g.kind, g.source_id, r.number AS run, (SELECT number FROM numbered WHERE kind = g.kind AND id = g.source_id) AS number
     FROM pick_run_goal g JOIN pick_run r ON r.id = g.run_id AND r.ended_at IS NULL
     JOIN json_each($1) v ON v.value ->> 0 = g.kind AND v.value ->> 1 = g.source_id
     WHERE r.id <> $3 AND (r.store_id IS NULL OR $2 IS NULL OR r.store_id = $2)`,
    [JSON.stringify(goals.map(({ kind, id }) => [kind, id])), storeId, except],
  );

export const claimsOf = (db: Reader, runId: number) =>
  db.all<Row<'pick_run_claim'> & { person: string }>(
    `SELECT c.*, p.name AS person FROM pick_run_claim c JOIN person p ON p.id = c.person_id WHERE c.run_id = $1
     ORDER BY c.at`,
    [runId],
  );

/** Whoever leaves a stop leaves it to others; all do when the run ends. */
export const releaseClaims = (tx: Writer, runId: number, personId: number | null) =>
  tx.run('DELETE FROM pick_run_claim WHERE run_id = $1 AND ($2 IS NULL OR person_id = $2)', [runId, personId]);
export const clearGoals = (tx: Writer, runId: number) => tx.run('DELETE FROM pick_run_goal WHERE run_id = $1', [runId]);

/** What was picked on runs and stands, as far as it tells what was walked. */
export async function walkedOf(db: Reader, runIds: readonly number[]): Promise<ReadonlyMap<number, PickedAt[]>> {
  const rows = await db.all<Row<'pick_run_pick'> & { at: string }>(
    `SELECT k.*, d.at FROM pick_run_pick k JOIN document d ON d.id = k.document_id
     WHERE k.run_id IN (SELECT value FROM json_each($1))
       AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = k.document_id) ORDER BY k.document_id`,
    [JSON.stringify(runIds)],
  );
  const byRun = new Map<number, PickedAt[]>();
  for (const { run_id, act, at, stops, lines, begun_at } of rows)
    byRun.set(run_id, [...(byRun.get(run_id) ?? []), { act, at, stops, lines, begunAt: begun_at }]);
  return byRun;
}

/** The most of what was picked that a run shows. */
const MOST_PICKS = 200;

/** What was picked on a run, the newest first, in words. */
export const picksOf = (db: Reader, runId: number) =>
  db.all<{ act: number; number: string; at: string; person_id: number; person: string; says: string; undone: 0 | 1 }>(
    `SELECT k.act, d.number, d.at, d.person_id, p.name AS person,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = k.act) AS undone,
       (SELECT group_concat(DISTINCT i.name) FROM pick_run_pick o JOIN movement m ON m.document_id = o.document_id
        JOIN item i ON i.id = m.item_id WHERE o.act = k.act) || ' for ' ||
       (SELECT group_concat(n.number, ', ') FROM pick_run_pick o JOIN document e ON e.id = o.document_id
        JOIN numbered n ON n.kind = e.for_kind AND n.id = e.for_id WHERE o.act = k.act) AS says
     FROM pick_run_pick k JOIN document d ON d.id = k.act JOIN person p ON p.id = d.person_id
     WHERE k.run_id = $1 AND k.document_id = k.act ORDER BY k.act DESC LIMIT ${MOST_PICKS}`,
    [runId],
  );

/** The items of lines of builds and orders, by {@link lineKey}. */
export async function itemsOfLines(
  db: Reader,
  lines: readonly { readonly kind: Goal['kind']; readonly lineId: number }[],
): Promise<ReadonlyMap<string, number>> {
  const rows = await db.all<{ kind: Goal['kind']; id: number; item_id: number }>(
    `SELECT v.value ->> 0 AS kind, v.value ->> 1 AS id, iif(v.value ->> 0 = 'build',
       (SELECT item_id FROM build_line WHERE id = v.value ->> 1), (SELECT item_id FROM order_part WHERE id = v.value ->> 1)) AS item_id
     FROM json_each($1) v`,
    [JSON.stringify(lines.map(({ kind, lineId }) => [kind, lineId]))],
  );
  return new Map(rows.map(({ kind, id, item_id }) => [lineKey({ kind, lineId: id }), item_id]));
}

export const lineKey = ({ kind, lineId }: { readonly kind: Goal['kind']; readonly lineId: number }) =>
  `${kind}:${lineId}`;

/** How the books have it that nobody can find: what stands on the shelf of one lot, or of all where none is named. */
export const bookedIn = async (db: Reader, itemId: number, binId: number, lotId: number | null): Promise<Quantity> =>
  (
    await db.one<{ quantity: Quantity }>(
      `SELECT ifnull(sum(quantity), 0) AS quantity FROM balance
       WHERE item_id = $1 AND bin_id = $2 AND ($3 IS NULL OR lot_id = $3) AND holder_id IS NULL`,
      [itemId, binId, lotId],
    )
  )?.quantity ?? (0 as Quantity);

/** What stands for builds and orders, line by line. */
export const broughtTo = (db: Reader, goals: readonly Goal[]) =>
  db.all<{ kind: Goal['kind']; source_id: number; line_id: number; item_id: number; quantity: Quantity }>(
    `SELECT 'build' AS kind, l.build_id AS source_id, l.id AS line_id, l.item_id, l.on_bench AS quantity
     FROM build_line l JOIN json_each($1) g ON g.value ->> 0 = 'build' AND g.value ->> 1 = l.build_id WHERE l.on_bench > 0
     UNION ALL SELECT 'order', l.order_id, p.id, p.item_id, p.packed FROM order_part p JOIN order_line l ON l.id = p.line_id
     JOIN json_each($1) g ON g.value ->> 0 = 'order' AND g.value ->> 1 = l.order_id WHERE p.packed > 0`,
    [JSON.stringify(goals.map(({ kind, id }) => [kind, id]))],
  );
