import { api, type Item } from '@yosegi/contract';
import { type Money, parseDecimal, type Quantity } from '@yosegi/core/number';
import {
  type OrderDocument,
  readDespatchAdvice,
  readOrderResponse,
  writeOrder,
  writeOrderCancellation,
  writeOrderChange,
} from '@yosegi/core/ubl';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let jar: Item;
let bell: Item;

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  jar = await shop.item('JAR', { sellPrice: '3', barcode: '4006381333931' });
  bell = await shop.item('BELL', { sellPrice: '20', tracking: 'serial' });
  await shop.receive(jar, '100', '1');
  await shop.receive(bell, '2', '7', 0, { serials: ['B1', 'B2'] });
  await shop.customer('LARK', { email: 'orders@lark.example' });
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const line = (id: string, supplierCode: string, quantity: string, price: string, more: object = {}) => ({
  id,
  quantity: parseDecimal(quantity) as Quantity,
  unit: 'each',
  price: parseDecimal(price) as Money,
  wantedOn: null,
  name: `Their ${id}`,
  code: '',
  supplierCode,
  gtin: null,
  ...more,
});
const document = (number: string, lines: OrderDocument['lines'], more: Partial<OrderDocument> = {}): OrderDocument => ({
  number,
  issuedOn: '2026-11-25',
  currency: 'EUR',
  note: '',
  wantedOn: '2026-12-12',
  buyer: { name: 'Lark & Co', address: ['Lane 1'], email: 'orders@lark.example' },
  buyerCode: 'LARK',
  deliverTo: [],
  seller: { name: 'Us', address: [], email: null },
  sellerCode: '',
  lines,
  ...more,
});
const take = (content: string) => server.call(api.takeOrderMessage, { body: { content } });
const refused = (content: string) => server.refused(api.takeOrderMessage, { body: { content } });
const order = (id: number) => server.call(api.order, { params: { id } });
const textOf = async (path: string) => (await server.fetch(path)).text();

