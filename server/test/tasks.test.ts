import { api, type Item, type Task } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/** A Wednesday, in the morning. */
const clock = { at: '2026-11-25T09:00:00', now: () => new Date(clock.at) };
let server: TestServer;
let shop: Workshop;
let [board, shelf]: Item[] = [];
let rateId = 0;
beforeAll(async () => {
  server = await TestServer.start(undefined, clock);
  shop = await Workshop.open(server);
  board = await shop.item('T-BOARD');
  shelf = await shop.item('T-SHELF', { source: 'made' });
  await shop.receive(board, '100', '2');
  rateId = (await server.call(api.rates, {}))[0]?.id ?? 0;
  await define(shelf, '30');
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

/** One board, 30 minutes at a rate and a service for 12.00 a run make a shelf. */
async function define(item: Item, minutes: string) {
  const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: item.id } });
  const params = { id: revisions[0]?.id ?? 0 };
  const lines = [
    partLine(board as Item, '1'),
    { kind: 'labour' as const, text: 'Sanding', basis: 'per-output' as const, minutes, rateId },
    { kind: 'charge' as const, text: 'Varnishing', basis: 'per-run' as const, amount: '12' },
  ];
  const body = { version: revisions[0]?.version ?? 0, outputQuantity: '1', lines };
  const saved = await server.did('definition', api.saveRevision, { params, body });
  await server.call(api.putInUse, { params, body: { version: saved.revisions[0]?.version ?? 0 } });
}

const detail = (id: number) => server.call(api.build, { params: { id } });
const taskOf = async (id: number, kind: 'labour' | 'charge') =>
  (await detail(id)).tasks.find((one) => one.kind === kind) as Task;
const onBench = async (quantity: string) => {
  const { id } = await shop.plan(shelf as Item, quantity);
  const build = await detail(id);
  await server.call(api.startBuild, { params: { id }, body: { version: build.version } } as never);
  return id;
};
const finish = async (id: number, good: string, more: object = {}) => {
  const { version, outputBinId } = await detail(id);
  return { params: { id }, body: { version, good, outputBinId, lines: [], serials: [], ...more } } as never;
};
const change = (task: Task, part: object) =>
  server.call(api.changeTasks, { body: { tasks: [{ id: task.id, version: task.version }], change: part } } as never);
const labourCostOf = async (documentId: number) =>
  (await server.call(api.document, { params: { id: documentId } })).values.filter(({ kind }) => kind === 'labour');

