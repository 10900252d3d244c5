import { api, type Route } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Deed, deeds, withOther } from './deeds.ts';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

let server: TestServer;
let ground: Ground;
/** Of what is archived, or does not work here any more, by the fields that could name it. */
let gone: Readonly<Record<string, number>>;
beforeAll(async () => {
  server = await TestServer.start();
  ground = await Ground.of(server);
  const item = await ground.item({ source: 'made' });
  await ground.define(item, [partLine(ground.pin, '1')]);
  await archive(item.id);
  const { params, body } = await deeds.archiveCustomer(ground);
  await server.call(api.archiveCustomer, { params, body });
  const left = await deeds.updateWorker(ground);
  await server.call(api.updateWorker, left);
  gone = { itemId: item.id, byId: item.id, customerId: Number(params.id), personId: Number(left.params.id) };
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});
const archive = async (id: number) => {
  const body = { archived: true, version: await ground.version('item', id) };
  await server.call(api.archiveItem, { params: { id }, body });
};

type Sent = { params?: { id: number }; body?: object };
const names = Object.keys(deeds) as Deed[];
const state = async () =>
  JSON.stringify(await server.database.reader.one<{ data_version: number }>('PRAGMA data_version'));
async function refusedWithout(name: Deed, input: Sent): Promise<string> {
  const before = await state();
  const { code } = await server.refused(api[name] as Route, input as never);
  expect(await state()).toBe(before);
  return code;
}

describe('what is archived', () => {
  /**
   * Labels of anything can be printed; what a customer owns is repaired whether it is sold or not; a draft may hold what
   * it can’t be put in use with; and minutes of who left are entered after them.
   */
  const MAY: readonly string[] = ['createLabelJob itemId', 'takeIn itemId', 'saveRevision itemId', 'addTime personId'];
  /** What has nothing in stock, is on no run and was asked for under another version. */
  const NOT_THERE: readonly Deed[] = ['transfer', 'adjust', 'revalue', 'notThere', 'setReorderPoints', 'undoDocument'];
  const naming = names.filter((name) => !NOT_THERE.includes(name));

  it.each(naming)('is taken by no %s', async (name) => {
    const input = (await deeds[name](ground)) as Sent;
    for (const body of withOther(input.body, (field) => (MAY.includes(`${name} ${field}`) ? undefined : gone[field])))
      expect(await refusedWithout(name, { ...input, body: body as object }), JSON.stringify(body)).toMatch(
        /^(item-archived|customer-archived|unknown-(item|choice|person)|not-an-alternate)$/,
      );
  });
});

describe('what nobody has', () => {
  const NOBODY = 987_654_321;
  const nobody = (_: string, value: unknown) =>
    typeof value === 'number' ? NOBODY : Array.isArray(value) && typeof value[0] === 'number' ? [NOBODY] : undefined;
  const isId = (name: string) => /(^i|I)ds?$/.test(name);

  it.each(names)('is nothing to %s', async (name) => {
    const input = (await deeds[name](ground)) as Sent;
    const sent = [...withOther(input, (field, value) => (isId(field) ? nobody(field, value) : undefined))] as Sent[];
    for (const other of sent) {
      const before = await state();
      const problem = await server.refused(api[name] as Route, other as never);
      expect(problem, JSON.stringify(other)).toMatchObject({ status: expect.toSatisfy((status) => status < 500) });
      expect(await state()).toBe(before);
    }
  });
});

