import { SCALE } from '@yosegi/core/number';
import fc from 'fast-check';
import type { Writer } from '../src/db/database.ts';

// Random rows of who needs what and what can serve it, and how they are written.

export const TODAY = '2026-11-25';
export const [ITEMS, BINS, QUARANTINE] = [5, 4, 5];

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
export const world = drawn.map(({ sales, ...given }) => ({
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
export type World = typeof world extends fc.Arbitrary<infer T> ? T : never;

const amount = (units: number) => units * SCALE;
export function over(state: string): boolean {
  return state === 'finished' || state === 'cancelled';
}
/** Builds and orders promise in different minutes, so that no number decides. */
const momentOf = (at: number, index: number) => `2026-10-01T10:${String(at)}${String(index)}:00.000Z`;
export const momentOfBuild = ({ promisedAt: at }: { promisedAt: number }, index: number) => momentOf(at % 6, index);
export const momentOfOrder = ({ promisedAt: at }: { promisedAt: number }, index: number) => momentOf(at % 6, index + 5);
export const openOf = (state: string, line: World['orders'][number]['lines'][number]) =>
  (state === 'sent' || state === 'confirmed') && !line.closed ? Math.max(0, line.quantity - line.received) : 0;

export async function write(tx: Writer, given: World): Promise<void> {
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
export async function writeSales(tx: Writer, { sales }: World): Promise<void> {
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
