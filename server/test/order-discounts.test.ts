import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let jar: Item;
let lid: Item;
let customerId: number;

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  jar = await shop.item('JAR', { sellPrice: '9.99' });
  lid = await shop.item('LID', { sellPrice: '0.50' });
  await shop.receive(jar, '100', '1');
  await shop.receive(lid, '100', '0.1');
  customerId = await shop.customer('LARK');
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const read = (id: number) => server.call(api.order, { params: { id } });
const enter = async (more: object, lines: readonly object[]) =>
  read(
    (await server.call(api.createOrder, { body: { customerId, confirm: true, ...more, lines: lines as never } })).id,
  );
const linesOf = (order: Awaited<ReturnType<typeof read>>) =>
  order.lines.map(({ listPrice, discount, price, amount, worth }) => [listPrice, discount, price, amount, worth]);

describe('what is taken off an order', () => {
  it('comes off the price of a line, then off all of it, and the freight on top', async () => {
    const order = await enter({ orderDiscount: '50', freight: '4.5' }, [
      { itemId: jar.id, quantity: '3', discount: '10' },
      { itemId: lid.id, quantity: '4', price: '0.6' },
    ]);
    // 9.99 less 10 % is 8.991, of that half is 4.4955; a line is rounded as money is paid, and so is half of all of them.
    expect(linesOf(order)).toEqual([
      ['9.99', '10', '4.4955', '26.97', '13.49'],
      ['0.6', '0', '0.3', '2.4', '1.2'],
    ]);
    expect(order).toMatchObject({ orderDiscount: '50', takenOff: '14.69', freight: '4.5', worth: '19.18' });
    const { rows } = await server.call(api.orders, { query: {} });
    expect(rows.find(({ id }) => id === order.id)?.worth).toBe('19.18');
  });

  it('follows another discount of the order, while what was agreed stays agreed', async () => {
    const order = await enter({ orderDiscount: '10' }, [{ itemId: jar.id, quantity: '1' }]);
    await server.call(api.setPrices, {
      params: { id: jar.id },
      body: { sellPrice: '20', version: (await server.call(api.item, { params: { id: jar.id } })).version },
    });
    const [line] = order.lines;
    const save = (orderDiscount: string) =>
      read(order.id).then(({ version }) =>
        server.call(api.saveOrder, {
          params: { id: order.id },
          body: { customerId, version, orderDiscount, lines: [{ id: line?.id ?? 0, itemId: jar.id, quantity: '1' }] },
        }),
      );
    await save('20');
    expect(linesOf(await read(order.id))).toEqual([['9.99', '0', '7.992', '9.99', '7.99']]);
    await save('0');
    expect(linesOf(await read(order.id))).toEqual([['9.99', '0', '9.99', '9.99', '9.99']]);
  });

  it('goes along to a copy; split off, the freight stays with the first', async () => {
    const order = await enter({ orderDiscount: '10', freight: '7' }, [
      { itemId: lid.id, quantity: '10', discount: '20' },
      { itemId: jar.id, quantity: '1', price: '10' },
    ]);
    const copy = await server.call(api.copyOrder, { params: { id: order.id }, body: {} });
    expect(await read(copy.id)).toMatchObject({ orderDiscount: '10', freight: '7', worth: order.worth });
    const [lids] = order.lines;
    const other = await server.call(api.splitOrder, {
      params: { id: order.id },
      body: { version: order.version, lines: [{ lineId: lids?.id ?? 0, quantity: '4' }] },
    });
    const [first, second] = [await read(order.id), await read(other.id)];
    expect([first.freight, second.freight, second.orderDiscount]).toEqual(['7', '0', '10']);
    expect(linesOf(second)).toEqual([['0.5', '20', '0.36', '1.6', '1.44']]);
    expect(Number(first.worth) + Number(second.worth)).toBeCloseTo(Number(order.worth));
  });

  it('is from nothing to everything, and nothing else', async () => {
    const body = { customerId, confirm: false, lines: [{ itemId: lid.id, quantity: '1' }] };
    expect(await server.refused(api.createOrder, { body: { ...body, orderDiscount: '100.01' } })).toMatchObject({
      field: 'orderDiscount',
    });
    expect(await server.refused(api.createOrder, { body: { ...body, freight: '-1' } })).toMatchObject({
      field: 'freight',
    });
    const lines = [{ itemId: lid.id, quantity: '1', discount: '-5' }];
    expect(await server.refused(api.createOrder, { body: { ...body, lines } })).toMatchObject({
      field: 'lines.0.discount',
    });
    expect((await enter({ orderDiscount: '100' }, body.lines)).worth).toBe('0');
  });
});
