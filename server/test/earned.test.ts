import { api, type Item, type ReturnDetail } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** An order, its customer, its product and its job say the same of what was earned, returns taken off. */
describe('what was earned', () => {
  let server: TestServer;
  let shop: Workshop;
  let scoop: Item;
  let customerId: number;
  let reasonId: number;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    scoop = await shop.item('SCOOP');
    await shop.receive(scoop, '40', '3');
    customerId = await shop.customer('LARK');
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  async function figures(orderId: number, tag: string) {
    const order = (await server.call(api.order, { params: { id: orderId } })).earned;
    const customer = (await server.call(api.customer, { params: { id: customerId } })).earned;
    const { orders, customers, ...product } = await server.call(api.itemSales, { params: { id: scoop.id } });
    expect([customer, product]).toEqual([order, order]);
    expect([orders, customers]).toEqual([1, [{ id: customerId, name: 'LARK & Co', ...order }]]);
    const job = await server.call(api.job, { query: { tag } });
    expect([job.income, job.cost]).toEqual([order.earned, order.spent]);
    return order;
  }

  it('is what was shipped less what came back, however that was decided and undone', async () => {
    const sold = await shop.sell(customerId, [{ itemId: scoop.id, quantity: '10', price: '7.125' }]);
    const tag = 'Fair';
    await server.call(api.setJobTag, { body: { kind: 'order', id: sold.id, jobTag: tag } });
    const lineId = sold.lines[0]?.id ?? 0;
    const { version } = await server.call(api.order, { params: { id: sold.id } });
    const body = { version, lines: [{ lineId, quantity: '10', parts: [] }] };
    const { id: shipmentId } = await server.call(api.shipOrder, { params: { id: sold.id }, body });
    expect(await figures(sold.id, tag)).toMatchObject({ sold: '71.25', cost: '30', returned: '0', earned: '71.25' });
    const line = { shipmentId, lineId, quantity: '4', reasonId, condition: 'as new' as const, credit: '50' };
    const { id } = await server.call(api.announceReturn, { body: { arrived: true, lines: [line] } });
    const read = (): Promise<ReturnDetail> => server.call(api.return, { params: { id } });
    // Half of 28.50 for four that stand in the returns bin and are worth again what they left with.
    const back = { returned: '4', owed: '14.25', back: '12', earned: '57', spent: '18' };
    expect(await figures(sold.id, tag)).toMatchObject(back);
    const piece = (await read()).lines[0]?.pieces[0];
    const settle = (outcome: string, quantity: string) =>
      server.call(api.settleReturns, {
        body: { deeds: [{ pieceId: piece?.id ?? 0, quantity, outcome }] },
      } as never);
    await settle('shelf', '1');
    expect(await figures(sold.id, tag)).toMatchObject(back);
    await settle('scrap', '2');
    expect(await figures(sold.id, tag)).toMatchObject({ owed: '14.25', back: '6', spent: '24' });
    await settle('sent-back', '1');
    expect(await figures(sold.id, tag)).toMatchObject({ owed: '10.69', back: '3', earned: '60.56', spent: '27' });
    const { documents } = await read();
    for (const { id: documentId } of [...documents].reverse().slice(0, 2))
      await server.call(api.undoDocument, { params: { id: documentId }, body: {} });
    expect(await figures(sold.id, tag)).toMatchObject(back);
  });
});
