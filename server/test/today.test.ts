import { api, type Item, MOST_ON_TODAY } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** More builds than a page of any size holds, and more orders than are shown. */
const MANY = 1010;
const SOLD = 110;

describe('Today, with more work open than a page holds', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let box: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART', { sellPrice: '3' });
    box = await shop.item('BOX', { source: 'made', sellPrice: '9' });
    await shop.define(box, [[part, '1']]);
    await shop.receive(part, '2', '1');
    const customerId = await shop.customer('SHOP');
    const order = { customerId, confirm: true, wantedOn: '2026-11-30' };
    for (let times = 0; times < SOLD; times++)
      await server.call(api.createOrder, {
        body: { ...order, lines: [{ itemId: part.id, quantity: '1', price: null }] },
      });
    const builds = Array.from({ length: 101 }, () => ({ itemId: box.id, quantity: '1', due: '2026-12-01' }));
    for (let times = 0; times < 10; times++)
      await server.call(api.planBuilds, { body: { builds: builds.slice(0, 100) } });
    await server.call(api.planBuilds, { body: { builds: builds.slice(0, MANY - 1000) } });
  });
  afterAll(() => server.close());

  it('counts all of it, and shows the first of each list', async () => {
    const today = await server.call(api.today, {});
    expect(today.counts).toMatchObject({ today: 0, waiting: MANY, atRisk: SOLD - 2, orders: 2 });
    expect([today.waiting, today.atRisk].map(({ length }) => length)).toEqual([MOST_ON_TODAY, MOST_ON_TODAY]);
    expect(today.holdUps.map(({ code, builds, orders }) => [code, builds, orders])).toEqual([['PART', MANY, SOLD - 2]]);
    expect((await server.call(api.board, {})).cards).toHaveLength(MANY);
    const promised = await server.call(api.promisedTo, { params: { id: part.id } });
    expect(promised).toHaveLength(MANY + SOLD);
    expect(await server.call(api.coming, { params: { id: box.id } })).toHaveLength(MANY);
  });

  it('settles the oldest of more things to fix than a page holds', async () => {
    const cheap = await shop.item('CHEAP');
    await shop.receive(cheap, '1', '1');
    const reasonId = 1;
    const lines = [{ itemId: cheap.id, binId: shop.bin(0), change: '-1' }];
    const body = { reasonId, lines, override: { reason: 'In the van' } };
    for (let times = 0; times < 203; times++) await server.call(api.adjust, { body });
    const open = await server.call(api.putRight, {});
    const { counts, putRight } = await server.call(api.today, {});
    expect([open.length, counts.putRight, putRight.length]).toEqual([202, 202, MOST_ON_TODAY]);
    const oldest = Math.min(...open.map(({ id }) => id));
    await server.call(api.settle, { params: { id: oldest }, body: { by: 'adjustment', reasonId, remark: '' } });
    expect(await server.call(api.putRight, {})).toHaveLength(0);
    expect(await server.verify()).toEqual([]);
  });
});
