import type { CoverItem, CoverQuestion, CoverSource, Fillings, Priority, Snapshot } from '@yosegi/contract';
import type { Demand, Supply } from '@yosegi/core/demand';
import { groupBy } from '@yosegi/core/lists';
import { type Money, type Quantity, sumForText, worthForText } from '@yosegi/core/number';
import { daysIfBought } from '../buying/index.ts';
import { decimal } from '../command/amounts.ts';
import { required } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { type AlternateRow, LINE_SQL, type LineRow } from '../definitions/index.ts';
import { readWhole } from '../demand/index.ts';
import { averageCostOf, type Costs, type ItemRow, itemRows, toItem, withBuiltCosts } from '../items/index.ts';
import { sourcesOf } from './pegs.sql.ts';

/** The rows of a snapshot, without the moment they are of. */
export type Rows = Omit<Snapshot, 'version' | 'since' | 'gone'>;

/** Everything coverage is computed from, at this moment, in a handful of queries. */
export async function readRows(db: Reader, today: string): Promise<Rows> {
  const whole = await readWhole(db, today);
  const planned = new Set(
    (await db.all<{ id: number }>("SELECT id FROM build WHERE state = 'planned'")).map(({ id }) => id),
  );
  const bringers = await suppliersOfLines(db);
  const { bench_minutes } = required(await db.models.company.findByPk(1, { attributes: ['bench_minutes'] }));
  return {
    today,
    workDays: [...whole.calendar.workDays],
    benchMinutes: bench_minutes,
    items: await itemsOf(db, whole.supplies),
    definitions: await definitionsOf(db),
    demands: whole.demands.map(toDemand),
    supplies: [
      ...whole.supplies.flatMap((supply) =>
        supply.from.kind === 'shelf' ? [] : toSupply(supply, false, planned, bringers),
      ),
      ...whole.drafts.map((supply) => toSupply(supply, true, planned, bringers)),
    ],
  };
}

/** Who brings what is still open of each order's line. */
async function suppliersOfLines(db: Reader): Promise<ReadonlyMap<number, number>> {
  const rows = await db.all<{ id: number; supplier_id: number }>(
    `SELECT l.id, o.supplier_id FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
     WHERE l.open > 0 OR o.state = 'draft'`,
  );
  return new Map(rows.map((row) => [row.id, row.supplier_id]));
}

/** A snapshot of this very moment, for reckoning on the server. */
export const readSnapshot = async (db: Reader, today: string): Promise<Snapshot> => ({
  ...(await readRows(db, today)),
  version: '',
  since: null,
  gone: [],
});

type CostRow = Costs & Pick<ItemRow, 'id' | 'decimals'>;

async function itemsOf(db: Reader, supplies: readonly Supply[]): Promise<Snapshot['items']> {
  const rows = await db.all<CostRow>(
    `SELECT i.id, u.decimals, i.latest_cost, i.standard_cost, ifnull(s.quantity, 0) AS quantity,
       ifnull(s.value, 0) AS value, ifnull(s.last_cost, 0) AS last_cost
     FROM item i JOIN unit u ON u.id = i.unit_id LEFT JOIN item_stock s ON s.item_id = i.id ORDER BY i.id`,
  );
  const shelves = groupBy(
    supplies.filter(({ from }) => from.kind === 'shelf'),
    ({ itemId }) => itemId,
  );
  return (await withBuiltCosts(db, rows)).map((row): Snapshot['items'][number] => [
    row.id,
    row.decimals,
    decimal(averageCostOf(row)),
    (shelves.get(row.id) ?? []).map(({ from, quantity }) => [from.id, decimal(quantity)]),
  ]);
}

