import { api, type Item } from '@yosegi/contract';
import { dayAfter } from '@yosegi/core/days';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

/** On which day things come, are due, late or over: the day before, the day itself and the day after. */
const MONDAY = '2026-11-23';
let now = new Date(`${MONDAY}T09:00:00`);
let server: TestServer;
let at: Ground;
beforeAll(async () => {
  server = await TestServer.start(undefined, { now: () => new Date(now) });
  at = await Ground.of(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});
beforeEach(() => {
  now = new Date(`${MONDAY}T09:00:00`);
});

/** What is answered the day before, on the day, and the day after. */
async function around<Answer>(day: string, ask: (day: string) => Promise<Answer>): Promise<Answer[]> {
  const answers: Answer[] = [];
  for (const off of [-1, 0, 1]) answers.push(await ask(dayAfter(day, off)));
  return answers;
}

const buy = async (item: Item, quantity: string, on: string | null) => {
  const { id, version, lines } = await at.shop.order(
    { supplierId: at.supplierId, lines: [{ itemId: item.id, quantity, price: '1' }] },
    'print',
  );
  const lineId = lines[0]?.id ?? 0;
  if (on !== null)
    await server.call(api.confirmPurchase, { params: { id }, body: { version, lines: [{ lineId, quantity, on }] } });
  return { id, lineId };
};
const sell = (lines: { item: Item; quantity: string; wantedOn?: string | null }[], more: object = {}, customer = 0) =>
  at.shop.sell(
    customer || at.customerId,
    lines.map(({ item, ...line }) => ({ itemId: item.id, price: '9', wantedOn: null, ...line })),
    more,
  );
const change = async (task: { id: number; version: number }, values: object) => {
  const { tasks } = await server.call(api.changeTasks, { body: { tasks: [task], change: values } });
  return { id: task.id, version: tasks[0]?.version ?? 0 };
};

describe('an order', () => {
  it('is late once its goods arrive after the day it is wanted, their way included', async () => {
    const far = await at.shop.customer('FAR', { transportDays: 4 });
    const nail = await at.item();
    await buy(nail, '50', '2026-12-01');
    const outlookOf = async (id: number) => (await at.read('order', id)).outlook;
    const wanted = (customer: number) =>
      around(customer === far ? '2026-12-05' : '2026-12-01', async (wantedOn) =>
        outlookOf((await sell([{ item: nail, quantity: '1' }], { wantedOn }, customer)).id),
      );
    expect(await wanted(at.customerId)).toEqual(['late', 'in-time', 'in-time']);
    expect(await wanted(far)).toEqual(['late', 'in-time', 'in-time']);
    const [row] = (await server.call(api.orders, { query: { q: 'FAR' } })).rows;
    expect(row).toMatchObject({ completeOn: '2026-12-05' });
  });

  it('is late by its last line, and each line by its own day', async () => {
    const [soon, later] = [await at.item(), await at.item()];
    await buy(soon, '9', '2026-12-01');
    await buy(later, '9', '2026-12-08');
    const outlooks = await around('2026-12-08', async (wantedOn) => {
      const lines = [
        { item: later, quantity: '1', wantedOn },
        { item: soon, quantity: '1' },
      ];
      const { id } = await sell(lines, { wantedOn: '2026-12-01', delivery: 'as-ready' });
      return (await at.read('order', id)).outlook;
    });
    expect(outlooks).toEqual(['late', 'in-time', 'in-time']);
  });

  it('tells of two lines that need one item when each of them is there', async () => {
    const nail = await at.item();
    await buy(nail, '2', '2026-12-01');
    await buy(nail, '3', '2026-12-08');
    const order = await sell([
      { item: nail, quantity: '2' },
      { item: nail, quantity: '3' },
    ]);
    const { lines } = await at.read('order', order.id);
    expect(lines.map(({ completeOn }) => completeOn)).toEqual(['2026-12-01', '2026-12-08']);
    expect(lines.map(({ parts }) => parts[0]?.comes.map(({ quantity, on }) => [quantity, on]))).toEqual([
      [['2', '2026-12-01']],
      [['3', '2026-12-08']],
    ]);
  });
});

describe('what was bought', () => {
  it('comes on the day its own line is wanted, before the day of its order', async () => {
    const [nail, screw] = [await at.item(), await at.item()];
    const both = { quantity: '5', price: '1' };
    const lines = [
      { ...both, itemId: nail.id, wantedOn: '2026-12-03' },
      { ...both, itemId: screw.id },
    ];
    await at.shop.order({ supplierId: at.supplierId, wantedOn: '2026-12-09', lines }, 'print');
    const comes = async ({ id }: Item) => (await server.call(api.coming, { params: { id } })).map(({ on }) => on);
    expect([await comes(nail), await comes(screw)]).toEqual([['2026-12-03'], ['2026-12-09']]);
  });

  it('comes on no known day once its day has passed', async () => {
    const nail = await at.item();
    await buy(nail, '5', '2026-12-03');
    const { id } = await sell([{ item: nail, quantity: '5' }]);
    const days = await around('2026-12-03', async (today) => {
      now = new Date(`${today}T09:00:00`);
      return (await at.read('order', id)).lines[0]?.completeOn;
    });
    expect(days).toEqual(['2026-12-03', '2026-12-03', null]);
  });

  it.each([
    ['its slow deliveries, not its usual ones', true, 2, 12],
    ['what is stated where that is longer than the slowest', true, 20, 20],
    ['what is stated where deliveries are not to be learnt from', false, 2, 2],
    ['its slow deliveries where nothing is stated, learnt from or not', false, null, 12],
  ])('is to be ordered again in time for %s', async (_, learnLeads, leadDays, days) => {
    const { id: supplierId } = await server.call(api.createSupplier, {
      body: { code: at.code(), name: 'Slow & Co', learnLeads },
    });
    const nail = await at.item({ suppliers: [{ supplierId, code: 'N', price: '1', leadDays }] });
    for (const took of [3, 12]) {
      now = new Date('2026-10-01T09:00:00');
      const lines = [{ itemId: nail.id, quantity: '5', price: '1' }];
      const order = await at.shop.order({ supplierId, lines }, 'print');
      now.setDate(now.getDate() + took);
      const came = { lineId: order.lines[0]?.id ?? 0, binId: at.bin(), quantity: '5', unitCost: '1' };
      await server.call(api.receivePurchase, { params: { id: order.id }, body: { lines: [came] } });
    }
    now = new Date('2026-11-10T09:00:00');
    const { id, version, lines } = await sell([{ item: nail, quantity: '2' }]);
    const body = { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '2' }] };
    await server.call(api.shipOrder, { params: { id }, body });
    const row = (await server.call(api.reorderProposals, {})).rows.find(({ itemId }) => itemId === nail.id);
    expect(row).toMatchObject({ days, learnt: { deliveries: 2, usual: 3 } });
  });
});

