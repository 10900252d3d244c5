import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** Finishes and picks for orders that are undone after the orders have changed. */
describe('undoing around builds for orders', () => {
  let server: TestServer;
  let shop: Workshop;
  let [plank, hive]: Item[] = [];
  let customerId: number;
  let reasonId: number;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    plank = await shop.item('PLANK');
    hive = await shop.item('HIVE', { source: 'made', bin: 2 });
    await shop.receive(plank, '500', '3');
    await shop.define(hive, [[plank, '4']]);
    customerId = await shop.customer('LARK');
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'reject')?.id ?? 0;
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  const order = (id: number) => server.call(api.order, { params: { id } });
  const build = (id: number) => server.call(api.build, { params: { id } });
  const undo = (id: number) => ({ params: { id }, body: {} });
  const sell = (...quantities: string[]) =>
    shop.sell(
      customerId,
      quantities.map((quantity) => ({ itemId: hive?.id ?? 0, quantity, price: '100' })),
    );
  type Sold = Awaited<ReturnType<typeof sell>>;

  /** A build of all of an order, on the bench with its parts. */
  async function begun(sold: Sold) {
    const chosen = sold.lines.map(({ parts, quantity }) => ({ partId: parts[0]?.id ?? 0, quantity }));
    const { builds } = await server.call(api.buildForOrders, { body: { chosen } });
    const id = builds[0]?.id ?? 0;
    await server.call(api.startBuild, { params: { id }, body: { version: builds[0]?.version ?? 0 } });
    await shop.pickAll(id);
    return id;
  }
  const finish = async (id: number, good: string, rejected = '0') =>
    server.call(api.finish, {
      params: { id },
      body: {
        version: (await build(id)).version,
        good,
        rejected,
        rejectCost: 'written-off',
        rejectReasonId: rejected === '0' ? null : reasonId,
        outputBinId: shop.bin(2),
        lines: [],
      },
    });
  const onHand = async () => (await shop.stockOf(hive as Item)).onHand;

  it('brings a finish back whose rejected pieces were for a line that is no more', async () => {
    const sold = await sell('2', '1');
    const id = await begun(sold);
    const done = await finish(id, '0', '3');
    const { version } = await order(sold.id);
    const [, kept] = sold.lines;
    await server.call(api.saveOrder, {
      params: { id: sold.id },
      body: { version, customerId, lines: [{ id: kept?.id ?? 0, itemId: hive?.id ?? 0, quantity: '1', price: '100' }] },
    });
    await server.call(api.undoDocument, undo(done.id));
    expect(await build(id)).toMatchObject({ state: 'on-bench', rejected: '0', orders: [{ quantity: '1', kept: '0' }] });
  });

  it('brings a finish back after its order was cancelled or unpacked, in all or in part', async () => {
    const sold = await sell('3');
    const id = await begun(sold);
    const before = await onHand();
    const done = await finish(id, '3');
    const params = { id: sold.id };
    await server.call(api.cancelOrder, {
      params,
      body: { version: (await order(sold.id)).version, reason: 'Too late' },
    });
    expect(await onHand()).toBe(String(Number(before) + 3));
    await server.call(api.undoDocument, undo(done.id));
    expect(await onHand()).toBe(before);
    expect(await build(id)).toMatchObject({ state: 'on-bench', finished: '0' });

    const other = await sell('3');
    const next = await begun(other);
    const again = await finish(next, '3');
    const partId = other.lines[0]?.parts[0]?.id ?? 0;
    await server.call(api.unpackOrder, {
      params: { id: other.id },
      body: { lines: [{ partId, quantity: '2', binId: null }] },
    });
    await server.call(api.undoDocument, undo(again.id));
    expect(await onHand()).toBe(before);
    expect(await order(other.id)).toMatchObject({ lines: [{ inParcel: '0' }] });
    expect(await build(next)).toMatchObject({ finished: '0', orders: [{ kept: '0' }] });
  });

  it('does not take for its own what another build made, once its own has left', async () => {
    const sold = await sell('2');
    const id = await begun(sold);
    const done = await finish(id, '2');
    const spare = await shop.start(hive as Item, '2');
    await shop.pickAll(spare.id);
    await finish(spare.id, '2');
    const body = {
      version: (await order(sold.id)).version,
      lines: [{ lineId: sold.lines[0]?.id ?? 0, quantity: '2' }],
    };
    await server.call(api.shipOrder, { params: { id: sold.id }, body });
    expect(await server.refused(api.undoDocument, undo(done.id))).toMatchObject({ code: 'undo-goods-gone' });
  });

  it('puts what is left over where the pick that stands took it from', async () => {
    await shop.receive(plank as Item, '20', '3', 1);
    const { id, lines } = await shop.start(hive as Item, '1');
    const pick = (index: number) =>
      server.call(api.pick, {
        params: { id },
        body: { lines: [{ lineId: lines[0]?.id ?? 0, binId: shop.bin(index), quantity: '4' }] },
      });
    const wrong = await pick(0);
    await server.call(api.undoDocument, undo(wrong.id));
    await pick(1);
    const { version } = await build(id);
    await server.call(api.cancelBuild, { params: { id }, body: { version } });
    const bins = await server.call(api.itemBins, { params: { id: plank?.id ?? 0 } });
    expect(bins.find(({ binId }) => binId === shop.bin(1))?.quantity).toBe('20');
  });

  it('unpacks to where the pick that stands took it from', async () => {
    const sold = await shop.sell(customerId, [{ itemId: plank?.id ?? 0, quantity: '5', price: '9' }]);
    const partId = sold.lines[0]?.parts[0]?.id ?? 0;
    const pack = (index: number) =>
      server.call(api.packOrder, {
        params: { id: sold.id },
        body: { lines: [{ partId, binId: shop.bin(index), quantity: '5' }] },
      });
    const right = await pack(1);
    await server.call(api.undoDocument, undo(right.id));
    await pack(1);
    const there = (await server.call(api.itemBins, { params: { id: plank?.id ?? 0 } })).find(
      ({ binId }) => binId === shop.bin(1),
    );
    const unpack = { params: { id: sold.id }, body: { lines: [{ partId, quantity: '5', binId: null }] } };
    const wrong = await server.call(api.unpackOrder, unpack).then(() => pack(0));
    await server.call(api.undoDocument, undo(wrong.id));
    await pack(1);
    await server.call(api.unpackOrder, unpack);
    const bins = await server.call(api.itemBins, { params: { id: plank?.id ?? 0 } });
    expect(bins.find(({ binId }) => binId === shop.bin(1))?.quantity).toBe(String(Number(there?.quantity) + 5));
  });

  it('refuses to undo a pick whose goods went back, though the same stand beside them for another line', async () => {
    const twice = [1, 2].map(() => ({ itemId: plank?.id ?? 0, quantity: '5', price: '9' }));
    const sold = await shop.sell(customerId, twice);
    const [first = 0, second = 0] = sold.lines.map(({ parts }) => parts[0]?.id ?? 0);
    const pack = (partId: number) =>
      server.call(api.packOrder, {
        params: { id: sold.id },
        body: { lines: [{ partId, binId: shop.bin(0), quantity: '5' }] },
      });
    const own = await pack(first);
    await pack(second);
    const back = { partId: first, quantity: '5', binId: null };
    await server.call(api.unpackOrder, { params: { id: sold.id }, body: { lines: [back] } });
    expect(await server.refused(api.undoDocument, undo(own.id))).toMatchObject({
      code: 'undo-goods-gone',
      facts: { lines: [{ code: 'PLANK', wanted: '5', there: '0' }] },
    });
  });
});