/** Ways in which stock of an item comes back: each uses up all of it, and says what would bring some back. */
const waysBack: Readonly<Record<string, () => Promise<readonly [itemId: number, back: () => Promise<string>]>>> = {
  'an adjustment undone': async () => {
    const item = await ground.stocked('2');
    const lines = [{ itemId: item.id, binId: ground.bin(), change: '-2' }];
    const { id } = await server.call(api.adjust, { body: { reasonId: 1, lines } });
    return [item.id, () => refusedWithout('undoDocument', { params: { id }, body: {} })];
  },
  'a shipment undone': async () => {
    const item = await ground.stocked('2');
    const { shipmentId: id } = await ground.shipped('2', '2', item);
    return [item.id, () => refusedWithout('undoDocument', { params: { id }, body: {} })];
  },
  'a finish undone': async () => {
    const [item, made] = [await ground.stocked('2'), await ground.item({ source: 'made' })];
    await ground.define(made, [partLine(item, '2')]);
    const { id } = await ground.shop.start(made, '1');
    await ground.shop.pickAll(id);
    const { version, outputBinId } = await ground.read('build', id);
    const body = { version, good: '1', outputBinId, lines: [] };
    const finish = await server.call(api.finish, { params: { id }, body });
    return [item.id, () => refusedWithout('undoDocument', { params: { id: finish.id }, body: {} })];
  },
  'a finish of what was planned before': async () => {
    const { item } = await ground.product();
    const { id } = await ground.shop.start(item, '1');
    await ground.shop.pickAll(id);
    const { version, outputBinId } = await ground.read('build', id);
    return [
      item.id,
      () => refusedWithout('finish', { params: { id }, body: { version, good: '1', outputBinId, lines: [] } }),
    ];
  },
  'a product taken apart': async () => {
    const [item, made] = [await ground.item(), await ground.item({ source: 'made' })];
    await ground.define(made, [partLine(item, '1')]);
    await ground.shop.receive(made, '1', '5');
    const { revisionId, lines } = await server.call(api.apartPlan, { params: { id: made.id } });
    const back = lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: ground.bin() }));
    const body = { itemId: made.id, revisionId, binId: ground.bin(), quantity: '1', leftover: 'spread', lines: back };
    return [item.id, () => refusedWithout('takeApart', { body })];
  },
  'a purchase order received': async () => {
    const item = await ground.item();
    const lines = [{ itemId: item.id, quantity: '2', price: '1' }];
    const order = await ground.shop.order({ supplierId: ground.supplierId, lines }, 'print');
    const come = { lineId: order.lines[0]?.id, binId: ground.bin(), quantity: '2', unitCost: '1' };
    return [item.id, () => refusedWithout('receivePurchase', { params: { id: order.id }, body: { lines: [come] } })];
  },
  'a return put back on the shelf': async () => {
    const item = await ground.stocked('2');
    const came = await ground.cameBack(item);
    const back = async () => {
      // It may come, to be decided about.
      const { id } = await server.call(api.announceReturn, { body: { arrived: true, lines: [came] } });
      const { lines } = await ground.read('return', id);
      const deed = { pieceId: lines[0]?.pieces[0]?.id, quantity: '1', outcome: 'shelf', binId: ground.bin() };
      return refusedWithout('settleReturns', { body: { deeds: [deed] } });
    };
    return [item.id, back];
  },
  'a count that finds some': async () => {
    const item = await ground.stocked('2');
    const { id } = await server.call(api.beginCount, { body: { binIds: [ground.bin()], q: item.code } });
    const { sheet } = await ground.read('count', id);
    const lines = [{ itemId: item.id, binId: ground.bin(), change: '-2' }];
    await server.call(api.adjust, { body: { reasonId: 1, lines } });
    const params = { id: sheet[0]?.id ?? 0 };
    await server.call(api.countLine, { params, body: { counted: '1', serials: [] } });
    const version = await ground.version('count', id);
    return [item.id, () => refusedWithout('approveCount', { params: { id }, body: { version } })];
  },
};

it.each(Object.keys(waysBack))('what is archived does not come back into stock by %s', async (way) => {
  const [itemId, back] = (await waysBack[way]?.()) ?? [0, async () => ''];
  await archive(itemId);
  expect(await back()).toBe('item-archived');
});

/** A record that is over, with a line and a part of its own where it has any. */
interface Ended {
  readonly id: number;
  readonly version: number;
  readonly lineId?: number | undefined;
  readonly partId?: number | undefined;
}
const build = async (id: number): Promise<Ended> => {
  const { version, lines } = await ground.read('build', id);
  return { id, version, lineId: lines[0]?.id };
};
const order = async (id: number): Promise<Ended> => {
  const { version, lines } = await ground.read('order', id);
  return { id, version, lineId: lines[0]?.id, partId: lines[0]?.parts[0]?.id };
};
const purchase = async (id: number): Promise<Ended> => {
  const { version, lines } = await ground.read('purchase', id);
  return { id, version, lineId: lines[0]?.id };
};
async function did<D extends Deed>(name: D): Promise<number> {
  const input = await deeds[name](ground);
  await server.call(api[name] as Route, input as never);
  return Number((input as { params: { id: number } }).params.id);
}

/** Records nothing more is to be done to, by the address of their deeds. */
const ended: Readonly<Record<string, () => Promise<readonly Ended[]>>> = {
  '/api/builds/:id': async () => {
    const finished = await deeds.finish(ground);
    await server.call(api.finish, { ...finished, body: { ...finished.body, good: '2' } });
    return [await build(await did('cancelBuild')), await build(Number(finished.params.id))];
  },
  '/api/orders/:id': async () => [await order(await did('cancelOrder')), await order((await ground.shipped()).id)],
  '/api/purchase-orders/:id': async () => [await purchase(await did('cancelPurchase'))],
  '/api/repairs/:id': async () => {
    const { params, version } = await ground.repair('given-back');
    return [{ id: params.id, version }];
  },
  '/api/returns/:id': async () => {
    const { id, pieceId } = await ground.returned(true);
    await server.call(api.settleReturns, { body: { deeds: [{ pieceId, quantity: '1', outcome: 'scrap' }] } });
    return [await ground.read('return', await did('callOffReturn')), await ground.read('return', id)];
  },
  '/api/counts/:id': async () => [
    await ground.read('count', await did('cancelCount')),
    await ground.read('count', await did('approveCount')),
  ],
  '/api/pick-runs/:id': async () => [await server.call(api.pickRun, { params: { id: await did('endRun') } })],
  '/api/revisions/:id': async () => {
    const retired = await deeds.retireRevision(ground);
    return [await server.call(api.retireRevision, retired)];
  },
  '/api/tasks/:id': async () => {
    const { tasks } = await ground.read('build', await did('cancelBuild'));
    return [tasks[0] ?? { id: 0, version: 0 }];
  },
};

