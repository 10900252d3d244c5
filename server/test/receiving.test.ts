import { api, type Item, type PurchaseOrder, type Supplier } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

const clock = { at: '2026-11-23T09:00:00', now: () => new Date(clock.at) };
let server: TestServer;
let shop: Workshop;
let supplier: Supplier;
let wood: Item;

beforeAll(async () => {
  server = await TestServer.start(undefined, clock);
  shop = await Workshop.open(server);
  supplier = await server.call(api.createSupplier, {
    body: { code: 'NORTH', name: 'North Shed', email: 'sales@north.example' },
  });
  wood = await shop.item('WOOD');
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const order = (quantity: string, more: object = {}, item = wood) =>
  shop.order({ supplierId: supplier.id, lines: [{ itemId: item.id, quantity, price: '2', ...more }] }, 'mailbox');
const read = ({ id }: PurchaseOrder) => server.call(api.purchase, { params: { id } });
const receive = (own: PurchaseOrder, pieces: object[], more: object = {}) => ({
  params: { id: own.id },
  body: {
    lines: pieces.map((piece) => ({
      ...{ lineId: own.lines[0]?.id ?? 0, binId: shop.bin(0), unitCost: '2', quantity: '1' },
      ...piece,
    })),
    ...more,
  },
});
const undo = (id: number) => server.posted(api.undoDocument, { params: { id }, body: {} });

describe('receiving', () => {
  it('adds up the pieces of one line, also where together they are more than was ordered', async () => {
    const own = await order('10');
    const pieces = [{ quantity: '4' }, { quantity: '3', binId: shop.bin(1) }, { quantity: '4', binId: shop.bin(2) }];
    expect(await server.refused(api.receivePurchase, receive(own, pieces))).toMatchObject({
      code: 'over-delivery',
      field: 'lines.2.quantity',
      facts: { over: '1' },
    });
    const taken = await server.withOrder(api.receivePurchase, receive(own, pieces.slice(0, 2)));
    expect(taken.order.lines[0]).toMatchObject({ received: '7', open: '3' });
    expect((await server.document(taken.document)).movements.map(({ quantity }) => quantity)).toEqual(['4', '3']);
    expect((await shop.stockOf(wood)).coming).toBe('3');
  });

  it('undone opens its line and its announced delivery again, also what it had closed', async () => {
    const own = await order('6');
    const params = { id: own.id };
    const announced = await server.did('purchase', api.answerAsSupplier, {
      params,
      body: { answer: 'deliver-part', days: 7 },
    });
    const mail = announced.announcedDelivery;
    const body = { deliveryNote: mail?.deliveryNote ?? '', mailId: mail?.mailId ?? null };
    const part = receive(own, [{ quantity: '3', closeRest: true }], body);
    const taken = await server.withOrder(api.receivePurchase, part);
    expect(taken.order).toMatchObject({ state: 'closed', announced: false });
    expect(await server.refused(api.receivePurchase, part)).toMatchObject({ code: 'delivery-received' });
    await undo(taken.document.id);
    const again = await read(own);
    expect(again).toMatchObject({ announced: true, announcedDelivery: { mailId: mail?.mailId } });
    expect(again.lines[0]).toMatchObject({ received: '0', open: '6', closed: false });
    const anew = await server.withOrder(api.receivePurchase, part);
    expect(anew.order).toMatchObject({ state: 'closed', announced: false });
  });

  it('keeps an order from being cancelled, until it is undone', async () => {
    const own = await order('5');
    const taken = await server.withOrder(api.receivePurchase, receive(own, [{ quantity: '2' }]));
    const cancel = (version: number) => ({ params: { id: own.id }, body: { version } });
    expect(await server.refused(api.cancelPurchase, cancel(taken.order.version))).toMatchObject({
      code: 'order-has-receipts',
    });
    await undo(taken.document.id);
    const free = await read(own);
    expect(await server.did('purchase', api.cancelPurchase, cancel(free.version))).toMatchObject({
      state: 'cancelled',
    });
  });
});

describe('the day something is expected', () => {
  it('is not late on the day itself, and no day at all once it has passed', async () => {
    const felt = await shop.item('FELT');
    const own = await order('5', { wantedOn: '2026-11-25' }, felt);
    const late = async () => ({
      order: (await read(own)).late,
      line: (await read(own)).lines[0]?.late,
      listed: (await server.call(api.purchases, { query: { show: 'late' } })).rows.some(({ id }) => id === own.id),
      coming: (await server.call(api.coming, { params: { id: felt.id } }))[0]?.late,
      today: (await server.call(api.today, {})).counts.lateOrders,
      day: (await server.call(api.snapshot, { query: {} })).supplies.find(({ itemId }) => itemId === felt.id)?.on,
    });
    clock.at = '2026-11-25T23:59:00';
    const inTime = { order: false, line: false, listed: false, coming: false, today: 0, day: '2026-11-25' };
    expect(await late()).toEqual(inTime);
    clock.at = '2026-11-26T00:00:00';
    const overdue = { order: true, line: true, listed: true, coming: true, today: 1, day: null };
    expect(await late()).toEqual(overdue);
    await server.call(api.receivePurchase, receive(own, [{ quantity: '5' }]));
    expect(await late()).toMatchObject({ order: false, line: false, listed: false, today: 0 });
    clock.at = '2026-11-23T09:00:00';
  });

  it('is measured by the first promise, whatever was said later', async () => {
    const slow = await server.call(api.createSupplier, { body: { code: 'SLOW', name: 'Slow & Sons' } });
    const cord = await shop.item('CORD');
    const buy = async (promises: string[], comes: string) => {
      clock.at = '2026-11-23T09:00:00';
      const lines = [{ itemId: cord.id, quantity: '5', price: '1' }];
      let own = await shop.order({ supplierId: slow.id, lines }, 'print');
      for (const on of promises) {
        const body = { version: own.version, lines: [{ lineId: own.lines[0]?.id ?? 0, quantity: '5', on }] };
        own = await server.did('purchase', api.confirmPurchase, { params: { id: own.id }, body });
      }
      clock.at = `${comes}T12:00:00`;
      await server.call(api.receivePurchase, receive(own, [{ quantity: '5' }]));
      return (await server.call(api.supplier, { params: { id: slow.id } })).learnt;
    };
    expect(await buy(['2026-12-01', '2026-12-09'], '2026-12-09')).toMatchObject({ onTime: 0, withDay: 1 });
    expect(await buy(['2026-12-01'], '2026-12-01')).toMatchObject({ onTime: 1, withDay: 2 });
    clock.at = '2026-11-23T09:00:00';
  });
});

describe('what is not bought', () => {
  it('is not on the buy list: what is made here, however short', async () => {
    const [lid, both] = [await shop.item('LID', { source: 'made' }), await shop.item('BOTH', { source: 'both' })];
    const tin = await shop.item('TIN', { source: 'made' });
    await shop.define(tin, [
      [lid, '1'],
      [both, '1'],
    ]);
    await shop.plan(tin, '4');
    const codes = (await server.call(api.buyList, { query: {} })).map(({ code }) => code);
    expect(codes).toContain('BOTH');
    expect(codes).not.toContain('LID');
  });

  it('is a draft without lines: it stays a draft and is not over', async () => {
    const empty = await shop.order({ supplierId: supplier.id, lines: [] });
    expect(await read(empty)).toMatchObject({ state: 'draft', late: false, backOrder: false });
    const listed = async (show: 'draft' | 'over') =>
      (await server.call(api.purchases, { query: { show } })).rows.some(({ id }) => id === empty.id);
    expect([await listed('draft'), await listed('over')]).toEqual([true, false]);
  });
});