describe('tasks', () => {
  it('come with a build from its labour and charges, are listed by day, and changed many at once or none', async () => {
    const { id } = await shop.plan(shelf as Item, '4', '2026-11-24');
    expect((await detail(id)).tasks).toMatchObject([
      { kind: 'labour', text: 'Sanding', planned: '120', taken: '0', state: 'open', due: '2026-11-24', late: true },
      { kind: 'charge', text: 'Varnishing', planned: '12', price: null, state: 'open' },
    ]);
    const late = await server.call(api.tasks, { query: { show: 'late', buildId: id } } as never);
    expect(late.rows).toHaveLength(2);
    const [sand, varnish] = late.rows as [Task, Task];
    const both = [sand, varnish].map((one) => ({ id: one.id, version: one.version }));
    await server.call(api.changeTasks, { body: { tasks: both, change: { personId: 1, due: '2026-12-01' } } });
    const mine = await server.call(api.tasks, { query: { personId: 1, buildId: id } } as never);
    expect(mine.rows.map(({ person, ownDue, late: isLate }) => [person, ownDue, isLate])).toEqual([
      ['Mo Owner', '2026-12-01', false],
      ['Mo Owner', '2026-12-01', false],
    ]);
    // A stale one among them keeps all as they were.
    const stale = [
      { id: varnish.id, version: varnish.version + 1 },
      { id: sand.id, version: sand.version },
    ];
    expect(
      await server.refused(api.changeTasks, { body: { tasks: stale, change: { due: null } } } as never),
    ).toMatchObject({ status: 409, code: 'stale-save' });
    expect((await taskOf(id, 'charge')).ownDue).toBe('2026-12-01');
    const refused = (part: object) =>
      server.refused(api.changeTasks, {
        body: { tasks: [{ id: sand.id, version: sand.version + 1 }], change: part },
      } as never);
    expect(await refused({ state: 'skipped' })).toMatchObject({ status: 422, field: 'change.because' });
    expect(await refused({ personId: 99 })).toMatchObject({ field: 'change.personId', code: 'unknown-choice' });
    expect(await refused({ supplierId: 99 })).toMatchObject({ field: 'change.supplierId', code: 'unknown-choice' });
    const { version } = await detail(id);
    await server.call(api.cancelBuild, { params: { id }, body: { version } });
    expect(await refused({ due: null })).toMatchObject({ code: 'task-over' });
  });

  it('take minutes by hand and by one clock for a person, at most a day’s, and ask about a clock left over night', async () => {
    const id = await onBench('2');
    const task = await taskOf(id, 'labour');
    const add = (body: object) => ({ params: { id: task.id }, body: { day: '2026-11-25', ...body } }) as never;
    expect(await server.refused(api.addTime, add({ minutes: '0' }))).toMatchObject({ field: 'minutes' });
    expect(await server.refused(api.addTime, add({ minutes: '-5' }))).toMatchObject({ field: 'minutes' });
    expect(await server.refused(api.addTime, add({ minutes: '1441' }))).toMatchObject({ code: 'minutes-of-day' });
    expect(await server.refused(api.addTime, add({ minutes: '5', day: '2026-11-26' }))).toMatchObject({
      code: 'day-ahead',
    });
    await server.call(api.addTime, add({ minutes: '1400', day: '2026-11-24' }));
    expect(await server.refused(api.addTime, add({ minutes: '41', day: '2026-11-24' }))).toMatchObject({
      code: 'minutes-of-day',
      detail: expect.stringContaining('40 minutes'),
    });
    const [time] = await server.call(api.taskTimes, { params: { id } });
    await server.call(api.removeTime, { params: { id: time?.id ?? 0 } });
    expect(await taskOf(id, 'labour')).toMatchObject({ taken: '0', state: 'doing' });
    await server.call(api.startClock, { params: { id: task.id }, body: {} });
    clock.at = '2026-11-25T09:25:00';
    // Starting it on another task keeps what it ran on the first; starting it twice is starting it once.
    const other = await onBench('1');
    const second = await taskOf(other, 'labour');
    await server.call(api.startClock, { params: { id: second.id }, body: {} });
    await server.call(api.startClock, { params: { id: second.id }, body: {} });
    expect(await taskOf(id, 'labour')).toMatchObject({ taken: '25', clocks: [] });
    clock.at = '2026-11-26T08:00:00';
    expect((await server.call(api.clock, {})).clock).toMatchObject({ taskId: second.id, isOverNight: true });
    expect(await server.refused(api.stopClock, { body: {} })).toMatchObject({ code: 'clock-over-night' });
    await server.call(api.stopClock, { body: { minutes: '40', done: true } });
    expect(await taskOf(other, 'labour')).toMatchObject({ taken: '40', state: 'done', clocks: [] });
    expect(await server.refused(api.stopClock, { body: {} })).toMatchObject({ code: 'no-clock' });
    expect(await server.refused(api.startClock, { params: { id: second.id }, body: {} })).toMatchObject({
      code: 'task-over',
    });
    clock.at = '2026-11-25T09:00:00';
  });

  it('are booked once, by portions, with what was added on the bench, and again after an undo', async () => {
    const id = await onBench('4');
    const [labour, charge] = [await taskOf(id, 'labour'), await taskOf(id, 'charge')];
    await server.call(api.addTime, { params: { id: labour.id }, body: { minutes: '90', day: '2026-11-23' } } as never);
    await change(charge, { price: '20', state: 'done' });
    const glue = await server.call(api.addTask, {
      params: { id },
      body: { kind: 'charge', text: 'Glue from next door', amount: '3', because: 'Ours was dry' },
    } as never);
    expect(glue).toMatchObject({ planned: '3', added: { by: 'Mo Owner', because: 'Ours was dry' } });
    // One of four takes what is planned for it while its task goes on, and a quarter of the price; what is added once falls to the first.
    const first = await server.call(api.finish, await finish(id, '1'));
    expect((await detail(id)).tasks.map(({ booked }) => booked)).toEqual(['30', '5', '3']);
    expect(await labourCostOf(first.id)).toHaveLength(1);
    const last = await server.call(api.finish, await finish(id, '3'));
    expect((await detail(id)).tasks.map(({ booked, state }) => [booked, state])).toEqual([
      ['90', 'done'],
      ['20', 'done'],
      ['3', 'done'],
    ]);
    const times = await server.call(api.taskTimes, { params: { id } });
    expect(await server.refused(api.removeTime, { params: { id: times[0]?.id ?? 0 } })).toMatchObject({
      code: 'minutes-booked',
    });
    await server.call(api.undoDocument, { params: { id: last.id }, body: {} });
    expect((await detail(id)).tasks.map(({ booked }) => booked)).toEqual(['30', '5', '3']);
    await server.call(api.finish, await finish(id, '3'));
    expect((await detail(id)).tasks.map(({ booked }) => booked)).toEqual(['90', '20', '3']);
  });

  it('are ticked, clocked and finished by two people at once: nothing is booked twice, and the second sees why', async () => {
    const id = await onBench('2');
    const task = await taskOf(id, 'labour');
    const codeOf = (outcome: PromiseSettledResult<unknown>) =>
      outcome.status === 'fulfilled' ? 'done' : (outcome.reason as { problem: { code: string } }).problem.code;
    const both = async (...all: Promise<unknown>[]) => (await Promise.allSettled(all)).map(codeOf).sort();
    const { cookie } = server;
    await server.signIn(2);
    const bo = server.cookie;
    /** Sent by whoever the cookie is. */
    const as = <T>(who: string, work: () => Promise<T>) => {
      server.cookie = who;
      return work();
    };
    expect(
      await both(
        as(cookie, () => change(task, { state: 'doing' })),
        as(bo, () => change(task, { state: 'done' })),
      ),
    ).toEqual(['done', 'stale-save']);
    await change(await taskOf(id, 'labour'), { state: 'open' });
    await both(
      as(cookie, () => server.call(api.startClock, { params: { id: task.id }, body: {} })),
      as(bo, () => server.call(api.startClock, { params: { id: task.id }, body: {} })),
    );
    expect((await taskOf(id, 'labour')).clocks.map(({ person }) => person).sort()).toEqual(['Bo Bench', 'Mo Owner']);
    const whole = await finish(id, '2');
    expect(
      await both(
        as(cookie, () => server.call(api.finish, whole)),
        as(bo, () => server.call(api.finish, whole)),
      ),
    ).toEqual(['done', 'wrong-state']);
    server.cookie = cookie;
    const { documents } = await detail(id);
    const [posted] = documents.filter(({ kind }) => kind === 'finish');
    expect(documents.filter(({ kind }) => kind === 'finish')).toHaveLength(1);
    expect(await labourCostOf(posted?.id ?? 0)).toHaveLength(1);
    // The clocks ended with it, and what they ran is booked.
    expect((await taskOf(id, 'labour')).clocks).toEqual([]);
  });

  it('that a definition demands are done before it is finished, or skipped at no cost', async () => {
    const strict = await shop.item('T-STRICT', { source: 'made' });
    await define(strict, '10');
    await shop.behave(strict, { tasksFirst: true });
    const planned = await shop.plan(strict, '1');
    const { version } = await detail(planned.id);
    await server.call(api.startBuild, { params: { id: planned.id }, body: { version } } as never);
    const { id } = planned;
    expect(await server.refused(api.finish, await finish(id, '1'))).toMatchObject({
      status: 409,
      code: 'tasks-open',
      detail: expect.stringContaining('Still open: Sanding, Varnishing.'),
    });
    await change(await taskOf(id, 'labour'), { state: 'done' });
    await change(await taskOf(id, 'charge'), { state: 'skipped', because: 'Sold raw' });
    await server.call(api.finish, await finish(id, '1'));
    // Done without a minute written down is done as planned.
    expect((await detail(id)).tasks.map(({ booked }) => booked)).toEqual(['10', '0']);
    // What is over is listed the newest first, page by page.
    const over = (cursor?: string) => server.call(api.tasks, { query: { show: 'over', limit: 1, cursor } } as never);
    const newest = await over();
    expect(newest.rows).toMatchObject([{ buildId: id, text: 'Varnishing', skippedBecause: 'Sold raw' }]);
    expect((await over(newest.next ?? '')).rows).toMatchObject([{ buildId: id, text: 'Sanding' }]);
  });
});