describe('work on the bench', () => {
  /** A build of five with a working day of work for each, and when an order for what it makes is complete. */
  const work = async () => {
    const [product, nail] = [await at.item({ source: 'made' }), await at.stocked('50')];
    await at.define(product, [
      partLine(nail, '1'),
      { kind: 'labour', text: 'Carve', basis: 'per-output', minutes: '480', rateId: 1 },
      { kind: 'charge', text: 'Varnish', basis: 'per-run', amount: '5' },
    ]);
    const { id } = await at.shop.start(product, '5');
    await at.shop.pickAll(id);
    const order = await sell([{ item: product, quantity: '1' }]);
    const doneOn = async () => (await at.read('order', order.id)).lines[0]?.completeOn;
    const tasks = async () => (await at.read('build', id)).tasks;
    return { id, doneOn, tasks };
  };

  it('takes the days that are left of it: less for what is finished, rejected or done', async () => {
    const { id, doneOn, tasks } = await work();
    // From Monday: five working days.
    expect(await doneOn()).toBe('2026-11-27');
    const { outputBinId, version } = await at.read('build', id);
    const rejected = { version, good: '0', rejected: '2', rejectReasonId: await at.reason('reject') };
    const body = { ...rejected, rejectCost: 'written-off' as const, outputBinId, lines: [] };
    await server.call(api.finish, { params: { id }, body });
    expect(await doneOn()).toBe('2026-11-25');
    const [carving] = await tasks();
    await change({ id: carving?.id ?? 0, version: carving?.version ?? 0 }, { state: 'done' });
    expect(await doneOn()).toBe(MONDAY);
  });

  it('takes less for minutes that were worked and not booked yet, on the board too', async () => {
    const { id, doneOn, tasks } = await work();
    const [carving] = await tasks();
    const task = carving?.id ?? 0;
    for (const day of ['2026-11-20', '2026-11-22'])
      await server.call(api.addTime, { params: { id: task }, body: { minutes: '480', day } });
    expect(await doneOn()).toBe('2026-11-25');
    const { cards } = await server.call(api.board, {});
    expect(cards.find(({ buildId }) => buildId === id)).toMatchObject({ minutes: '1440' });
  });

  it('waits for a service until the day it is expected back, that day included', async () => {
    const { id, tasks } = await work();
    const service = (await tasks()).find(({ kind }) => kind === 'charge');
    let task = { id: service?.id ?? 0, version: service?.version ?? 0 };
    const waits = await around(MONDAY, async (expectedOn) => {
      task = await change(task, { supplierId: at.supplierId, expectedOn });
      const { cards } = await server.call(api.board, {});
      return cards.find(({ buildId }) => buildId === id)?.blocks.map(({ kind }) => kind);
    });
    expect(waits).toEqual([[], ['service'], ['service']]);
  });

  it('is late after its day, as a build and as a task', async () => {
    const { tasks } = await work();
    const [carving] = await tasks();
    let task = { id: carving?.id ?? 0, version: carving?.version ?? 0 };
    const late = await around(MONDAY, async (due) => {
      task = await change(task, { due });
      const { rows } = await server.call(api.tasks, { query: { show: 'late' } });
      return rows.some((row) => row.id === task.id);
    });
    expect(late).toEqual([true, false, false]);
    const product = (await at.product()).item;
    const builds = await around(MONDAY, async (due) => {
      const { id } = await at.shop.plan(product, '1', due);
      return (await at.read('build', id)).late;
    });
    expect(builds).toEqual([true, false, false]);
  });

  it('is clocked no longer once its build is cancelled', async () => {
    const { id, tasks } = await work();
    const [carving] = await tasks();
    await server.call(api.startClock, { params: { id: carving?.id ?? 0 }, body: {} });
    const clocks = async () => (await tasks())[0]?.clocks.map(({ person }) => person);
    expect(await clocks()).toEqual(['Mo Owner']);
    const { version } = await at.read('build', id);
    await server.call(api.cancelBuild, { params: { id }, body: { version } });
    expect(await clocks()).toEqual([]);
    expect(await server.refused(api.stopClock, { body: {} })).toMatchObject({ code: 'no-clock' });
  });
});

