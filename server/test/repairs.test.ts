import { api, type Item, type RepairDetail } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** A Wednesday, in the morning. */
const clock = { at: '2026-11-25T09:00:00', now: () => new Date(clock.at) };
let server: TestServer;
let shop: Workshop;
let [scale, battery, case_]: Item[] = [];
let [anna, ben] = [0, 0];
beforeAll(async () => {
  server = await TestServer.start(undefined, clock);
  shop = await Workshop.open(server);
  scale = await shop.item('SCALE', { tracking: 'serial', fields: [{ name: 'Warranty', value: '24 months' }] } as never);
  battery = await shop.item('BATT');
  case_ = await shop.item('CASE');
  await shop.receive(scale, '3', '50', 0, { serials: ['S-1', 'S-2', 'S-3'] });
  await shop.receive(battery, '10', '4');
  anna = await shop.customer('ANNA');
  ben = await shop.customer('BEN');
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const read = (id: number) => server.call(api.repair, { params: { id } });
const body = (more: object) => ({
  body: { customerId: anna, itemId: scale?.id, serial: 'C-7', fault: 'Shows nothing', ...more } as never,
});
const takeIn = async (more: object = {}) => read((await server.call(api.takeIn, body(more))).id);
const step = async ({ id }: Pick<RepairDetail, 'id'>, more: object) => {
  const { version } = await read(id);
  return { params: { id }, body: { version, ...more } } as never;
};
const start = async ({ buildId }: RepairDetail) => {
  const { version } = await server.call(api.build, { params: { id: buildId } });
  await server.call(api.startBuild, { params: { id: buildId }, body: { version } });
};
const add = ({ buildId }: RepairDetail, item: Item | undefined, more: object = {}) =>
  server.call(api.addPart, {
    params: { id: buildId },
    body: { itemId: item?.id, quantity: '1', because: 'It was flat', binId: shop.bin(0), ...more },
  } as never);
const finish = async ({ buildId }: Pick<RepairDetail, 'buildId'>, more: object = {}) => {
  const { version, outputBinId } = await server.call(api.build, { params: { id: buildId } });
  return {
    params: { id: buildId },
    body: { version, good: '1', outputBinId, lines: [], serials: [], ...more },
  } as never;
};
/** Everything that is said of the scale's stock. */
const books = async () => {
  const { onHand, free, promised, averageCost } = await shop.stockOf(scale as Item);
  return JSON.stringify({ onHand, free, promised, averageCost });
};

describe('a repair', () => {
  it('takes goods in at no value, does its work on the bench, and gives them back to whom they belong', async () => {
    const before = await books();
    const repair = await takeIn({ accessories: 'Charger', wantedOn: '2026-11-24' });
    expect(repair).toMatchObject({ number: 'RP-0001', state: 'taken-in', serial: 'C-7', late: true, bin: 'Customers' });
    expect(await books()).toBe(before);
    const build = await server.call(api.build, { params: { id: repair.buildId } });
    expect(build).toMatchObject({
      number: 'RP-0001',
      definition: null,
      repair: { customer: 'ANNA & Co' },
      due: '2026-11-24',
    });
    // It comes to nobody: a customer's unit is neither coming nor in anybody's cover.
    expect(await shop.stockOf(scale as Item)).toMatchObject({ coming: '0' });
    expect(
      await server.refused(api.setBuildFor, {
        params: { id: repair.buildId },
        body: { version: build.version, orders: [] },
      }),
    ).toMatchObject({ code: 'is-a-repair' });

    await server.call(api.estimateRepair, await step(repair, { estimate: '25' }));
    expect(
      await server.refused(api.startBuild, { params: { id: repair.buildId }, body: { version: build.version } }),
    ).toMatchObject({
      code: 'wrong-state',
      detail: 'Repair RP-0001 is waiting for the customer. Record the customer’s agreement first.',
    });
    await server.call(api.agreeRepair, await step(repair, {}));
    expect(await read(repair.id)).toMatchObject({ state: 'agreed', estimate: '25', price: '25' });
    await start(repair);
    await add(repair, battery);
    await server.call(api.addTask, {
      params: { id: repair.buildId },
      body: { kind: 'labour', text: 'Solder', amount: '15', rateId: 1, because: 'Loose' },
    } as never);
    expect(await read(repair.id)).toMatchObject({ state: 'on-bench', cost: { parts: '4', labour: '6', total: '10' } });
    expect(await server.refused(api.giveBack, await step(repair, { charged: '25' }))).toMatchObject({
      code: 'wrong-state',
    });
    expect(
      await server.refused(api.finish, await finish(repair, { good: '0', rejected: '1', rejectCost: 'written-off' })),
    ).toMatchObject({ code: 'repair-whole' });
    const done = await server.posted(api.finish, await finish(repair));
    expect(done.values.map(({ kind, amount }) => [kind, amount])).toEqual([
      ['labour', '6'],
      ['repaired', '-10'],
    ]);
    expect(await read(repair.id)).toMatchObject({ state: 'ready', cost: { total: '10' }, margin: null });

    // Undone it is on the bench again, and finished once more it costs the same.
    await server.call(api.undoDocument, { params: { id: done.id }, body: {} });
    expect(await read(repair.id)).toMatchObject({ state: 'on-bench', cost: { total: '10' } });
    await server.call(api.finish, await finish(repair));
    await server.call(api.giveBack, await step(repair, { charged: '25' }));
    const back = await read(repair.id);
    expect(back).toMatchObject({ state: 'given-back', charged: '25', margin: '15' });
    expect(back.events.map(({ says }) => says)).toContain('The customer agreed');
    const { documents } = await server.call(api.build, { params: { id: repair.buildId } });
    const last = documents.findLast(({ kind }) => kind === 'finish');
    expect(await server.refused(api.undoDocument, { params: { id: last?.id ?? 0 }, body: {} })).toMatchObject({
      code: 'wrong-state',
    });
    expect(await books()).toBe(before);
  });

  it('under warranty costs without a price; one that is not repaired goes back as it came', async () => {
    const free = await takeIn({ warranty: true, price: '30', serial: 'C-8' });
    expect(free).toMatchObject({ warranty: true, price: null });
    await start(free);
    await add(free, battery);
    await server.call(api.finish, await finish(free));
    expect(await server.refused(api.giveBack, await step(free, { charged: '1' }))).toMatchObject({
      code: 'warranty-is-free',
      field: 'charged',
    });
    await server.call(api.giveBack, await step(free, { charged: '0' }));
    expect(await read(free.id)).toMatchObject({ margin: '-4' });

    const batteries = (await shop.stockOf(battery as Item)).free;
    const left = await takeIn({ serial: 'C-9', customerId: ben });
    await start(left);
    await add(left, battery);
    await server.call(api.declineRepair, await step(left, { because: 'Too dear' }));
    expect(await read(left.id)).toMatchObject({ state: 'ready', declined: 'Too dear', cost: { total: '0' } });
    expect((await shop.stockOf(battery as Item)).free).toBe(batteries);
    expect(await server.refused(api.cancelBuild, { params: { id: left.buildId }, body: { version: 0 } })).toMatchObject(
      {
        code: 'is-a-repair',
      },
    );
  });

  it('is of one thing, and finished as a whole, also where that is measured', async () => {
    const kilo = (await server.call(api.units, {})).find(({ code }) => code === 'kg')?.id ?? 1;
    const blend = await shop.item('BLEND', { unitId: kilo });
    const repair = await takeIn({ itemId: blend.id, serial: null });
    const { version } = await server.call(api.build, { params: { id: repair.buildId } });
    const half = { params: { id: repair.buildId }, body: { version, quantity: '0.5' } };
    expect(await server.refused(api.startBuild, half)).toMatchObject({ code: 'repair-whole', field: 'quantity' });
    await start(repair);
    for (const close of [false, true])
      expect(await server.refused(api.finish, await finish(repair, { good: '0.5', close }))).toMatchObject({
        code: 'repair-whole',
        field: 'good',
      });
    await server.call(api.finish, await finish(repair));
    expect(await read(repair.id)).toMatchObject({ state: 'ready', serial: null });
  });

  it('waits for its parts like any build, and is found by what is said of it', async () => {
    const waits = await takeIn({ serial: 'C-10', fault: 'Cracked case' });
    await add(waits, case_, { binId: null });
    const { rows } = await server.call(api.repairs, { query: { q: 'cracked' } } as never);
    expect(rows).toMatchObject([{ id: waits.id, waiting: ['1 each The CASE'] }]);
    expect((await shop.stockOf(case_ as Item)).free).toBe('-1');
    const mine = await server.call(api.repairs, { query: { customerId: anna, show: 'given-back' } } as never);
    expect(mine.rows.map(({ number }) => number)).toEqual(['RP-0002', 'RP-0001']);
  });
});

describe('what is a customer’s', () => {
  it('is not taken in twice, nor where it is ours; nor used, sold, counted or made as ours', async () => {
    const here = await takeIn({ serial: 'C-20' });
    expect(await server.refused(api.takeIn, body({ serial: 'c-20' }))).toMatchObject({
      code: 'unit-in-repair',
      field: 'serial',
      detail: expect.stringContaining(`belongs to ANNA & Co, here for ${here.number}`),
    });
    expect(await server.refused(api.takeIn, body({ serial: 'S-1' }))).toMatchObject({ code: 'unit-is-ours' });
    expect(await server.refused(api.takeIn, body({ serial: null }))).toMatchObject({ field: 'serial' });
    const store = {
      itemId: scale?.id ?? 0,
      binId: shop.bin(0),
      toBinId: shop.bin(1),
      quantity: '1',
      serials: ['C-20'],
    };
    expect(
      await server.refused(api.transfer, { body: { lines: [{ ...store, fromBinId: shop.bin(0) }] } } as never),
    ).toMatchObject({ code: 'unit-in-repair' });
    const line = { itemId: scale?.id ?? 0, binId: shop.bin(0), quantity: '1', unitCost: '1', serials: ['C-20'] };
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [line] } })).toMatchObject({
      code: 'serial-clash',
      detail: expect.stringContaining('here for'),
    });
    const order = await shop.sell(ben, [{ itemId: scale?.id ?? 0, quantity: '1', price: '90' }] as never);
    const part = order.lines[0]?.parts[0];
    const take = { partId: part?.id ?? 0, binId: shop.bin(0), quantity: '1', serials: ['C-20'] };
    expect(
      await server.refused(api.packOrder, { params: { id: order.id }, body: { lines: [take] } } as never),
    ).toMatchObject({ code: 'unit-in-repair' });
    const { id } = await server.call(api.beginCount, { body: { binIds: [shop.bin(0)] } } as never);
    const { sheet } = await server.call(api.count, { params: { id } });
    const row = sheet.find(({ itemId }) => itemId === scale?.id);
    expect(
      await server.refused(api.countLine, {
        params: { id: row?.id ?? 0 },
        body: { counted: null, serials: ['S-1', 'C-20'] },
      } as never),
    ).toMatchObject({ code: 'unit-in-repair' });
  });
});

