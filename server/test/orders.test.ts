import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let pin: Item;
let cup: Item;
let box: Item;
let kit: Item;
let customerId: number;

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  pin = await shop.item('PIN', { sellPrice: '0.5' });
  cup = await shop.item('CUP', { sellPrice: '4' });
  box = await shop.item('BOX', { source: 'made', sellPrice: '12' });
  kit = await shop.item('KIT', { source: 'made', sellPrice: '9' });
  await shop.receive(pin, '100', '0.1');
  await shop.receive(cup, '10', '2', 1);
  await shop.define(box, [[pin, '4']]);
  await shop.define(kit, [
    [cup, '2'],
    [pin, '3'],
  ]);
  await shop.behave(kit, { made: 'packed-per-order' });
  customerId = await shop.customer('LARK');
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const read = (id: number) => server.call(api.order, { params: { id } });
const ship = async (id: number, lines: object[], more: object = {}) => {
  const { version } = await read(id);
  return { params: { id }, body: { version, lines: lines as never, ...more } };
};

describe('a customer', () => {
  it('is added, changed, found and taken out of use, but never twice under one code', async () => {
    const { id } = await server.call(api.createCustomer, {
      body: { code: 'ALDER', name: 'Alder Vale', discount: '5', fields: [{ name: 'Hives', value: '40' }] },
    });
    expect(await server.refused(api.createCustomer, { body: { code: 'alder', name: 'Other' } })).toMatchObject({
      code: 'code-taken',
      field: 'code',
    });
    expect(await server.refused(api.createCustomer, { body: { code: 'X', name: 'X', discount: '101' } })).toMatchObject(
      {
        code: 'out-of-range',
        field: 'discount',
      },
    );
    const known = await server.call(api.customer, { params: { id } });
    expect(known).toMatchObject({ discount: '5', openOrders: 0, fields: [{ name: 'Hives', value: '40' }] });
    const body = { code: 'ALDER', name: 'Alder Vale Apiaries', version: known.version };
    await server.call(api.updateCustomer, { params: { id }, body });
    const found = async (q: string) =>
      (await server.call(api.customers, { query: { q } })).rows.map(({ code }) => code);
    expect(await found('apiar')).toEqual(['ALDER']);
    const { version } = await server.call(api.customer, { params: { id } });
    await server.call(api.archiveCustomer, { params: { id }, body: { archived: true, version } });
    expect(await found('apiar')).toEqual([]);
    const order = { customerId: id, lines: [{ itemId: pin.id, quantity: '1' }] };
    expect(await server.refused(api.createOrder, { body: order })).toMatchObject({
      code: 'customer-archived',
      field: 'customerId',
    });
  });
});