/** What items are built of now, and by which draft where nothing is in use. */
async function definitionsOf(db: Reader): Promise<Snapshot['definitions']> {
  const revisions = await db.all<{
    id: number;
    item_id: number;
    draft: number;
    output_quantity: number;
    bench_days: number | null;
  }>(
    `SELECT r.id, d.item_id, r.state = 'draft' AS draft, r.output_quantity, d.bench_days
     FROM revision r JOIN definition d ON d.id = r.definition_id
     WHERE d.purpose = 'build' AND (r.state = 'in-use' OR (r.state = 'draft'
       AND NOT EXISTS (SELECT 1 FROM revision u WHERE u.definition_id = d.id AND u.state = 'in-use')))
     ORDER BY d.item_id, r.number`,
  );
  const ids = JSON.stringify(revisions.map(({ id }) => id));
  const lines = await db.all<LineRow>(
    `${LINE_SQL} WHERE l.revision_id IN (SELECT value FROM json_each($1)) ORDER BY l.revision_id, l.position`,
    [ids],
  );
  const alternates = await db.all<AlternateRow>(
    `SELECT a.line_id, a.item_id, a.ratio FROM revision_line_alternate a JOIN item i ON i.id = a.item_id
     WHERE i.archived_at IS NULL AND a.line_id IN (SELECT l.id FROM revision_line l
       WHERE l.revision_id IN (SELECT value FROM json_each($1))) ORDER BY a.line_id, a.position`,
    [ids],
  );
  const linesOf = groupBy(lines, ({ revision_id }) => revision_id);
  const alternatesOf = groupBy(alternates, ({ line_id }) => line_id);
  // The newest of several drafts.
  const byItem = new Map(revisions.map((revision) => [revision.item_id, revision]));
  return [...byItem.values()].map((revision) => {
    const own = linesOf.get(revision.id) ?? [];
    const perRun = ({ basis }: LineRow) => (basis === 'per-run' ? 1 : 0);
    return {
      itemId: revision.item_id,
      draft: revision.draft === 1,
      output: decimal(revision.output_quantity),
      benchDays: revision.bench_days,
      parts: own.flatMap((line): Snapshot['definitions'][number]['parts'] => {
        if (line.kind !== 'part' || line.item_id === null) return [];
        const others = alternatesOf.get(line.id) ?? [];
        return [
          [
            line.item_id,
            decimal(line.amount),
            perRun(line),
            decimal(line.waste),
            others.map(({ item_id, ratio }) => [item_id, decimal(ratio)]),
          ],
        ];
      }),
      labour: own.flatMap((line): Snapshot['definitions'][number]['labour'] =>
        line.kind === 'labour' ? [[decimal(line.amount), perRun(line), decimal(line.rate_per_hour ?? 0)]] : [],
      ),
      charges: own.flatMap((line): Snapshot['definitions'][number]['charges'] =>
        line.kind === 'charge' ? [[decimal(line.amount), perRun(line)]] : [],
      ),
    };
  });
}

const toDemand = ({
  source,
  lineId,
  itemId,
  quantity,
  turn,
  transport = 0,
  alternates,
}: Demand): Snapshot['demands'][number] => ({
  kind: source.kind,
  id: source.id,
  lineId: lineId ?? 0,
  itemId,
  quantity: decimal(quantity),
  wantedOn: turn.wantedOn,
  begun: turn.begun,
  priority: turn.priority,
  age: turn.age,
  transport,
  alternates: alternates.map((one) => [one.itemId, decimal(one.ratio)]),
});

const toSupply = (
  { from, itemId, quantity, on, bench, only }: Supply,
  draft: boolean,
  planned: ReadonlySet<number>,
  bringers: ReadonlyMap<number, number>,
): Snapshot['supplies'][number] => ({
  kind: from.kind === 'build' ? 'build' : 'purchase',
  id: from.id,
  itemId,
  quantity: decimal(quantity),
  on,
  bench: bench ?? null,
  only: only?.id ?? null,
  draft,
  planned: from.kind === 'build' && planned.has(from.id),
  supplier: from.kind === 'purchase' ? (bringers.get(from.id) ?? null) : null,
});

/** Items by id as Cover names them. */
export async function coverItems(db: Reader, ids: readonly number[], today: string): Promise<CoverItem[]> {
  const around = await db.all<{
    id: number;
    store: string | null;
    supplier_id: number | null;
    supplier: string | null;
  }>(
    `SELECT a.*, p.name AS supplier FROM (
       SELECT i.id, s.name AS store, ifnull(
         (SELECT o.supplier_id FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
          WHERE l.item_id = i.id AND o.state <> 'draft' ORDER BY o.id DESC LIMIT 1),
         (SELECT supplier_id FROM item_supplier WHERE item_id = i.id ORDER BY price, supplier_id LIMIT 1)) AS supplier_id
       FROM item i LEFT JOIN bin b ON b.id = i.home_bin_id LEFT JOIN store s ON s.id = b.store_id
       WHERE i.id IN (SELECT value FROM json_each($1))) a LEFT JOIN supplier p ON p.id = a.supplier_id`,
    [JSON.stringify(ids)],
  );
  const byId = new Map(around.map((row) => [row.id, row]));
  const days = await daysIfBought(
    db,
    around.flatMap(({ id, supplier_id }) => (supplier_id === null ? [] : [[id, supplier_id] as const])),
    today,
  );
  return [...(await itemRows(db, ids)).values()].map((row) => {
    const { id, code, name, unit, decimals, measures, homeBin, definitionId, archived } = toItem(row);
    const { store = null, supplier = null } = byId.get(id) ?? {};
    const buyOn = days.get(id) ?? null;
    return { id, code, name, unit, decimals, measures, homeBin, store, supplier, buyOn, definitionId, archived };
  });
}