describe('parts on the bench', () => {
  it('are added with a reason, used with what is finished next, and taken back', async () => {
    const shelf = await shop.item('SHELF', { source: 'made' });
    const glue = await shop.item('GLUE');
    await shop.receive(glue, '10', '2');
    await shop.define(shelf, [[battery as Item, '1']]);
    const { id, version } = await shop.plan(shelf, '3');
    await server.call(api.startBuild, { params: { id }, body: { version } });
    await shop.pickAll(id);
    const detail = () => server.call(api.build, { params: { id } });
    await server.call(api.finish, {
      params: { id },
      body: {
        version: (await detail()).version,
        good: '1',
        outputBinId: (await detail()).outputBinId,
        lines: [],
        serials: [],
      },
    } as never);
    const extra = (more: object) =>
      ({
        params: { id },
        body: { itemId: glue.id, quantity: '2', because: 'Loose', binId: shop.bin(0), ...more },
      }) as never;
    expect(await server.refused(api.addPart, extra({ itemId: shelf.id }))).toMatchObject({ code: 'part-of-itself' });
    expect(await server.refused(api.addPart, extra({ quantity: '20' }))).toMatchObject({ code: 'stock-short' });
    expect(await server.refused(api.addPart, extra({ quantity: '0.5' }))).toMatchObject({ field: 'quantity' });
    const { lineId } = await server.call(api.addPart, extra({}));
    const line = async () => (await detail()).lines.find((one) => one.id === lineId);
    expect(await line()).toMatchObject({ onBench: '2', open: '0', added: { by: 'Mo Owner', because: 'Loose' } });
    const back = (quantity: string) => ({ params: { id }, body: { lineId, quantity, serials: [] } });
    expect(await server.refused(api.takeBack, back('3'))).toMatchObject({ code: 'more-than-bench' });
    await server.call(api.takeBack, back('1'));
    expect(await line()).toMatchObject({ onBench: '1', required: '1' });
    const { outputBinId } = await detail();
    const finished = await server.posted(api.finish, {
      params: { id },
      body: { version: (await detail()).version, good: '1', outputBinId, lines: [], serials: [] },
    } as never);
    // The battery of this one and all of the glue, though the run had begun without it.
    expect(finished.uses).toMatchObject([{ actual: '1' }, { text: 'The GLUE', planned: '1', actual: '1', cost: '2' }]);
    await server.call(api.undoDocument, { params: { id: finished.id }, body: {} });
    expect(await line()).toMatchObject({ onBench: '1', used: '0' });
    await server.call(api.takeBack, back('1'));
    expect(await line()).toBeUndefined();
    // What the definition says stays open when it goes back.
    const own = (await detail()).lines[0];
    await server.call(api.takeBack, { params: { id }, body: { lineId: own?.id ?? 0, quantity: '1', serials: [] } });
    expect((await detail()).lines[0]).toMatchObject({ onBench: '1', open: '1' });
  });

  it('takes its build along when it is wanted on another day or for another job', async () => {
    const repair = await takeIn({ serial: 'C-77' });
    const said = { fault: 'Loose', wantedOn: '2026-12-04', warranty: false, price: null, jobTag: 'Fair' };
    await server.call(api.changeRepair, await step(repair, said));
    const build = await server.call(api.build, { params: { id: repair.buildId } });
    expect(build).toMatchObject({ due: '2026-12-04', jobTag: 'Fair' });
    const { cards } = await server.call(api.board, {});
    expect(cards.find(({ repairId }) => repairId === repair.id)).toMatchObject({
      due: '2026-12-04',
      day: '2026-12-04',
    });
  });
});
