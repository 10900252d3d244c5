import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/** Several lines of one order that draw on the same goods: what the order says can leave, leaves. */
describe('an order of several lines of the same goods', () => {
  let server: TestServer;
  let shop: Workshop;
  let [jar, wax, kit, unit]: Item[] = [];
  let customerId: number;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR');
    wax = await shop.item('WAX', { tracking: 'lot', lotOrder: 'free' });
    unit = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
    kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
    customerId = await shop.customer('LARK');
    const draft = await server.call(api.createDefinition, { body: { itemId: kit.id } });
    const params = { id: draft.id };
    // One part on two lines of the kit.
    const lines = [partLine(jar, '2'), partLine(jar, '1'), partLine(wax, '1')];
    const saved = await server.call(api.saveRevision, {
      params,
      body: { version: draft.version, outputQuantity: '1', lines },
    });
    await server.call(api.putInUse, { params, body: { version: saved.version } });
    await shop.behave(kit, { made: 'packed-per-order' });
    await shop.receive(unit, '2', '80', 1, { serials: ['S1', 'S2'] });
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  const line = (item: Item | undefined, quantity: string) => ({ itemId: item?.id ?? 0, quantity, price: '20' });
  /** Ships everything that the order says can be shipped, and says what is then left open. */
  async function shipAll(id: number, parts: (index: number) => object[] = () => []) {
    const order = await server.call(api.order, { params: { id } });
    const lines = order.lines.map(({ id: lineId, canShip }, index) => ({
      lineId,
      quantity: canShip,
      parts: parts(index),
    }));
    const body = { version: order.version, lines } as never;
    const sent = await server.call(api.shipOrder, { params: { id }, body });
    await server.call(api.undoDocument, { params: { id: sent.id }, body: {} });
    return sent.openLines;
  }

  it('leaves from whatever bins have it: two lines, a kit beside a loose line, a part twice in a kit, lots', async () => {
    await shop.receive(jar as Item, '5', '1');
    await shop.receive(jar as Item, '7', '1', 2);
    await shop.receive(wax as Item, '2', '3', 0, { lot: 'L1', bestBefore: '2027-01-01' });
    await shop.receive(wax as Item, '2', '3', 1, { lot: 'L2', bestBefore: '2027-02-01' });
    for (const lines of [
      [line(jar, '4'), line(jar, '8')],
      [line(kit, '2'), line(jar, '6')],
      [line(kit, '4')],
      [line(kit, '1'), line(wax, '3')],
      [line(wax, '3'), line(wax, '1')],
    ]) {
      const { id } = await shop.sell(customerId, lines);
      expect(await shipAll(id)).toBe(0);
      const { version } = await server.call(api.order, { params: { id } });
      await server.call(api.cancelOrder, { params: { id }, body: { version, reason: 'Tried' } });
    }
  });

  it('leaves where one line names the lot that another would have taken first', async () => {
    const { id, lines } = await shop.sell(customerId, [line(wax, '2'), line(wax, '2')]);
    const partId = lines[1]?.parts[0]?.id;
    expect(await shipAll(id, (index) => (index === 1 ? [{ partId, lot: 'L1' }] : []))).toBe(0);
  });

  it('leaves from its parcel with its own units', async () => {
    const { id, lines } = await shop.sell(customerId, [line(unit, '1'), line(unit, '1')]);
    for (const [index, serial] of ['S2', 'S1'].entries()) {
      const partId = lines[index]?.parts[0]?.id ?? 0;
      const packed = { partId, binId: shop.bin(1), quantity: '1', lot: null, serials: [serial] };
      await server.call(api.packOrder, { params: { id }, body: { lines: [packed] } });
    }
    expect(await shipAll(id)).toBe(0);
  });
});
