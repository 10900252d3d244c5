import { api } from '@yosegi/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

it('a run for one store tells what lies in the next, and promises none of it twice', async () => {
  const jar = await shop.item('JAR');
  await shop.receive(jar, '2', '1');
  const { id: barn } = await server.call(api.createStore, { body: { code: 'BARN', name: 'Barn' } });
  const bin = await server.call(api.createBin, { params: { id: barn }, body: { code: 'X1', pickingOrder: 1 } });
  await server.call(api.receive, {
    body: { kind: 'receipt', lines: [{ itemId: jar.id, binId: bin.id, quantity: '6', unitCost: '1' }] },
  });
  const customerId = await shop.customer('LARK');
  const line = (quantity: string) => ({ itemId: jar.id, quantity, price: '2' });
  const { id } = await shop.sell(customerId, [line('5'), line('5')]);
  const goals = [{ kind: 'order' as const, id }];
  const run = await server.call(api.makeRun, { body: { storeId: shop.store.id, goals } });
  const { missing } = await server.call(api.pickRun, { params: { id: run.id } });
  expect(missing.map(({ quantity, elsewhere }) => [quantity, elsewhere])).toEqual([
    ['3', [{ store: 'Barn', quantity: '3' }]],
    ['5', [{ store: 'Barn', quantity: '3' }]],
  ]);
});