/** What is sent, about the lines and parts of another record. */
function about(value: unknown, { version, lineId, partId }: Ended): unknown {
  if (Array.isArray(value)) return value.map((one) => about(one, { id: 0, version, lineId, partId }));
  if (!value || typeof value !== 'object') return value;
  const own: Record<string, unknown> = { version, lineId, partId, lineIds: [lineId] };
  return Object.fromEntries(
    Object.entries(value).map(([name, one]) => [name, own[name] ?? about(one, { id: 0, version, lineId, partId })]),
  );
}

describe('what is over', () => {
  /** A copy is a new order, a repair may have been given back by mistake, and a finished build teaches. */
  const MAY: readonly Deed[] = ['copyOrder', 'takeRepairBack', 'correctDefinition'];
  const path = (name: Deed) => Object.keys(ended).find((one) => api[name].path.startsWith(one));
  const over = names.filter((name) => path(name) !== undefined && !MAY.includes(name));

  it.each(over)('takes no %s', async (name) => {
    for (const record of (await ended[path(name) ?? '']?.()) ?? []) {
      const { body, ...input } = (await deeds[name](ground)) as Sent;
      const sent = { ...input, params: { id: record.id }, ...(body ? { body: about(body, record) as object } : {}) };
      expect(await refusedWithout(name, sent)).toMatch(
        /^(wrong-state|run-ended|task-over|order-has-(shipped|receipts)|more-than-(open|ordered)|not-packed|order-line-gone|not-an-alternate)$/,
      );
    }
  });
});

/**
 * Deeds that name in their body what they go on with, by the address of what it is. What was drafted to be bought for a build
 * is bought though the build is over.
 */
const naming: readonly (readonly [Deed, string, (record: Ended) => Promise<object> | object])[] = [
  ['makeRun', '/api/builds/:id', ({ id }) => ({ goals: [{ kind: 'build', id }] })],
  ['makeRun', '/api/orders/:id', ({ id }) => ({ goals: [{ kind: 'order', id }] })],
  ['setPriorities', '/api/builds/:id', ({ id }) => first('build', id)],
  ['setPriorities', '/api/orders/:id', ({ id, lineId }) => first('order', id, lineId)],
  ['buildForOrders', '/api/orders/:id', ({ partId }) => ({ chosen: [{ partId, quantity: '1' }] })],
  [
    'setBuildFor',
    '/api/orders/:id',
    async ({ partId }) => ({ ...(await deeds.setBuildFor(ground)).body, orders: [{ partId, quantity: '1' }] }),
  ],
  ['expectOn', '/api/purchase-orders/:id', ({ lineId }) => ({ lines: [{ lineId, on: '2026-12-04' }] })],
  ['changeTasks', '/api/tasks/:id', ({ id, version }) => ({ tasks: [{ id, version }], change: { personId: 2 } })],
  [
    'moveOnBoard',
    '/api/builds/:id',
    ({ id, version }) => ({ build: { id, version }, tasks: [], personId: 2, day: '2026-11-24' }),
  ],
];
const first = (kind: 'build' | 'order', id: number, lineId?: number) => ({
  lines: [{ kind, id, ...(lineId === undefined ? {} : { lineId }), was: null, rank: -1, reason: 'Fair' }],
});

it.each(naming)('what is over is named by no %s (%s)', async (name, path, body) => {
  const records = (await ended[path]?.()) ?? [];
  expect(records.length).toBeGreaterThan(0);
  for (const record of records) {
    const input = (await deeds[name](ground)) as Sent;
    expect(await refusedWithout(name, { ...input, body: await body(record) }), JSON.stringify(record)).toMatch(/./);
  }
});

it('what is over is not listed among those who go first', async () => {
  const { id, version, lines } = await ground.order();
  await server.call(api.setPriorities, { body: first('order', id) as never });
  const listed = async () =>
    (await server.call(api.priorities, {})).some((one) => one.kind === 'order' && one.id === id);
  expect(await listed()).toBe(true);
  const body = { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '2' }] };
  const shipment = await server.call(api.shipOrder, { params: { id }, body });
  expect(await listed()).toBe(false);
  await server.call(api.undoDocument, { params: { id: shipment.id }, body: {} });
  expect(await listed()).toBe(true);
});