describe('what was agreed', () => {
  it('stays the price of an order’s line when something else of the order is changed', async () => {
    const nail = await at.stocked('9', { sellPrice: '4' });
    const { id, version, lines, customerId } = await at.shop.sell(at.customerId, [{ itemId: nail.id, quantity: '2' }]);
    expect(lines[0]).toMatchObject({ price: '4', priceFrom: 'own' });
    const { version: now } = await server.call(api.item, { params: { id: nail.id } });
    await server.call(api.setPrices, { params: { id: nail.id }, body: { sellPrice: '5', version: now } });
    const kept = [{ id: lines[0]?.id ?? 0, itemId: nail.id, quantity: '2' }];
    const body = { customerId, lines: kept, version, remark: 'Leave it at the gate' };
    await server.call(api.saveOrder, { params: { id }, body });
    expect((await at.read('order', id)).lines[0]).toMatchObject({ price: '4', priceFrom: 'own' });
  });

  it('is nothing for a repair that turns out to be under warranty', async () => {
    const { params, version } = await at.repair('asked');
    await server.call(api.agreeRepair, { params, body: { version, price: '9' } });
    const { version: agreed } = await at.read('repair', params.id);
    expect(await at.read('repair', params.id)).toMatchObject({ price: '9' });
    const body = { version: agreed, fault: 'Loose', warranty: true, price: '9' };
    await server.call(api.changeRepair, { params, body });
    expect(await at.read('repair', params.id)).toMatchObject({ price: null, warranty: true });
  });
});

it('a repair is late from the day after it is wanted until it is given back', async () => {
  const lateOn = async (wantedOn: string | null) => {
    const body = { customerId: at.customerId, itemId: at.knob.id, fault: 'Loose', wantedOn };
    const { id } = await server.call(api.takeIn, { body });
    const late = async () => (await at.read('repair', id)).late;
    const here = await late();
    const params = { id };
    const declined = { version: await at.version('repair', id), because: 'Too dear' };
    await server.call(api.declineRepair, { params, body: declined });
    await server.call(api.giveBack, { params, body: { version: await at.version('repair', id), charged: '0' } });
    return [here, await late()];
  };
  expect(await around(MONDAY, lateOn)).toEqual([
    [true, false],
    [false, false],
    [false, false],
  ]);
  expect(await lateOn(null)).toEqual([false, false]);
});

it('a clock that is stopped leaves its task to be gone on with, unless it is done', async () => {
  const stopped = async (done?: boolean) => {
    const { id } = await at.task();
    await server.call(api.startClock, { params: { id }, body: {} });
    const body = done === undefined ? { minutes: '5' } : { minutes: '5', done };
    return (await server.call(api.stopClock, { body })).state;
  };
  expect([await stopped(), await stopped(false), await stopped(true)]).toEqual(['doing', 'doing', 'done']);
});
