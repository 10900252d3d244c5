import { api, type Item, type Order } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('what was changed in an order', () => {
  let server: TestServer;
  let shop: Workshop;
  let jar: Item;
  let lid: Item;
  let customerId: number;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR', { sellPrice: '3' });
    lid = await shop.item('LID', { sellPrice: '1' });
    customerId = await shop.customer('LARK');
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  const read = (id: number) => server.call(api.order, { params: { id } });
  const told = ({ changes }: Order) => changes.map(({ name, before, after }) => `${name} ${before} ${after}`);
  const save = async ({ id, version, lines }: Order, more: object[], others = lines) => {
    const kept = others.map((line) => ({ id: line.id, itemId: line.itemId, quantity: line.quantity }));
    await server.call(api.saveOrder, {
      params: { id },
      body: { customerId, version, lines: [...kept, ...more] as never },
    });
    return read(id);
  };

  it('is told with who and when, the newest first; nothing where nothing was', async () => {
    const sold = await shop.sell(customerId, [{ itemId: jar.id, quantity: '5' }] as never);
    expect(sold.changes).toEqual([]);
    const same = await save(sold, []);
    expect(same.changes).toEqual([]);
    const [line] = same.lines;
    const more = await save(same, [{ id: line?.id, itemId: jar.id, quantity: '8' }], []);
    expect(more.changes).toMatchObject([
      { person: 'Mo Owner', name: jar.name, unit: jar.unit, before: '5', after: '8' },
    ]);
    const other = await save(more, [{ id: line?.id, itemId: lid.id, quantity: '8' }], []);
    const after = [`${lid.name} 0 8`, `${jar.name} 8 0`, `${jar.name} 5 8`];
    expect(told(other)).toEqual(after);
  });

  it('is what was given up and what went to an order of its own, too', async () => {
    const lines = [
      { itemId: jar.id, quantity: '5' },
      { itemId: lid.id, quantity: '9' },
    ];
    const sold = await shop.sell(customerId, lines as never);
    const [jars, lids] = sold.lines.map(({ id }) => id);
    const body = { version: sold.version, lines: [{ lineId: lids ?? 0, quantity: '4' }] };
    const { id } = await server.call(api.splitOrder, { params: { id: sold.id }, body });
    expect((await read(id)).changes).toEqual([]);
    const rest = await read(sold.id);
    expect(told(rest)).toEqual([`${lid.name} 9 5`]);
    const given = { version: rest.version, lineIds: [jars ?? 0], reason: 'no more' };
    await server.call(api.dropOrder, { params: { id: sold.id }, body: given });
    expect(told(await read(sold.id))).toEqual([`${jar.name} 5 0`, `${lid.name} 9 5`]);
  });
});