/** What could be asked for at once: what open orders still want, what is planned, and what is below its reorder point. */
export async function fillings(db: Reader): Promise<Fillings> {
  const defined = `i.archived_at IS NULL AND EXISTS (SELECT 1 FROM definition d JOIN revision r ON r.definition_id = d.id
    WHERE d.item_id = i.id AND d.purpose = 'build' AND r.state = 'in-use')`;
  const [orders, builds, reorder] = await Promise.all(
    [
      `SELECT l.item_id, sum(l.quantity - l.dropped - l.shipped) AS quantity, count(DISTINCT o.id) AS sources
       FROM order_line l JOIN sales_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
       WHERE o.state = 'confirmed' AND l.quantity > l.dropped + l.shipped AND ${defined} GROUP BY l.item_id`,
      `SELECT b.item_id, sum(b.quantity) AS quantity, count(*) AS sources FROM build b JOIN item i ON i.id = b.item_id
       WHERE b.state = 'planned' AND ${defined} GROUP BY b.item_id`,
      `SELECT i.id AS item_id, i.reorder_point - f.there AS quantity, 1 AS sources FROM item i JOIN (
         SELECT id, ifnull((SELECT sum(quantity) FROM usable WHERE item_id = item.id), 0)
           - ifnull((SELECT sum(quantity) FROM demand_of_builds WHERE item_id = item.id), 0)
           - ifnull((SELECT sum(quantity) FROM demand_of_orders WHERE item_id = item.id), 0)
           + ifnull((SELECT sum(quantity) FROM coming_bought WHERE item_id = item.id), 0)
           + ifnull((SELECT sum(quantity) FROM coming_built WHERE item_id = item.id), 0) AS there FROM item) f ON f.id = i.id
       WHERE i.reorder_point > f.there AND ${defined}`,
    ].map((sql) => db.all<{ item_id: number; quantity: number; sources: number }>(`${sql} ORDER BY 1 LIMIT 100`)),
  );
  const filling = (rows: typeof orders = []) => ({
    wanted: rows.map(({ item_id, quantity }) => ({ itemId: item_id, quantity: decimal(quantity) })),
    sources: rows.reduce((sum, row) => sum + row.sources, 0),
  });
  return { orders: filling(orders), builds: filling(builds), reorder: filling(reorder) };
}

/** Orders, builds and lines of purchase orders by id, as Cover names them. */
export async function coverSources(
  db: Reader,
  { orders, builds, lines: purchases }: Readonly<Record<'orders' | 'builds' | 'lines', readonly number[]>>,
): Promise<CoverSource[]> {
  const named = await sourcesOf(db, [
    ...orders.map((id) => ({ kind: 'order', id })),
    ...builds.map((id) => ({ kind: 'build', id })),
    ...purchases.map((id) => ({ kind: 'purchase', id })),
  ]);
  const lines = await db.all<{ order_id: number; open: Quantity; price: Money }>(
    `SELECT order_id, quantity - dropped - shipped AS open, price FROM order_line
     WHERE order_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(orders)],
  );
  const linesOf = groupBy(lines, ({ order_id }) => order_id);
  const worthOf = (id: number) =>
    decimal(sumForText((linesOf.get(id) ?? []).map(({ open, price }) => worthForText(open, price))));
  return [...named.values()].map((row) => ({ ...row, worth: row.kind === 'order' ? worthOf(row.id) : null }));
}

const STILL_OPEN = 'EXISTS (SELECT 1 FROM order_line l WHERE l.order_id = o.id AND l.quantity - l.dropped > l.shipped)';

/** Whether anything of a confirmed order is still to be shipped. */
export const isOrderOpen = async (db: Reader, id: number): Promise<boolean> =>
  (await db.one(`SELECT o.id FROM sales_order o WHERE o.id = $1 AND o.state = 'confirmed' AND ${STILL_OPEN}`, [id])) !==
  undefined;

/** Open orders and builds that do not just go in turn. */
export const priorities = (db: Reader) =>
  db.all<Priority>(
    `SELECT p.kind, p.source_id AS id, ifnull(o.number, b.number) AS number, ifnull(c.name, i.name) AS who, p.rank, p.reason,
       w.name AS by, p.set_at AS at
     FROM priority p JOIN person w ON w.id = p.set_by
     LEFT JOIN sales_order o ON p.kind = 'order' AND o.id = p.source_id AND o.state = 'confirmed' AND ${STILL_OPEN}
     LEFT JOIN customer c ON c.id = o.customer_id
     LEFT JOIN build b ON p.kind = 'build' AND b.id = p.source_id AND b.state IN ('planned', 'on-bench')
     LEFT JOIN item i ON i.id = b.item_id
     WHERE o.id IS NOT NULL OR b.id IS NOT NULL ORDER BY p.kind DESC, p.source_id`,
  );

/** Questions that are kept, by name. */
export const coverQuestions = (db: Reader) =>
  db.all<CoverQuestion>(
    'SELECT q.id, q.name, q.address, p.name AS by FROM cover_question q JOIN person p ON p.id = q.made_by ORDER BY q.name',
  );
