import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dayOf } from '@yosegi/core/days';
import { SCALE } from '@yosegi/core/number';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { Database, type Writer } from '../src/db/database.ts';
import { ensureCompany, migrate } from '../src/db/migrate.ts';
import { readPegging, readPeggingToBuy } from '../src/demand/sql.ts';

// What the server reads of demand and supply, against the slowest reckoning over the bare rows.

const TODAY = '2026-11-25';
const [ITEMS, BINS, QUARANTINE] = [5, 4, 5];

const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
let database: Database;
beforeAll(async () => {
  database = await Database.open(join(folder, 'demand.sqlite'), { durable: false });
  await migrate(database);
  const people = [{ name: 'Owner', initials: 'OW', role: 'owner' as const }];
  await ensureCompany(database, { name: 'Test', currency: 'EUR', locale: 'en', people });
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true });
});

const itemId = fc.integer({ min: 1, max: ITEMS });
const due = fc.constantFrom(null, '2026-11-20', '2026-11-25', '2026-12-01', '2026-12-09');
/** A moment of its own for each that promises something, in any order. */
const promisedAt = fc.integer({ min: 0, max: 9 });
const taskStates = ['open', 'doing', 'done', 'skipped'] as const;
const drawn = fc.record({
  reorder: fc.array(fc.constantFrom(null, 2, 6), { minLength: ITEMS, maxLength: ITEMS }),
  heldLots: fc.array(fc.boolean(), { minLength: ITEMS, maxLength: ITEMS }),
  balances: fc.uniqueArray(
    fc.record({
      itemId,
      binId: fc.integer({ min: 1, max: QUARANTINE }),
      lot: fc.boolean(),
      holder: fc.boolean(),
      quantity: fc.integer({ min: -3, max: 9 }).filter((n) => n !== 0),
    }),
    { maxLength: 14, selector: ({ itemId, binId, lot, holder }) => [itemId, binId, lot, holder].join() },
  ),
  builds: fc.array(
    fc
      .record({
        itemId,
        state: fc.constantFrom('planned', 'on-bench', 'finished', 'cancelled'),
        due,
        left: fc.integer({ min: 1, max: 6 }),
        finished: fc.integer({ min: 0, max: 2 }),
        rejected: fc.integer({ min: 0, max: 1 }),
        promisedAt,
        task: fc.constantFrom(...taskStates),
        worked: fc.constantFrom(0, 0, 480, 700),
        booked: fc.constantFrom(0, 480),
        lines: fc.array(
          fc.record({
            itemId,
            open: fc.integer({ min: 0, max: 6 }),
            alternates: fc.uniqueArray(fc.record({ itemId, ratio: fc.integer({ min: 1, max: 2 }) }), {
              maxLength: 2,
              selector: (one) => one.itemId,
            }),
          }),
          { maxLength: 3 },
        ),
        minutes: fc.constantFrom(0, 160, 480),
        least: fc.constantFrom(null, 2),
        rank: fc.constantFrom(null, null, -1, 1),
      })
      // Only of items before its own, so that no ring of builds arises.
      .map((build) => ({ ...build, lines: build.lines.filter((line) => line.itemId < build.itemId) })),
    { maxLength: 4 },
  ),
  orders: fc.array(
    fc.record({
      state: fc.constantFrom('draft', 'sent', 'confirmed', 'cancelled'),
      lines: fc.array(
        fc.record({
          itemId,
          quantity: fc.integer({ min: 1, max: 8 }),
          received: fc.integer({ min: 0, max: 8 }),
          confirmed: fc.constantFrom(null, 0, 3, 9),
          closed: fc.boolean(),
          expectedOn: due,
        }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    { maxLength: 3 },
  ),
  sales: fc.array(
    fc.record({
      state: fc.constantFrom('confirmed', 'confirmed', 'quote', 'cancelled'),
      wantedOn: due,
      turnOn: fc.constantFrom(null, null, '2026-11-20', '2026-12-05', '9999-12-31'),
      begun: fc.constantFrom(false, false, true),
      rank: fc.constantFrom(null, null, -1, 1),
      transport: fc.constantFrom(null, 0, 3),
      promisedAt,
      lines: fc.array(
        fc.record({
          itemId,
          open: fc.integer({ min: 0, max: 5 }),
          wantedOn: due,
          // By which build so many of it are made, and how many of those are in its parcel already.
          built: fc.constantFrom(null, null, 0, 1, 2),
          quantity: fc.integer({ min: 1, max: 5 }),
          kept: fc.integer({ min: 0, max: 2 }),
        }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    { maxLength: 3 },
  ),
});
const world = drawn.map(({ sales, ...given }) => ({
  ...given,
  // A build makes for an order what it makes.
  sales: sales.map((order) => ({
    ...order,
    lines: order.lines.map((line) => {
      const build = line.built === null ? undefined : given.builds[line.built];
      return build && !over(build.state) ? { ...line, itemId: build.itemId } : { ...line, built: null };
    }),
  })),
}));
type World = typeof world extends fc.Arbitrary<infer T> ? T : never;

const amount = (units: number) => units * SCALE;
function over(state: string): boolean {
  return state === 'finished' || state === 'cancelled';
}
/** Builds and orders promise in different minutes, so that no number decides. */
const momentOf = (at: number, index: number) => `2026-10-01T10:${String(at)}${String(index)}:00.000Z`;
const momentOfBuild = ({ promisedAt: at }: { promisedAt: number }, index: number) => momentOf(at % 6, index);
const momentOfOrder = ({ promisedAt: at }: { promisedAt: number }, index: number) => momentOf(at % 6, index + 5);
const openOf = (state: string, line: World['orders'][number]['lines'][number]) =>
  (state === 'sent' || state === 'confirmed') && !line.closed ? Math.max(0, line.quantity - line.received) : 0;

async function write(tx: Writer, given: World): Promise<void> {
  for (const table of [
    'build_for',
    'order_part',
    'order_line',
    'sales_order',
    'customer',
    'task_time',
    'task',
    'purchase_order_line',
    'purchase_order',
    'supplier',
    'build_line',
    'build',
    'balance',
    'lot',
    'item_supplier',
    'priority',
  ])
    await tx.run(`DELETE FROM ${table}`);
  await tx.run("UPDATE revision SET state = 'draft'");
  for (const table of ['revision_line', 'revision', 'definition', 'item', 'bin', 'store'])
    await tx.run(`DELETE FROM ${table}`);
  await tx.driver.insertMany('store', [
    { id: 1, code: 'N', name: 'North' },
    { id: 2, code: 'S', name: 'South' },
  ]);
  for (let id = 1; id <= QUARANTINE; id += 1)
    await tx.driver.insert('bin', {
      id,
      store_id: 1 + (id % 2),
      code: `A${id}`,
      kind: id > BINS ? 'quarantine' : 'shelf',
    });
  for (let id = 1; id <= ITEMS; id += 1) {
    const reorder = given.reorder[id - 1] ?? null;
    const row = { id, code: `I${id}`, name: `Item ${id}`, unit_id: 1, source: 'both', home_bin_id: 1 };
    await tx.driver.insert('item', { ...row, reorder_point: reorder === null ? null : amount(reorder) });
    await tx.driver.insert('lot', { id, item_id: id, code: 'L', held: given.heldLots[id - 1] ? 'doubtful' : null });
  }
  await tx.driver.insertMany(
    'balance',
    given.balances.map((one) => ({
      item_id: one.itemId,
      bin_id: one.binId,
      lot_id: one.lot ? one.itemId : null,
      holder_kind: one.holder ? 'build' : null,
      holder_id: one.holder ? 1 : null,
      quantity: amount(one.quantity),
    })),
  );
  for (const [index, build] of given.builds.entries()) {
    const id = index + 1;
    await tx.driver.insert('definition', { id, item_id: id, purpose: 'build', bench_days: build.least });
    await tx.driver.insert('revision', { id, definition_id: id, number: 1, state: 'draft', output_quantity: SCALE });
    await tx.driver.insert('build', {
      id,
      number: `B-${id}`,
      item_id: build.itemId,
      revision_id: id,
      output_quantity: SCALE,
      quantity: amount(build.left + build.finished + build.rejected),
      finished: amount(build.finished),
      rejected: amount(build.rejected),
      state: build.state,
      due: build.due,
      output_bin_id: 1,
      planned_at: momentOfBuild(build, index),
      planned_by: 1,
    });
    const said = { reason: 'so', set_at: '', set_by: 1 };
    if (build.rank !== null)
      await tx.driver.insertMany('priority', [{ kind: 'build', source_id: id, rank: build.rank, ...said }]);
    const labour = { position: 9, kind: 'labour', basis: 'per-output', amount: amount(build.minutes) };
    const task = id * 10 + 9;
    const booked = amount(build.booked);
    await tx.driver.insert('build_line', { id: task, build_id: id, ...labour, rate_per_hour: 0, used: booked });
    await tx.driver.insert('task', { id: task, state: build.task });
    const worked = { task_id: task, person_id: 1, day: TODAY, minutes: amount(build.worked), clocked: 0, made_at: '' };
    if (build.worked > 0) await tx.driver.insert('task_time', worked);
    for (const [position, line] of build.lines.entries()) {
      const part = {
        position,
        kind: 'part',
        item_id: line.itemId,
        basis: 'per-output',
        amount: SCALE,
        taken: 'picked-first',
      };
      const lineId = await tx.driver.insert('revision_line', { revision_id: id, ...part });
      const open = over(build.state) ? 0 : amount(line.open);
      await tx.driver.insert('build_line', { id: id * 10 + position, build_id: id, ...part, open });
      for (const [at, alternate] of line.alternates.entries())
        await tx.driver.insert('revision_line_alternate', {
          line_id: lineId,
          position: at,
          item_id: alternate.itemId,
          ratio: amount(alternate.ratio),
        });
    }
  }
  await tx.driver.insert('supplier', { id: 1, code: 'ONE', name: 'One' });
  for (const [index, order] of given.orders.entries()) {
    const id = index + 1;
    const sent = order.state === 'sent' || order.state === 'confirmed' ? '2026-11-01' : null;
    const row = { id, number: `PO-${id}`, supplier_id: 1, state: order.state, made_at: '', made_by: 1, sent_at: sent };
    await tx.driver.insert('purchase_order', row);
    for (const [position, line] of order.lines.entries())
      await tx.driver.insert('purchase_order_line', {
        id: id * 10 + position,
        order_id: id,
        position,
        item_id: line.itemId,
        quantity: amount(line.quantity),
        price: 0,
        received: amount(line.received),
        closed: line.closed ? 1 : 0,
        confirmed_quantity: line.confirmed === null ? null : amount(line.confirmed),
        expected_on: line.expectedOn,
        open: amount(openOf(order.state, line)),
      });
  }
}

/** Orders of customers with their lines, each of a thing that is stocked itself, and what is built for them. */
async function writeSales(tx: Writer, { sales }: World): Promise<void> {
  for (const [index, order] of sales.entries()) {
    const id = index + 1;
    const isOpen = order.state === 'confirmed';
    await tx.driver.insert('customer', { id, code: `C${id}`, name: `C${id}`, transport_days: order.transport });
    await tx.driver.insert('sales_order', {
      id,
      number: `O-${id}`,
      customer_id: id,
      state: order.state,
      wanted_on: order.wantedOn,
      turn_on: order.turnOn,
      packing: order.begun ? 1 : 0,
      open: isOpen ? 1 : 0,
      delivery: 'whole',
      made_at: momentOfOrder(order, index),
      made_by: 1,
      confirmed_at: isOpen ? momentOfOrder(order, index) : null,
    });
    const said = { reason: 'so', set_at: '', set_by: 1 };
    if (order.rank !== null)
      await tx.driver.insertMany('priority', [{ kind: 'order', source_id: id, rank: order.rank, ...said }]);
    for (const [position, line] of order.lines.entries()) {
      const own = { id: id * 10 + position, position, item_id: line.itemId };
      await tx.driver.insert('order_line', {
        ...own,
        order_id: id,
        output_quantity: SCALE,
        quantity: amount(9),
        price: 0,
        price_from: 'own',
        wanted_on: line.wantedOn,
      });
      await tx.driver.insert('order_part', {
        ...own,
        line_id: own.id,
        basis: 'per-output',
        amount: SCALE,
        base_item_id: line.itemId,
        base_amount: SCALE,
        open: isOpen ? amount(line.open) : 0,
      });
      const quantity = amount(line.quantity);
      const kept = Math.min(quantity, amount(line.kept));
      if (line.built !== null && isOpen)
        await tx.driver.insertMany('build_for', [{ build_id: line.built + 1, part_id: own.id, quantity, kept }]);
    }
  }
}

/** A bench does 480 minutes on each day from Monday to Friday. */
function doneOn(from: string, build: World['builds'][number]): string {
  const { minutes, least, task, worked, booked } = build;
  const planned = task === 'done' || task === 'skipped' ? 0 : minutes * build.left;
  // What was worked and is booked was for what is finished.
  const open = Math.max(0, planned - Math.max(0, worked - booked));
  let left = Math.max(1, least ?? 1, Math.ceil(open / 480));
  for (let day = new Date(from); ; day = new Date(day.getTime() + 86_400_000)) {
    if (day.getUTCDay() % 6 !== 0) left -= 1;
    if (left === 0) return dayOf(day);
  }
}

/** Who wants something, and one line of what they want. */
interface Who {
  readonly kind: 'build' | 'order';
  readonly id: number;
}
interface Line {
  readonly who: Who;
  readonly key: string;
  readonly lineId: number;
  readonly itemId: number;
  readonly open: number;
  readonly begun: boolean;
  readonly rank: number;
  readonly wantedOn: string | null;
  readonly promised: string;
  readonly transport: number;
  readonly alternates: World['builds'][number]['lines'][number]['alternates'];
}

const linesOfBuilds = ({ builds }: World): Line[] =>
  builds.flatMap((build, index) =>
    build.lines.flatMap(({ itemId, open, alternates }, position): Line[] => {
      const lineId = (index + 1) * 10 + position;
      const who = { kind: 'build' as const, id: index + 1 };
      const turn = { begun: build.state === 'on-bench', rank: build.rank ?? 0, wantedOn: build.due };
      const more = { promised: momentOfBuild(build, index), transport: 0, alternates };
      return !over(build.state) && open > 0
        ? [{ who, key: `build ${lineId}`, lineId, itemId, open, ...turn, ...more }]
        : [];
    }),
  );

/** Whoever gives way is served by the day they give way to, and never before the day they want it. */
const linesOfSales = ({ sales }: World): Line[] =>
  sales.flatMap((order, index) =>
    order.lines.flatMap(({ itemId, open, wantedOn: own }, position): Line[] => {
      const lineId = (index + 1) * 10 + position;
      const who = { kind: 'order' as const, id: index + 1 };
      const wanted = own ?? order.wantedOn;
      const given = order.turnOn === null || (wanted !== null && wanted > order.turnOn) ? wanted : order.turnOn;
      const wantedOn = order.turnOn === '9999-12-31' ? null : given;
      const turn = { begun: order.begun, rank: order.rank ?? 0, wantedOn };
      const more = { promised: momentOfOrder(order, index), transport: order.transport ?? 0, alternates: [] };
      return order.state === 'confirmed' && open > 0
        ? [{ who, key: `order ${lineId}`, lineId, itemId, open, ...turn, ...more }]
        : [];
    }),
  );

/** For which orders a build makes how many that are not in their parcels yet, whoever wants it first first. */
function keptFor({ sales }: World, build: number): (readonly [order: number, quantity: number])[] {
  return sales
    .flatMap((order, index) => {
      const own = order.lines.filter((line) => order.state === 'confirmed' && line.built === build);
      const left = own.map((line) => ({ line, quantity: line.quantity - Math.min(line.kept, line.quantity) }));
      const some = left.filter(({ quantity }) => quantity > 0);
      const days = some.map(({ line }) => line.wantedOn ?? order.wantedOn ?? '9').sort();
      const quantity = some.reduce((sum, one) => sum + one.quantity, 0);
      return days[0] === undefined ? [] : [{ index, day: days[0], at: momentOfOrder(order, index), quantity }];
    })
    .sort((a, b) => a.day.localeCompare(b.day) || a.at.localeCompare(b.at))
    .map(({ index, quantity }) => [index + 1, quantity] as const);
}

/** Everything by hand, one unit after the other. */
function slowly(given: World, toBuy: boolean) {
  const known = (day: string | null) => (day !== null && day < TODAY ? null : day);
  const usable = (one: World['balances'][number]) =>
    one.binId <= BINS && !one.holder && !(one.lot && given.heldLots[one.itemId - 1]);
  const stores = [2, 1];
  const shelf = (item: number, store: number) =>
    given.balances
      .filter((one) => one.itemId === item && 1 + (one.binId % 2) === store && usable(one))
      .reduce((sum, one) => sum + one.quantity, 0);
  interface Lot {
    /** The order that it is kept for. */
    only: number | null;
    item: number;
    on: string | null;
    from: number | null;
    left: number;
  }
  const lots: Lot[] = [];
  const owed = new Map<number, number>();
  for (let item = 1; item <= ITEMS; item += 1)
    for (const store of stores) {
      const there = shelf(item, store);
      if (there > 0) lots.push({ only: null, item, on: '', from: null, left: there });
      if (there < 0) owed.set(item, (owed.get(item) ?? 0) - there);
    }
  for (const [index, build] of given.builds.entries())
    if (!over(build.state)) {
      const common = { item: build.itemId, on: null, from: index + 1 };
      let { left } = build;
      for (const [only, wanted] of keptFor(given, index)) {
        const own = Math.max(0, Math.min(left, wanted));
        lots.push({ ...common, only, left: own });
        left -= own;
      }
      lots.push({ ...common, only: null, left });
    }
  for (const order of given.orders)
    for (const line of order.lines) {
      const brings = Math.min(
        openOf(order.state, line),
        Math.max(0, (line.confirmed ?? line.quantity) - line.received),
      );
      if (brings > 0)
        lots.push({ only: null, item: line.itemId, on: known(line.expectedOn), from: null, left: brings });
      const drafted = { only: null, item: line.itemId, on: null, from: null, left: line.quantity };
      if (toBuy && order.state === 'draft') lots.push(drafted);
    }
  const take = (item: number, who: Who | null): string | null | undefined => {
    const mayServe = ({ from, only }: Lot) =>
      (only === null || (who?.kind === 'order' && who.id === only)) && (who?.kind !== 'build' || from !== who.id);
    // What is kept for somebody is used up by them first; of the same day what is made goes before what is bought.
    const [lot] = lots
      .filter((one) => one.item === item && one.left > 0 && mayServe(one))
      .sort(
        (a, b) =>
          Number(a.only === null) - Number(b.only === null) ||
          (a.on ?? '9').localeCompare(b.on ?? '9') ||
          Number(a.from === null) - Number(b.from === null) ||
          (a.from ?? 0) - (b.from ?? 0),
      );
    if (lot) lot.left -= 1;
    return lot?.on;
  };
  const missing = new Map<number, number>();
  const lack = (item: number) => missing.set(item, (missing.get(item) ?? 0) + 1);
  const lines = [...linesOfBuilds(given), ...linesOfSales(given)].sort(
    (a, b) =>
      Number(b.begun) - Number(a.begun) ||
      a.rank - b.rank ||
      (a.wantedOn ?? '9').localeCompare(b.wantedOn ?? '9') ||
      a.promised.localeCompare(b.promised) ||
      a.lineId - b.lineId,
  );
  /** Nobody knows when what is held on a bench is released; all that stands on one is of the first build. */
  const isStuck = (build: number | null) =>
    build === 1 &&
    given.balances.some(
      (one) => one.holder && one.quantity > 0 && (one.binId > BINS || (one.lot && given.heldLots[one.itemId - 1])),
    );
  const daysOf = new Map<string, (string | null)[]>();
  for (let item = 1; item <= ITEMS; item += 1) {
    for (const lot of lots) {
      const build = lot.item === item && lot.from !== null ? given.builds[lot.from - 1] : undefined;
      if (!build) continue;
      const own = lines.filter(({ who }) => who.kind === 'build' && who.id === lot.from);
      const days = own.flatMap(({ key }) => daysOf.get(key) ?? []);
      const isWhole = own.every(({ open, key }) => daysOf.get(key)?.length === open) && !days.includes(null);
      lot.on = isWhole && !isStuck(lot.from) ? doneOn([...days, TODAY].sort().at(-1) ?? TODAY, build) : null;
    }
    for (let unit = 0; unit < (owed.get(item) ?? 0); unit += 1) if (take(item, null) === undefined) lack(item);
    for (const { who, open, key } of lines.filter((one) => one.itemId === item)) {
      const days: (string | null)[] = [];
      for (let unit = 0; unit < open; unit += 1) {
        const day = take(item, who);
        if (day === undefined) lack(item);
        else days.push(day);
      }
      daysOf.set(key, days);
    }
  }
  const answers = lines.map(({ key, open: wanted, alternates, transport }) => {
    const days = daysOf.get(key) ?? [];
    let open = wanted - days.filter((day) => day === '').length;
    const standIns: [number, number][] = [];
    for (const { itemId: other, ratio } of alternates) {
      const free = lots.filter((lot) => lot.item === other && lot.on === '').reduce((sum, lot) => sum + lot.left, 0);
      const parts = Math.min(open, Math.floor(free / ratio));
      // What cannot give all it is asked for is used up by it.
      let taken = parts < open ? free : parts * ratio;
      for (const lot of lots)
        if (lot.item === other && lot.on === '') {
          const some = Math.min(lot.left, taken);
          if (!toBuy) lot.left -= some;
          taken -= some;
        }
      if (open > 0 && parts > 0) standIns.push([other, parts]);
      open -= parts;
      if (open === 0) break;
    }
    const whole = days.length === wanted && !days.includes(null);
    return {
      key,
      transport,
      now: days.filter((day) => day === '').length,
      whole: whole ? [...days].sort().at(-1) : null,
      standIns,
    };
  });
  if (toBuy)
    for (const [index, reorder] of given.reorder.entries())
      for (let unit = 0; unit < (reorder ?? 0); unit += 1) if (take(index + 1, null) === undefined) lack(index + 1);
  return { answers, missing };
}

it('tells of random builds, orders, tasks, rejects, priorities, holds, quarantine, alternates, stores and shelves below zero what counting by hand does', async () => {
  await fc.assert(
    fc.asyncProperty(world, async (given) => {
      await database.write(async (tx) => {
        await write(tx, given);
        await writeSales(tx, given);
      });
      const pegging = await readPegging(database.reader, TODAY);
      const answers = pegging.pegged
        .filter(({ demand: { source } }) => source.kind !== 'owed')
        .map(({ demand: { source, lineId, transport }, now, completeOn, standIns }) => ({
          key: `${source.kind} ${lineId}`,
          transport,
          now: now / SCALE,
          whole: completeOn,
          standIns: standIns.map((one) => [one.itemId, one.standsFor / SCALE]),
        }));
      expect(answers).toEqual(slowly(given, false).answers);
      const missing = new Map<number, number>();
      for (const { demand, short } of (await readPeggingToBuy(database.reader, TODAY)).pegged)
        if (short > 0) missing.set(demand.itemId, (missing.get(demand.itemId) ?? 0) + short / SCALE);
      expect([...missing].sort()).toEqual([...slowly(given, true).missing].sort());
    }),
    { numRuns: 200 },
  );
}, 120_000);