describe('an order that comes as a message', () => {
  it('is confirmed at our own prices, and the same message again is the same order', async () => {
    const xml = writeOrder(document('P-1', [line('10', 'jar', '5', '3'), line('20', '', '2', '20', { code: 'BELL' })]));
    const taken = await take(xml);
    expect(taken).toMatchObject({ standing: 'open', isNew: true });
    expect(await order(taken.id)).toMatchObject({
      reference: 'P-1',
      wantedOn: '2026-12-12',
      lines: [
        { code: 'JAR', quantity: '5', priceFrom: 'own' },
        { code: 'BELL', quantity: '2', price: '20' },
      ],
    });
    expect(await take(xml)).toMatchObject({ id: taken.id, isNew: false });
    expect(await refused(writeOrder(document('P-1', [line('10', 'JAR', '6', '3')])))).toMatchObject({
      code: 'order-sent-before',
      facts: { theirs: 'P-1', number: taken.number },
    });
    const response = readOrderResponse(await textOf(`/api/orders/${taken.id}/response.xml`));
    expect(response).toMatchObject({ number: taken.number, order: 'P-1', lines: [{ id: '10' }, { id: '20' }] });
    const sold = await order(taken.id);
    const [jars, bells] = sold.lines;
    const shipment = await server.call(api.shipOrder, {
      params: { id: taken.id },
      body: {
        version: sold.version,
        carrier: 'Cart',
        lines: [
          { lineId: jars?.id ?? 0, quantity: '3' },
          {
            lineId: bells?.id ?? 0,
            quantity: '2',
            parts: [{ partId: bells?.parts[0]?.id ?? 0, serials: ['B1', 'B2'] }],
          },
        ],
      },
    });
    expect(readDespatchAdvice(await textOf(`/api/shipments/${shipment.id}/despatch.xml`))).toMatchObject({
      number: shipment.number,
      order: 'P-1',
      lines: [
        { orderLine: '10', quantity: 3_000_000 },
        { orderLine: '20', serials: ['B1', 'B2'] },
      ],
    });
    await refused(writeOrderCancellation({ ...document('P-1', []), why: 'too late' })).then((problem) =>
      expect(problem.code).toBe('order-has-shipped'),
    );
  });

  it('goes where it says, on its sheet, its label and its despatch advice', async () => {
    const sent = document('P-9', [line('1', 'JAR', '1', '3')], { deliverTo: ['Gate 3', 'Hollowmere'] });
    const { id } = await take(writeOrder(sent));
    expect(await order(id)).toMatchObject({ deliverTo: 'Gate 3\nHollowmere' });
    // A change that says nothing of it leaves it, and so does our own hand on another field.
    await take(writeOrderChange({ ...sent, deliverTo: [], lines: [line('1', 'JAR', '2', '3')] }, 1));
    const sold = await order(id);
    expect(sold).toMatchObject({ deliverTo: 'Gate 3\nHollowmere', lines: [{ quantity: '2' }] });
    const lines = [{ lineId: sold.lines[0]?.id ?? 0, quantity: '2' }];
    const shipped = await server.call(api.shipOrder, { params: { id }, body: { version: sold.version, lines } });
    expect(await textOf(`/api/shipments/${shipped.id}/despatch.xml`)).toMatch(/<cbc:Line>Gate 3<[\s\S]*Hollowmere/);
    const copy = await server.call(api.copyOrder, { params: { id }, body: {} });
    expect(await order(copy.id)).toMatchObject({ deliverTo: 'Gate 3\nHollowmere' });
    const job = await server.call(api.createLabelJob, { body: { of: { shipmentId: shipped.id } } });
    const { labels } = await server.call(api.labelJob, { params: { id: job.id } });
    expect(JSON.stringify(labels)).toContain('Gate 3');
  });

  it('waits as a quote where its prices are not ours, and promises nothing until it was looked at', async () => {
    const taken = await take(writeOrder(document('P-2', [line('1', 'JAR', '5', '2.5')])));
    expect(taken.standing).toBe('quote');
    expect(await order(taken.id)).toMatchObject({ lines: [{ price: '2.5', priceFrom: 'typed' }] });
    expect(readOrderResponse(await textOf(`/api/orders/${taken.id}/response.xml`))).toMatchObject({
      note: 'Not confirmed yet.',
      lines: [{ promisedOn: null }],
    });
  });

  it('is changed line by line as they call them, and cancelled', async () => {
    const sent = document('P-3', [line('1', 'JAR', '5', '3'), line('2', 'JAR', '1', '3')]);
    const { id } = await take(writeOrder(sent));
    const before = (await order(id)).lines.map((own) => own.id);
    const change = { ...sent, wantedOn: null, lines: [line('2', 'JAR', '4', '3'), line('3', 'BELL', '1', '20')] };
    await take(writeOrderChange(change, 1));
    const after = await order(id);
    expect(after).toMatchObject({ wantedOn: null, lines: [{ id: before[1], quantity: '4' }, { code: 'BELL' }] });
    await take(writeOrderCancellation({ ...sent, why: 'Found another' }));
    expect(await order(id)).toMatchObject({ standing: 'cancelled', reason: 'Found another' });
    expect(await refused(writeOrderChange(change, 2))).toMatchObject({ code: 'their-order-unknown' });
  });

  it('is about the whole of what was split here: cancelled whole, and changed by hand', async () => {
    const sent = document('P-S', [line('1', 'JAR', '5', '3'), line('2', 'JAR', '2', '3')]);
    const { id, number } = await take(writeOrder(sent));
    const { version, lines } = await order(id);
    const body = { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '5' }], wantedOn: null };
    const other = await server.call(api.splitOrder, { params: { id }, body });
    const problem = await refused(writeOrderChange({ ...sent, lines: [line('1', 'JAR', '6', '3')] }, 1));
    expect(problem).toMatchObject({ code: 'their-order-split', facts: { orders: [number, other.number] } });
    expect((await order(other.id)).lines).toMatchObject([{ quantity: '5' }]);
    expect((await order(id)).lines).toMatchObject([{ quantity: '2' }]);
    await take(writeOrderCancellation({ ...sent, why: 'Found another' }));
    expect([(await order(id)).standing, (await order(other.id)).standing]).toEqual(['cancelled', 'cancelled']);
    expect((await refused(writeOrderCancellation({ ...sent, why: 'Again' }))).code).toBe('their-order-unknown');
  });

  it('is answered by lots with how much came of each', async () => {
    const wax = await shop.item('WAX', { tracking: 'lot', sellPrice: '5' });
    await shop.receive(wax, '2', '1', 0, { lot: 'L1', bestBefore: '2027-01-01' });
    await shop.receive(wax, '3', '1', 1, { lot: 'L2', bestBefore: '2027-02-01' });
    const { id } = await take(writeOrder(document('P-L', [line('7', 'WAX', '4', '5')])));
    const { version, lines } = await order(id);
    const body = { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '4' }] };
    const shipment = await server.call(api.shipOrder, { params: { id }, body });
    const xml = await textOf(`/api/shipments/${shipment.id}/despatch.xml`);
    expect(readDespatchAdvice(xml).lines).toMatchObject([
      { orderLine: '7', quantity: 2_000_000, lot: 'L1', bestBefore: '2027-01-01' },
      { orderLine: '7', quantity: 2_000_000, lot: 'L2', bestBefore: '2027-02-01' },
    ]);
  });

  it('of a new person makes them a customer; an item nobody knows, another unit or nothing at all is refused', async () => {
    const buyer = { name: 'Ada of the web', address: ['Street 1'], email: 'ada@web.example' };
    const { id } = await take(
      writeOrder(document('W-1', [line('1', '', '1', '3', { gtin: jar.barcode })], { buyer, buyerCode: '' })),
    );
    const { customerId } = await order(id);
    expect(await server.call(api.customer, { params: { id: customerId } })).toMatchObject({
      name: buyer.name,
      email: buyer.email,
      billing: 'Street 1',
    });
    // A code of their own, also where somebody has it already.
    const codeOf = async (who: number) => (await server.call(api.customer, { params: { id: who } })).code;
    expect(await codeOf(customerId)).toBe(`WEB-${customerId}`);
    await shop.customer(`web-${customerId + 2}`);
    const next = { ...buyer, name: 'Bea of the web', email: 'bea@web.example' };
    const later = await take(writeOrder(document('W-2', [line('1', 'JAR', '1', '3')], { buyer: next, buyerCode: '' })));
    expect(await codeOf((await order(later.id)).customerId)).toBe(`WEB-${customerId + 2}-2`);
    expect(await refused(writeOrder(document('P-4', [line('1', 'NONE', '1', '3')])))).toMatchObject({
      code: 'their-item-unknown',
      facts: { code: 'NONE', line: '1' },
    });
    const code = async (own: OrderDocument) => (await refused(writeOrder(own))).code;
    expect(await code(document('P-5', [line('1', 'JAR', '1', '3', { unit: 'kg' })]))).toBe('ubl-unreadable');
    expect(await code(document('P-6', []))).toBe('ubl-unreadable');
    expect(await code(document('P-7', [line('1', 'JAR', '-1', '3')]))).toBe('not-positive');
    expect(await code(document('P-8', [line('1', 'JAR', '0.5', '3')]))).toBe('too-many-decimals');
    expect((await refused('<Invoice><ID>1</ID></Invoice>')).code).toBe('ubl-unreadable');
  });
});