describe('an order', () => {
  it('promises nothing as a quote, and what it needs once it is confirmed', async () => {
    const order = await shop.sell(customerId, [{ itemId: cup.id, quantity: '4' }], { confirm: false });
    expect(order).toMatchObject({ number: 'O-0001', standing: 'quote', worth: '16', outlook: 'unknown' });
    expect(await shop.stockOf(cup)).toMatchObject({ promised: '0', free: '10' });
    await server.call(api.confirmOrder, { params: { id: order.id }, body: { version: order.version } });
    expect(await read(order.id)).toMatchObject({
      standing: 'open',
      outlook: 'ready',
      lines: [{ canShip: '4', completeOn: '', priceFrom: 'own', plannedCost: '8', parts: [{ open: '4', ready: '4' }] }],
    });
    expect(await shop.stockOf(cup)).toMatchObject({ promised: '4', free: '6' });
    expect((await server.call(api.orders, { query: { q: 'cup' } })).rows).toMatchObject([
      { number: 'O-0001', lines: 1, readyLines: 1 },
    ]);
    const { version } = await read(order.id);
    await server.call(api.cancelOrder, { params: { id: order.id }, body: { version, reason: 'changed their mind' } });
    expect(await shop.stockOf(cup)).toMatchObject({ promised: '0', free: '10' });
    expect(await read(order.id)).toMatchObject({
      standing: 'cancelled',
      outlook: 'over',
      reason: 'changed their mind',
    });
  });

  it('takes the item’s price less the discount, unless one was typed', async () => {
    const id = await shop.customer('TENTH', { discount: '10' });
    const order = await shop.sell(id, [
      { itemId: cup.id, quantity: '1' },
      { itemId: pin.id, quantity: '10', price: '0.4' },
    ]);
    expect(order.lines).toMatchObject([
      { price: '3.6', priceFrom: 'own', worth: '3.6' },
      { price: '0.4', priceFrom: 'typed', worth: '4' },
    ]);
    const bare = await shop.item('BARE');
    const lines = [{ itemId: bare.id, quantity: '1' }];
    expect(await server.refused(api.createOrder, { body: { customerId: id, lines } })).toMatchObject({
      code: 'price-unknown',
      field: 'lines.0.price',
    });
    await server.call(api.cancelOrder, {
      params: { id: order.id },
      body: { version: order.version, reason: 'a test' },
    });
  });

  it('leaves in parts at exactly what it is worth, and comes back whole when that is undone', async () => {
    const order = await shop.sell(customerId, [{ itemId: cup.id, quantity: '6' }]);
    const line = order.lines[0]?.id ?? 0;
    const first = await server.call(api.shipOrder, await ship(order.id, [{ lineId: line, quantity: '2' }]));
    expect(first).toMatchObject({ number: 'SH-0001', openLines: 1 });
    expect((await server.document(first)).movements).toMatchObject([{ code: 'CUP', quantity: '-2', value: '-4' }]);
    expect(await read(order.id)).toMatchObject({
      standing: 'partly-shipped',
      earned: { cost: '4', sold: '8' },
      lines: [{ shipped: '2', open: '4', cost: '4' }],
    });
    expect(await shop.stockOf(cup)).toMatchObject({ onHand: '8', promised: '4' });
    expect(await server.refused(api.shipOrder, await ship(order.id, [{ lineId: line, quantity: '5' }]))).toMatchObject({
      code: 'more-than-ordered',
      field: 'lines.0.quantity',
      facts: { left: '4' },
    });
    const { version } = await read(order.id);
    expect(
      await server.refused(api.cancelOrder, { params: { id: order.id }, body: { version, reason: 'too late' } }),
    ).toMatchObject({ code: 'order-has-shipped' });
    await server.call(api.undoDocument, { params: { id: first.id }, body: {} });
    expect(await read(order.id)).toMatchObject({
      standing: 'open',
      earned: { cost: '0' },
      lines: [{ shipped: '0', open: '6' }],
    });
    expect(await shop.stockOf(cup)).toMatchObject({ onHand: '10', value: '20', promised: '6' });
    const all = await server.call(api.shipOrder, await ship(order.id, [{ lineId: line, quantity: '6' }]));
    expect(all.openLines).toBe(0);
    expect(await read(order.id)).toMatchObject({ standing: 'shipped', outlook: 'over' });
    expect((await server.call(api.orders, { query: { show: 'shipped' } })).rows[0]?.number).toBe(order.number);
    expect(await server.call(api.customer, { params: { id: customerId } })).toMatchObject({
      earned: { sold: '24', cost: '12' },
    });
    await shop.receive(cup, '6', '2', 1);
  });

  it('can lose a line that had left once, which stays in its history as given up', async () => {
    const sold = await shop.sell(customerId, [
      { itemId: cup.id, quantity: '1' },
      { itemId: cup.id, quantity: '2' },
    ]);
    const [first, second] = sold.lines.map(({ id }) => id);
    const left = await server.call(api.shipOrder, await ship(sold.id, [{ lineId: second, quantity: '2' }]));
    await server.call(api.undoDocument, { params: { id: left.id }, body: {} });
    const { version } = await read(sold.id);
    const lines = [{ id: first ?? 0, itemId: cup.id, quantity: '1' }];
    await server.call(api.saveOrder, { params: { id: sold.id }, body: { version, customerId, lines } });
    expect(await read(sold.id)).toMatchObject({
      standing: 'open',
      worth: '4',
      lines: [
        { id: first, open: '1' },
        { id: second, open: '0', dropped: '2' },
      ],
    });
    expect(await server.call(api.shipment, { params: { id: left.id } })).toMatchObject({ lines: [{ quantity: '2' }] });
    // Typed again without it, it is as it was.
    const again = await read(sold.id);
    const params = { id: sold.id };
    await server.call(api.saveOrder, { params, body: { version: again.version, customerId, lines } });
    expect(await read(sold.id)).toMatchObject({ lines: [{ open: '1' }, { open: '0', dropped: '2' }] });
    await server.call(api.cancelOrder, {
      params,
      body: { version: (await read(sold.id)).version, reason: 'only a try' },
    });
  });

  it('of a kit packed for it takes the parts, and keeps the revision it took', async () => {
    const order = await shop.sell(customerId, [{ itemId: kit.id, quantity: '3' }]);
    expect(order.lines).toMatchObject([
      {
        revision: 1,
        price: '9',
        plannedCost: '12.9',
        canShip: '3',
        parts: [
          { item: { code: 'CUP' }, required: '6', open: '6' },
          { item: { code: 'PIN' }, required: '9', open: '9' },
        ],
      },
    ]);
    const { id: draft, version } = await server.call(api.startRevision, {
      params: { id: await shop.definitionOf(kit) },
      body: {},
    });
    await server.call(api.putInUse, { params: { id: draft }, body: { version } });
    const same = {
      version: order.version,
      customerId,
      reference: 'their 77',
      lines: [{ id: order.lines[0]?.id ?? null, itemId: kit.id, quantity: '2' }],
    };
    await server.call(api.saveOrder, { params: { id: order.id }, body: same });
    expect((await read(order.id)).lines).toMatchObject([{ revision: 1, quantity: '2', parts: [{ open: '4' }, {}] }]);
    const sent = await server.call(
      api.shipOrder,
      await ship(order.id, [{ lineId: order.lines[0]?.id, quantity: '2' }], { carrier: 'Cart', tracking: 'C-1' }),
    );
    expect((await server.document(sent)).movements.map(({ code, quantity }) => [code, quantity])).toEqual([
      ['CUP', '-4'],
      ['PIN', '-6'],
    ]);
    expect(await read(order.id)).toMatchObject({
      reference: 'their 77',
      earned: { cost: '8.6' },
      documents: [{ number: sent.number, carrier: 'Cart', tracking: 'C-1' }],
    });
    await shop.receive(cup, '4', '2', 1);
  });

  it('is changed as far as it has not left', async () => {
    const order = await shop.sell(customerId, [
      { itemId: cup.id, quantity: '3' },
      { itemId: pin.id, quantity: '5' },
    ]);
    const [first, second] = order.lines.map(({ id }) => id);
    await server.call(api.shipOrder, await ship(order.id, [{ lineId: first, quantity: '2' }]));
    const save = async (lines: object[]) => {
      const { version } = await read(order.id);
      return { params: { id: order.id }, body: { version, customerId, lines: lines as never } };
    };
    expect(
      await server.refused(api.saveOrder, await save([{ id: first, itemId: cup.id, quantity: '1' }])),
    ).toMatchObject({ code: 'less-than-shipped', field: 'lines.0.quantity', facts: { shipped: '2' } });
    expect(
      await server.refused(api.saveOrder, await save([{ id: second, itemId: pin.id, quantity: '5' }])),
    ).toMatchObject({ code: 'order-line-gone' });
    const twice = [first, first].map((id) => ({ id, itemId: cup.id, quantity: '4' }));
    expect(await server.refused(api.saveOrder, await save(twice))).toMatchObject({
      code: 'unknown-line',
      field: 'lines.1.id',
    });
    await server.call(api.saveOrder, await save([{ id: first, itemId: cup.id, quantity: '4' }]));
    expect((await read(order.id)).lines).toMatchObject([{ id: first, quantity: '4', shipped: '2', open: '2' }]);
    const { version } = await read(order.id);
    const drop = { version, reason: 'no longer wanted', lineIds: [first ?? 0] };
    await server.call(api.dropOrder, { params: { id: order.id }, body: drop });
    expect(await read(order.id)).toMatchObject({
      standing: 'shipped',
      worth: '8',
      lines: [{ dropped: '2', open: '0' }],
    });
    expect((await shop.stockOf(cup)).promised).toBe('0');
    await shop.receive(cup, '2', '2', 1);
  });

  it('sends lots and serials that were named, and refuses what nobody named', async () => {
    const bell = await shop.item('BELL', { tracking: 'serial', sellPrice: '20' });
    const wax = await shop.item('WAX', { tracking: 'lot', sellPrice: '3' });
    await shop.receive(bell, '2', '7', 0, { serials: ['B1', 'B2'] });
    await shop.receive(wax, '5', '1', 0, { lot: 'NEW', bestBefore: '2027-01-01' });
    await shop.receive(wax, '5', '1', 1, { lot: 'OLD', bestBefore: '2026-12-24' });
    const order = await shop.sell(customerId, [
      { itemId: bell.id, quantity: '1' },
      { itemId: wax.id, quantity: '6' },
    ]);
    const [one, two] = order.lines;
    const bells = (serials: string[]) => ({
      lineId: one?.id,
      quantity: '1',
      parts: [{ partId: one?.parts[0]?.id, serials }],
    });
    expect(await server.refused(api.shipOrder, await ship(order.id, [bells([])]))).toMatchObject({
      code: 'serials-needed',
      field: 'lines.0.parts.0.serials',
    });
    expect(await server.refused(api.shipOrder, await ship(order.id, [bells(['B9'])]))).toMatchObject({
      code: 'serial-unknown',
    });
    const sent = await server.call(
      api.shipOrder,
      await ship(order.id, [bells(['B2']), { lineId: two?.id, quantity: '6' }]),
    );
    expect(
      (await server.document(sent)).movements.map(({ serial, lot, quantity }) => [serial ?? lot, quantity]),
    ).toEqual([
      ['B2', '-1'],
      ['OLD', '-5'],
      ['NEW', '-1'],
    ]);
  });

  it('is served after those wanted sooner, and says whom it would delay', async () => {
    const wood = await shop.item('WOOD', { sellPrice: '5' });
    await shop.receive(wood, '10', '1');
    const later = await shop.sell(customerId, [{ itemId: wood.id, quantity: '8' }], { wantedOn: '2026-12-20' });
    const ask = (wantedOn: string) =>
      server.call(api.lookAhead, { body: { wantedOn, lines: [{ itemId: wood.id, quantity: '6' }] } });
    expect(await ask('2026-12-30')).toMatchObject({
      lines: [{ price: '5', free: '2', completeOn: null, short: [{ code: 'WOOD', quantity: '4' }] }],
      delays: [],
    });
    expect(await ask('2026-12-01')).toMatchObject({
      completeOn: '',
      delays: [{ kind: 'order', number: later.number, before: '', after: null }],
    });
    const sooner = await shop.sell(customerId, [{ itemId: wood.id, quantity: '6' }], { wantedOn: '2026-12-01' });
    expect(sooner).toMatchObject({ outlook: 'ready' });
    expect(await read(later.id)).toMatchObject({ outlook: 'unknown', lines: [{ canShip: '4' }] });
    // A build that needs some of it is one of those that wait in turn.
    const chest = await shop.item('CHEST', { source: 'made' });
    await shop.define(chest, [[wood, '1']]);
    expect(await shop.plan(chest, '3', '2026-12-10')).toMatchObject({ waiting: [], canStart: '3' });
    expect(await read(later.id)).toMatchObject({ lines: [{ canShip: '1' }] });
    // A build that is served in full leaves the later order without; the list to buy says for whom.
    expect((await server.call(api.buyList, { query: {} })).find(({ code }) => code === 'WOOD')).toMatchObject({
      short: '7',
      needs: [],
      orders: [{ orderId: later.id, number: later.number, customer: 'LARK & Co', quantity: '7' }],
    });
    const { canLeave, atRisk, counts } = await server.call(api.today, {});
    expect(canLeave.map(({ number }) => number)).toContain(sooner.number);
    expect(atRisk.map(({ number }) => number)).toContain(later.number);
    expect(counts.orders).toBe(canLeave.length);
  });

  it('keeps what it is about: such an item is not deleted, and its unit keeps the decimals it was ordered in', async () => {
    const unit = await server.call(api.createUnit, { body: { code: 'sack', name: 'Sack', decimals: 1 } });
    const sand = await shop.item('SAND', { sellPrice: '2', unitId: unit.id });
    const quote = await shop.sell(customerId, [{ itemId: sand.id, quantity: '2.5' }], { confirm: false });
    expect(await server.refused(api.deleteItem, { params: { id: sand.id } })).toMatchObject({
      code: 'item-has-history',
    });
    const coarser = { code: 'sack', name: 'Sack', decimals: 0, version: unit.version };
    expect(await server.refused(api.updateUnit, { params: { id: unit.id }, body: coarser })).toMatchObject({
      field: 'decimals',
    });
    expect((await read(quote.id)).lines).toMatchObject([{ quantity: '2.5' }]);
  });

  it('is sent once, however often and by however many it is sent at a time', async () => {
    const lamp = await shop.item('LAMP', { sellPrice: '5' });
    await shop.receive(lamp, '3', '1');
    const orders = await Promise.all([1, 2].map(() => shop.sell(customerId, [{ itemId: lamp.id, quantity: '2' }])));
    const asked = await Promise.all(orders.map((o) => ship(o.id, [{ lineId: o.lines[0]?.id, quantity: '2' }])));
    const key = crypto.randomUUID();
    const [first] = asked;
    if (!first) throw new Error('nothing to send');
    const answers = await Promise.all([1, 2, 3].map(() => server.call(api.shipOrder, first, { key })));
    expect(new Set(answers.map(({ number }) => number)).size).toBe(1);
    // The shelf has one left, and the other order wants two.
    expect(await server.refused(api.shipOrder, asked[1] as typeof first)).toMatchObject({
      code: 'stock-short',
      facts: { lines: [{ code: 'LAMP', wanted: '2', there: '1' }] },
    });
    expect(await shop.stockOf(lamp)).toMatchObject({ onHand: '1' });
  });

  it.each<[string, () => Promise<object> | object, object]>([
    [
      'an item nobody knows',
      () => ({ itemId: 9999, quantity: '1' }),
      { code: 'unknown-item', field: 'lines.0.itemId' },
    ],
    [
      'half a cup',
      () => ({ itemId: cup.id, quantity: '0.5' }),
      { code: 'too-many-decimals', field: 'lines.0.quantity' },
    ],
    ['nothing of it', () => ({ itemId: cup.id, quantity: '0' }), { code: 'not-positive', field: 'lines.0.quantity' }],
    ['a price in words', () => ({ itemId: cup.id, quantity: '1', price: 'free' }), { field: 'lines.0.price' }],
    [
      'an archived item',
      async () => {
        const old = await shop.item('OLD-CUP', { sellPrice: '1' });
        await server.call(api.archiveItem, { params: { id: old.id }, body: { archived: true, version: old.version } });
        return { itemId: old.id, quantity: '1' };
      },
      { code: 'item-archived', field: 'lines.0.itemId' },
    ],
    [
      'a parts list of what a customer owns',
      async () => {
        const theirs = await shop.item('THEIRS', { sellPrice: '1' });
        await server.call(api.createDefinition, { body: { itemId: theirs.id, purpose: 'record' } });
        return { itemId: theirs.id, quantity: '1' };
      },
      { code: 'order-record-only', field: 'lines.0.itemId' },
    ],
  ])('is refused for %s', async (_, make, refusal) => {
    const lines = [(await make()) as never];
    expect(await server.refused(api.createOrder, { body: { customerId, lines } })).toMatchObject(refusal);
  });
});