describe('rejects', () => {
  const valuesOf = async (documentId: number, kind: string) =>
    (await server.call(api.document, { params: { id: documentId } })).values
      .filter((one) => one.kind === kind)
      .map(({ amount }) => amount);
  const reasonId = async () =>
    (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'reject')?.id ?? 0;

  it('use up their parts, take a reason, and are carried by the good ones or written off as planned', async () => {
    const id = await onBench('5');
    const rejected = async (good: string, more: object) => finish(id, good, { rejected: '1', ...more });
    expect(await server.refused(api.finish, await rejected('1', {}))).toMatchObject({
      status: 422,
      code: 'reject-reason',
      field: 'rejectReasonId',
    });
    const wrong = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'hold')?.id;
    expect(await server.refused(api.finish, await rejected('1', { rejectReasonId: wrong }))).toMatchObject({
      code: 'reject-reason',
    });
    const why = { rejectReasonId: await reasonId() };
    expect(await server.refused(api.finish, await rejected('5', why))).toMatchObject({
      code: 'more-than-planned',
      field: 'rejected',
    });
    expect(await server.refused(api.finish, await rejected('0', why))).toMatchObject({ code: 'rejects-need-good' });
    expect(await server.refused(api.finish, await finish(id, '0'))).toMatchObject({ code: 'not-positive' });
    expect(await server.refused(api.finish, await rejected('1', { rejected: '0.5', ...why }))).toMatchObject({
      field: 'rejected',
    });
    // Two boards, an hour at 24.00 and the service: 4 + 24 + 12, all on the good one.
    const rate = Number((await server.call(api.rates, {}))[0]?.perHour);
    const cost = 4 + rate + 12;
    const carried = await server.call(api.finish, await rejected('1', why));
    expect(Number(carried.unitCost)).toBeCloseTo(cost, 6);
    expect(await valuesOf(carried.id, 'written-off')).toEqual([]);
    expect(await detail(id)).toMatchObject({ finished: '1', rejected: '1', state: 'on-bench' });
    // The same again, half of it written off: the service was booked with the first.
    const written = await server.call(api.finish, await rejected('1', { ...why, rejectCost: 'written-off' }));
    expect(Number(written.unitCost)).toBeCloseTo((4 + rate) / 2, 6);
    expect((await valuesOf(written.id, 'written-off')).map(Number)).toEqual([-(4 + rate) / 2]);
    // The last is no good either: everything it took is written off, and the build is over.
    const last = await server.call(api.finish, await rejected('0', { ...why, rejectCost: 'written-off' }));
    expect(Number(last.unitCost)).toBe(0);
    expect((await valuesOf(last.id, 'written-off')).map(Number)).toEqual([-(2 + rate / 2)]);
    expect(await detail(id)).toMatchObject({ finished: '2', rejected: '3', state: 'finished' });
    await server.call(api.undoDocument, { params: { id: last.id }, body: {} });
    expect(await detail(id)).toMatchObject({ finished: '2', rejected: '2', state: 'on-bench' });
    expect(await server.verify()).toEqual([]);
  });

  it('come to nobody: less is coming, and who is last in turn for what is built gets less', async () => {
    const { id } = await shop.plan(shelf as Item, '3', '2026-12-01');
    const coming = async () =>
      (await server.call(api.coming, { params: { id: (shelf as Item).id } })).find(
        (row) => row.source === 'build' && row.id === id,
      )?.quantity;
    expect(await coming()).toBe('3');
    const { version } = await detail(id);
    await server.call(api.startBuild, { params: { id }, body: { version } } as never);
    const customer = await shop.customer('REJ');
    const sold = await shop.sell(customer, [{ itemId: (shelf as Item).id, quantity: '3', price: '90' }] as never);
    const [want] = (await detail(id)).wanting;
    if (want)
      await server.call(api.setBuildFor, {
        params: { id },
        body: { version: (await detail(id)).version, orders: [{ partId: want.partId, quantity: '3' }] },
      } as never);
    const built = async () =>
      (await detail(id)).orders
        .filter(({ orderId }) => orderId === sold.id)
        .map(({ quantity, kept }) => [quantity, kept]);
    expect(await built()).toEqual([['3', '0']]);
    const rejecting = await finish(id, '1', { rejected: '1', rejectReasonId: await reasonId() });
    const first = await server.call(api.finish, rejecting);
    expect(await coming()).toBe('1');
    expect(await built()).toEqual([['2', '1']]);
    // Undone, the order is built for as before; so it is when a build that was closed early goes on.
    await server.call(api.undoDocument, { params: { id: first.id }, body: {} });
    expect(await built()).toEqual([['3', '0']]);
    const closing = await server.call(api.finish, await finish(id, '1', { close: true }));
    expect(await built()).toEqual([['1', '1']]);
    await server.call(api.undoDocument, { params: { id: closing.id }, body: {} });
    expect(await built()).toEqual([['3', '0']]);
    expect(await server.verify()).toEqual([]);
  });

  it('that are done stop every clock on them; what is a charge’s alone is not said of labour', async () => {
    const id = await onBench('1');
    await server.call(api.startClock, { params: { id: (await taskOf(id, 'labour')).id }, body: {} });
    await change(await taskOf(id, 'labour'), { price: '5' });
    expect(await taskOf(id, 'labour')).toMatchObject({ price: null, clocks: [{ personId: 1 }] });
    await change(await taskOf(id, 'labour'), { state: 'done' });
    expect(await taskOf(id, 'labour')).toMatchObject({ state: 'done', clocks: [] });
    expect(await server.refused(api.stopClock, { body: {} })).toMatchObject({ code: 'no-clock' });
  });

  it('take on the board what is planned less what was worked, and never less than nothing', async () => {
    const id = await onBench('2');
    const task = await taskOf(id, 'labour');
    const minutes = async () =>
      (await server.call(api.board, {})).cards.filter(({ buildId }) => buildId === id).map((card) => card.minutes);
    expect(await minutes()).toEqual(['60']);
    const add = (amount: string) =>
      server.call(api.addTime, { params: { id: task.id }, body: { minutes: amount, day: '2026-11-25' } });
    await add('25');
    expect(await minutes()).toEqual(['35']);
    await add('40');
    expect(await minutes()).toEqual(['0']);
  });
});