describe('a message that takes long to read', () => {
  it('holds up nobody, and whose it is is served in turn', async () => {
    const content = `<Order><ID>1</ID>${'<x a="1">&amp;</x>'.repeat(19_000)}</Order>`;
    let reading = 3;
    const told = Promise.all(
      Array.from({ length: reading }, async () => {
        const { code } = await server.refused(api.takeOrderMessage, { body: { content } });
        reading -= 1;
        return code;
      }),
    );
    let served = 0;
    while (reading > 0) {
      await server.call(api.reasons, {});
      served += 1;
    }
    expect(await told).toEqual(['ubl-unreadable', 'ubl-unreadable', 'ubl-unreadable']);
    expect(served).toBeGreaterThan(10);
  });
});

describe('prices of a shop', () => {
  const basket = (item: Item, quantity: string) => [{ itemId: item.id, quantity }];

  it('are what an order charges, with the discount of who is known, and stay agreed whatever changes later', async () => {
    const lamp = await shop.item('LAMP', { source: 'made', sellPrice: '20' });
    await shop.define(lamp, [[jar, '1']]);
    const set = await shop.item('SET', { source: 'made' });
    await shop.define(set, [[lamp, '3']]);
    await shop.behave(set, { price: 'parts', discount: '10', made: 'packed-per-order' });
    const { products } = await server.call(api.shop, {});
    expect(products.map(({ code, price }) => [code, price])).toEqual(
      expect.arrayContaining([
        ['LAMP', '20'],
        ['SET', '54'],
      ]),
    );
    const id = await shop.customer('FINCH', { email: 'finch@web.example', discount: '10' });
    const who = { buyer: 'FINCH & Co', email: 'finch@web.example', address: '', wantedOn: null };
    const sent = await server.call(api.shopSends, { body: { does: 'order', ...who, lines: basket(lamp, '2') } });
    expect(sent.standing).toBe('open');
    expect((await order(sent.id)).lines).toMatchObject([{ price: '18', priceFrom: 'own' }]);
    const { version, ...customer } = await server.call(api.customer, { params: { id } });
    const input = { ...customer, discount: '50', fields: [], version } as never;
    await server.call(api.updateCustomer, { params: { id }, body: input });
    const change = (quantity: string) =>
      server.call(api.shopSends, { body: { does: 'change', orderId: sent.id, lines: basket(lamp, quantity) } });
    await change('5');
    expect((await order(sent.id)).lines).toMatchObject([{ quantity: '5', price: '18', priceFrom: 'own' }]);
    // A price that was typed is agreed no less.
    const now = await order(sent.id);
    const typed = now.lines.map((line) => ({ id: line.id, itemId: line.itemId, quantity: '5', price: '17' }));
    await server.call(api.saveOrder, { params: { id: sent.id }, body: { ...now, lines: typed } as never });
    await change('6');
    expect((await order(sent.id)).lines).toMatchObject([{ quantity: '6', price: '17' }]);
  });
});

