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
const world = fc.record({
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
        quantity: fc.integer({ min: 1, max: 6 }),
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
        minutes: fc.constantFrom(0, 80, 200),
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
});
type World = typeof world extends fc.Arbitrary<infer T> ? T : never;

const amount = (units: number) => units * SCALE;
const over = (state: string) => state === 'finished' || state === 'cancelled';
const openOf = (state: string, line: World['orders'][number]['lines'][number]) =>
  (state === 'sent' || state === 'confirmed') && !line.closed ? Math.max(0, line.quantity - line.received) : 0;

async function write(tx: Writer, given: World): Promise<void> {
  for (const table of [
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
      quantity: amount(build.quantity),
      state: build.state,
      due: build.due,
      output_bin_id: 1,
      planned_at: '',
      planned_by: 1,
    });
    const said = { reason: 'so', set_at: '', set_by: 1 };
    if (build.rank !== null)
      await tx.driver.insertMany('priority', [{ kind: 'build', source_id: id, rank: build.rank, ...said }]);
    const labour = { position: 9, kind: 'labour', basis: 'per-output', amount: amount(build.minutes) };
    await tx.driver.insert('build_line', { id: id * 10 + 9, build_id: id, ...labour, rate_per_hour: 0 });
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

/** A bench does 480 minutes on each day from Monday to Friday. */
function doneOn(from: string, { minutes, quantity, least }: World['builds'][number]): string {
  let left = Math.max(1, least ?? 1, Math.ceil((minutes * quantity) / 480));
  for (let day = new Date(from); ; day = new Date(day.getTime() + 86_400_000)) {
    if (day.getUTCDay() % 6 !== 0) left -= 1;
    if (left === 0) return dayOf(day);
  }
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
      if (there > 0) lots.push({ item, on: '', from: null, left: there });
      if (there < 0) owed.set(item, (owed.get(item) ?? 0) - there);
    }
  for (const [index, build] of given.builds.entries())
    if (!over(build.state)) lots.push({ item: build.itemId, on: null, from: index + 1, left: build.quantity });
  for (const order of given.orders)
    for (const line of order.lines) {
      const brings = Math.min(
        openOf(order.state, line),
        Math.max(0, (line.confirmed ?? line.quantity) - line.received),
      );
      if (brings > 0) lots.push({ item: line.itemId, on: known(line.expectedOn), from: null, left: brings });
      if (toBuy && order.state === 'draft') lots.push({ item: line.itemId, on: null, from: null, left: line.quantity });
    }
  const take = (item: number, who: number | null): string | null | undefined => {
    // Of the same day what is made goes before what is bought.
    const [lot] = lots
      .filter((one) => one.item === item && one.left > 0 && (who === null || one.from !== who))
      .sort((a, b) => (a.on ?? '9').localeCompare(b.on ?? '9') || Number(a.from === null) - Number(b.from === null));
    if (lot) lot.left -= 1;
    return lot?.on;
  };
  const missing = new Map<number, number>();
  const lack = (item: number) => missing.set(item, (missing.get(item) ?? 0) + 1);
  const lines = given.builds
    .flatMap((build, index) =>
      over(build.state)
        ? []
        : build.lines.map((line, position) => ({ build, id: index + 1, line, lineId: (index + 1) * 10 + position })),
    )
    .filter(({ line }) => line.open > 0)
    .sort(
      (a, b) =>
        Number(b.build.state === 'on-bench') - Number(a.build.state === 'on-bench') ||
        (a.build.rank ?? 0) - (b.build.rank ?? 0) ||
        (a.build.due ?? '9').localeCompare(b.build.due ?? '9') ||
        a.lineId - b.lineId,
    );
  /** Nobody knows when what is held on a bench is released; all that stands on one is of the first build. */
  const isStuck = (build: number | null) =>
    build === 1 &&
    given.balances.some(
      (one) => one.holder && one.quantity > 0 && (one.binId > BINS || (one.lot && given.heldLots[one.itemId - 1])),
    );
  const daysOf = new Map<number, (string | null)[]>();
  for (let item = 1; item <= ITEMS; item += 1) {
    for (const lot of lots) {
      const build = lot.item === item && lot.from !== null ? given.builds[lot.from - 1] : undefined;
      if (!build) continue;
      const own = lines.filter(({ id }) => id === lot.from);
      const days = own.flatMap(({ lineId }) => daysOf.get(lineId) ?? []);
      const isWhole = own.every(({ line, lineId }) => daysOf.get(lineId)?.length === line.open) && !days.includes(null);
      lot.on = isWhole && !isStuck(lot.from) ? doneOn([...days, TODAY].sort().at(-1) ?? TODAY, build) : null;
    }
    for (let unit = 0; unit < (owed.get(item) ?? 0); unit += 1) if (take(item, null) === undefined) lack(item);
    for (const { id, line, lineId } of lines.filter((one) => one.line.itemId === item)) {
      const days: (string | null)[] = [];
      for (let unit = 0; unit < line.open; unit += 1) {
        const day = take(item, id);
        if (day === undefined) lack(item);
        else days.push(day);
      }
      daysOf.set(lineId, days);
    }
  }
  const served = lines.map(({ line, lineId }) => ({ line, lineId, days: daysOf.get(lineId) ?? [] }));
  const answers = served.map(({ line, lineId, days }) => {
    let open = line.open - days.filter((day) => day === '').length;
    const standIns: [number, number][] = [];
    for (const { itemId: other, ratio } of line.alternates) {
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
    const whole = days.length === line.open && !days.includes(null);
    return {
      lineId,
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

it('tells of random builds, orders, holds, quarantine, alternates, stores and shelves below zero what counting by hand does', async () => {
  await fc.assert(
    fc.asyncProperty(world, async (given) => {
      await database.write((tx) => write(tx, given));
      const pegging = await readPegging(database.reader, TODAY);
      const answers = pegging.pegged
        .filter(({ demand }) => demand.source.kind === 'build')
        .map(({ demand, now, completeOn, standIns }) => ({
          lineId: demand.lineId,
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
    { numRuns: 120 },
  );
}, 120_000);