describe('the stand-in for a shop', () => {
  it('orders, changes, cancels and repeats itself by the door of any message', async () => {
    const hive = await shop.item('HIVE', { source: 'made', sellPrice: '100' });
    await shop.define(hive, [[jar, '1']]);
    const { products } = await server.call(api.shop, {});
    expect(products).toContainEqual(expect.objectContaining({ code: 'HIVE', price: '100' }));
    const basket = (quantity: string) => [{ itemId: hive.id, quantity }];
    const body = { does: 'order', buyer: 'Tess', address: 'Hill 2', lines: basket('2'), wantedOn: null } as const;
    const sent = await server.call(api.shopSends, { body });
    expect(sent).toMatchObject({ standing: 'open', isNew: true });
    expect(await server.call(api.shopSends, { body: { does: 'again', orderId: sent.id } })).toMatchObject({
      id: sent.id,
      isNew: false,
    });
    await server.call(api.shopSends, { body: { does: 'change', orderId: sent.id, lines: basket('3') } });
    expect(await order(sent.id)).toMatchObject({ deliverTo: 'Hill 2', lines: [{ quantity: '3' }] });
    await server.call(api.shopSends, { body: { does: 'cancel', orderId: sent.id, why: 'Changed my mind' } });
    const { orders } = await server.call(api.shop, {});
    expect(orders[0]).toMatchObject({
      theirs: expect.stringMatching(/^WS-\d{4}$/),
      customer: 'Tess',
      standing: 'cancelled',
      messages: [{ kind: 'Order' }, { kind: 'OrderChange' }, { kind: 'OrderCancellation' }],
    });
  });
});
