import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let jar: Item;
let lid: Item;
let kit: Item;
let customerId: number;

const revise = async (lines: ReturnType<typeof partLine>[], of = kit) => {
  const params = { id: await shop.definitionOf(of) };
  const { id, version } = await server.call(api.startRevision, { params, body: {} });
  const saved = await server.call(api.saveRevision, { params: { id }, body: { version, outputQuantity: '1', lines } });
  await server.call(api.putInUse, { params: { id }, body: { version: saved.version } });
};

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  jar = await shop.item('JAR', { sellPrice: '3' });
  lid = await shop.item('LID', { sellPrice: '1' });
  kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
  await shop.receive(jar, '100', '1');
  await shop.receive(lid, '100', '0.5');
  const draft = await server.call(api.createDefinition, { body: { itemId: kit.id } });
  const params = { id: draft.id };
  const { version } = await server.call(api.saveRevision, {
    params,
    body: { version: draft.version, outputQuantity: '1', lines: [partLine(jar, '2'), partLine(lid, '2')] },
  });
  await server.call(api.putInUse, { params, body: { version } });
  await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything', price: 'parts' });
  customerId = await shop.customer('LARK', { transportDays: 2 });
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const order = (id: number) => server.call(api.order, { params: { id } });
const sell = (lines: object[], more: object = {}) => shop.sell(customerId, lines as never, more as never);

describe('an order', () => {
  it('is parted: whole lines go as they are, of others some, and nothing is promised twice', async () => {
    const sold = await sell(
      [
        { itemId: jar.id, quantity: '10', price: '2.5' },
        { itemId: kit.id, quantity: '3', contents: [{ position: 1, itemId: lid.id, amount: '1' }] },
      ],
      { freight: '12' },
    );
    const [jars, kits] = sold.lines.map(({ id }) => id);
    const promised = (await shop.stockOf(jar)).promised;
    const split = (lines: object[], version = sold.version) =>
      ({ params: { id: sold.id }, body: { version, wantedOn: '2026-12-24', lines } }) as never;
    expect(await server.refused(api.splitOrder, split([{ lineId: jars, quantity: '11' }]))).toMatchObject({
      code: 'more-than-ordered',
      field: 'lines.0.quantity',
    });
    const all = [
      { lineId: jars, quantity: '10' },
      { lineId: kits, quantity: '3' },
    ];
    expect(await server.refused(api.splitOrder, split(all))).toMatchObject({ code: 'split-all' });
    const { id } = await server.call(
      api.splitOrder,
      split([
        { lineId: jars, quantity: '4' },
        { lineId: kits, quantity: '3' },
      ]),
    );
    expect(await order(id)).toMatchObject({
      wantedOn: '2026-12-24',
      standing: 'open',
      freight: '0',
      lines: [
        { quantity: '4', price: '2.5', priceFrom: 'typed' },
        { id: kits, quantity: '3', parts: [{ required: '6' }, { required: '3', usual: '6' }] },
      ],
    });
    expect(await order(sold.id)).toMatchObject({ freight: '12', lines: [{ id: jars, quantity: '6' }] });
    expect((await shop.stockOf(jar)).promised).toBe(promised);
    // What stands in its parcel stays with it.
    const now = await order(sold.id);
    const pack = { partId: now.lines[0]?.parts[0]?.id ?? 0, binId: shop.bin(0), quantity: '6' };
    await server.call(api.packOrder, { params: { id: sold.id }, body: { lines: [pack] } });
    const { version } = await order(sold.id);
    expect(await server.refused(api.splitOrder, split([{ lineId: jars, quantity: '1' }], version))).toMatchObject({
      code: 'parcel-first',
    });
  });

  it('is ordered again at what it costs today, with what was changed in its kits', async () => {
    const sold = await sell(
      [{ itemId: kit.id, quantity: '2', contents: [{ position: 1, itemId: jar.id, amount: '1' }] }],
      {
        reference: 'their 1',
      },
    );
    const copy = await server.call(api.copyOrder, { params: { id: sold.id }, body: {} });
    expect(copy.unchanged).toEqual([]);
    expect(await order(copy.id)).toMatchObject({
      standing: 'quote',
      reference: '',
      wantedOn: null,
      lines: [{ quantity: '2', price: '9', parts: [{ required: '4' }, { instead: 'The LID', required: '2' }] }],
    });
  });

  it('is ordered again line by line, without what was changed in a kit that is made otherwise by now', async () => {
    const set = await shop.item('SET', { source: 'made', sellPrice: '20' });
    await shop.define(set, [
      [jar, '2'],
      [lid, '2'],
    ]);
    await shop.behave(set, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything' });
    const more = { itemId: set.id, quantity: '1', contents: [{ position: 0, itemId: jar.id, amount: '5' }] };
    const sold = await sell([more, { itemId: set.id, quantity: '1' }]);
    const again = async () => {
      const { id, unchanged } = await server.call(api.copyOrder, { params: { id: sold.id }, body: {} });
      const { lines } = await order(id);
      return { unchanged, required: lines.map(({ parts }) => parts.map(({ required }) => required)) };
    };
    expect(await again()).toEqual({
      unchanged: [],
      required: [
        ['5', '2'],
        ['2', '2'],
      ],
    });
    await revise([partLine(jar, '3'), partLine(lid, '1')], set);
    // Named is only the line of which something is not done again.
    expect(await again()).toEqual({
      unchanged: ['The SET'],
      required: [
        ['3', '1'],
        ['3', '1'],
      ],
    });
  });

  it('takes other amounts of what is in its kit though it is archived, and names what it is short of', async () => {
    const old = await shop.item('OLD-LID');
    const set = await shop.item('OLD-SET', { source: 'made', sellPrice: '20' });
    await shop.define(set, [
      [jar, '1'],
      [old, '1'],
      [lid, '1'],
    ]);
    await shop.behave(set, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything' });
    const { version } = await shop.stockOf(old);
    await server.call(api.archiveItem, { params: { id: old.id }, body: { archived: true, version } });
    const lines = [{ itemId: set.id, quantity: '2', contents: [{ position: 1, itemId: old.id, amount: '3' }] }];
    const body = { customerId, lines, confirm: false };
    const { id } = await server.call(api.createOrder, { body });
    const [kept] = (await order(id)).lines;
    expect(kept?.parts.map(({ required }) => required)).toEqual(['2', '6', '2']);
    // A line that is new beside it has nothing in it yet.
    const typed = [
      { id: kept?.id ?? 0, itemId: set.id, quantity: '2' },
      { id: null, itemId: jar.id, quantity: '1' },
    ];
    const look = await server.call(api.lookAhead, { body: { orderId: id, customerId, lines: typed } });
    expect(look.lines.map(({ short }) => short.map(({ code, quantity }) => [code, quantity]))).toEqual([
      [['OLD-LID', '6']],
      [],
    ]);
  });

  it('takes a later kit over at what it costs its customer, and promises what that needs', async () => {
    const set = await shop.item('LATER-SET', { source: 'made', sellPrice: '20' });
    await shop.define(set, [[jar, '2']]);
    await shop.behave(set, { made: 'packed-per-order', price: 'parts' });
    const dear = await shop.customer('FINCH', { discount: '10' });
    const sold = await shop.sell(dear, [{ itemId: set.id, quantity: '2' }]);
    const [line] = sold.lines;
    const before = Number((await shop.stockOf(jar)).promised);
    await revise([partLine(jar, '5')], set);
    const params = { id: line?.id ?? 0 };
    expect(await server.call(api.laterKit, { params })).toMatchObject({ price: '5.4', laterPrice: '13.5' });
    const { version } = await order(sold.id);
    await server.call(api.takeLaterKit, { params, body: { version, revision: 2 } });
    expect((await order(sold.id)).lines).toMatchObject([{ price: '13.5', parts: [{ open: '10' }] }]);
    expect(Number((await shop.stockOf(jar)).promised)).toBe(before + 6);
  });

  it('keeps the kit it took until the later one was seen and taken over', async () => {
    const sold = await sell([
      { itemId: kit.id, quantity: '2', contents: [{ position: 1, itemId: lid.id, amount: '1' }] },
    ]);
    const lineId = sold.lines[0]?.id ?? 0;
    const params = { id: lineId };
    expect(await server.refused(api.laterKit, { params })).toMatchObject({ code: 'nothing-later' });
    await revise([partLine(jar, '3')]);
    expect(await order(sold.id)).toMatchObject({
      lines: [{ revision: 1, laterRevision: 2, price: '7', parts: [{}, {}] }],
    });
    expect(await server.call(api.laterKit, { params })).toMatchObject({
      revision: 1,
      later: 2,
      price: '7',
      laterPrice: '9',
      parts: [
        { code: 'JAR', before: '4', after: '6' },
        { code: 'LID', before: '2', after: null },
      ],
    });
    const stale = { params, body: { version: sold.version, revision: 3 } };
    expect(await server.refused(api.takeLaterKit, stale)).toMatchObject({ code: 'nothing-later' });
    await server.call(api.takeLaterKit, { params, body: { version: sold.version, revision: 2 } });
    expect(await order(sold.id)).toMatchObject({
      lines: [{ revision: 2, laterRevision: null, price: '9', parts: [{ required: '6', instead: null }] }],
    });
    const again = await server.call(api.copyOrder, { params: { id: sold.id }, body: {} });
    expect((await order(again.id)).lines).toMatchObject([{ revision: 2 }]);
  });

  it('gives way to others where it is told to', async () => {
    const rare = await shop.item('RARE', { sellPrice: '5' });
    await shop.receive(rare, '5', '1');
    const first = await sell([{ itemId: rare.id, quantity: '4' }], { wantedOn: '2026-12-20' });
    const lines = [{ itemId: rare.id, quantity: '3' }];
    const look = (turnOn: string | null) =>
      server.call(api.lookAhead, { body: { customerId, wantedOn: '2026-12-10', turnOn, lines } });
    expect((await look(null)).delays).toMatchObject([{ number: first.number, turnOn: '2026-12-20' }]);
    expect((await look('2026-12-21')).delays).toEqual([]);
    const second = await sell(lines, { wantedOn: '2026-12-10', turnOn: '2026-12-21' });
    expect(second).toMatchObject({ wantedOn: '2026-12-10', turnOn: '2026-12-21', lines: [{ canShip: '1' }] });
    expect(await order(first.id)).toMatchObject({ lines: [{ canShip: '4' }] });
    // Whom it is promised to says the same, in the same turn.
    expect(await server.call(api.promisedTo, { params: { id: rare.id } })).toMatchObject([
      { number: first.number, who: 'LARK & Co', quantity: '4', now: '4' },
      { number: second.number, quantity: '3', now: '1', completeOn: null },
    ]);
    const { holdUps } = await server.call(api.today, {});
    expect(holdUps).toMatchObject([{ code: 'RARE', short: '2', orders: 1, salesValue: '15' }]);
    // Of a line that has left in part, what is still to leave.
    const { version, lines: ordered } = await order(second.id);
    const one = { lineId: ordered[0]?.id ?? 0, quantity: '1' };
    const left = await server.call(api.shipOrder, { params: { id: second.id }, body: { version, lines: [one] } });
    expect((await server.call(api.today, {})).holdUps).toMatchObject([{ code: 'RARE', short: '2', salesValue: '10' }]);
    await server.call(api.undoDocument, { params: { id: left.id }, body: {} });
    // What is bought for it is linked to it, as far as it is still wanted.
    const { id: supplierId } = await server.call(api.createSupplier, { body: { code: 'N', name: 'North' } });
    const bought = { itemId: rare.id, quantity: '9', price: '1', orders: [{ orderId: second.id, quantity: '2' }] };
    const purchase = await shop.order({ supplierId, lines: [bought] }, 'print');
    expect(purchase.lines[0]?.orders).toMatchObject([{ number: second.number, customer: 'LARK & Co', quantity: '2' }]);
    expect(await order(second.id)).toMatchObject({
      purchases: [{ number: purchase.number, quantity: '2', open: true }],
    });
  });
});

describe('a unit that is sold', () => {
  it('says to whom, for how much and at what cost, and its warranty counts from that day', async () => {
    const scale = await shop.item('SCALE', {
      tracking: 'serial',
      sellPrice: '149',
      fields: [{ name: 'Warranty months', value: '24' }],
    });
    await shop.receive(scale, '3', '40', 0, { serials: ['S1', 'S2', 'S3'] });
    const sold = await sell([{ itemId: scale.id, quantity: '2' }]);
    const partId = sold.lines[0]?.parts[0]?.id ?? 0;
    const pack = { partId, binId: shop.bin(0), quantity: '1', serials: ['S2'] };
    await server.call(api.packOrder, { params: { id: sold.id }, body: { lines: [pack] } });
    const states = async (state?: 'sold') =>
      (await server.call(api.serials, { params: { id: scale.id }, query: { state } })).rows.map((row) => [
        row.code,
        row.state,
      ]);
    expect(await states()).toEqual([
      ['S1', 'in stock'],
      ['S2', 'in a parcel'],
      ['S3', 'in stock'],
    ]);
    const { version, lines } = await order(sold.id);
    const shipment = await server.call(api.shipOrder, {
      params: { id: sold.id },
      body: { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: '1' }] },
    });
    expect(await states('sold')).toEqual([['S2', 'sold']]);
    const { rows } = await server.call(api.serials, { params: { id: scale.id }, query: { q: 'S2' } });
    const { at } = await server.document(shipment);
    const until = `${Number(at.slice(0, 4)) + 2}${at.slice(4, 10)}`;
    expect(rows[0]).toMatchObject({
      state: 'sold',
      cost: null,
      sold: { order: sold.number, customer: 'LARK & Co', price: '149', cost: '40', warrantyUntil: until },
    });
    expect(await server.call(api.itemSales, { params: { id: scale.id } })).toMatchObject({
      quantity: '1',
      sold: '149',
      cost: '40',
      orders: 1,
      customers: [{ name: 'LARK & Co', sold: '149' }],
    });
    expect(await server.call(api.customer, { params: { id: customerId } })).toMatchObject({
      shipments: [{ number: shipment.number, order: sold.number, sold: '149', cost: '40' }],
    });
    expect(await server.call(api.shipment, { params: { id: shipment.id } })).toMatchObject({
      customer: 'LARK & Co',
      parcels: [expect.stringMatching(/^PC-/)],
      lines: [{ code: 'SCALE', quantity: '1', isKit: false, parts: [{ pieces: ['S2'], isSerial: true }] }],
    });
    // Sold once: with another order it is refused, and said what became of it; so is a price that is none.
    const line = { itemId: scale.id, quantity: '1' };
    const again = await shop.sell(customerId, [line]);
    const [own] = again.lines;
    const parts = [{ partId: own?.parts[0]?.id ?? 0, serials: ['S2'] }];
    const body = { version: again.version, lines: [{ lineId: own?.id ?? 0, quantity: '1', parts }] };
    const refused = await server.refused(api.shipOrder, { params: { id: again.id }, body });
    expect(refused).toMatchObject({
      code: 'serial-unknown',
      field: 'lines.0.parts.0.serials',
      facts: { code: 'S2', says: `left with ${shipment.number}` },
    });
    expect(refused.detail).toContain(`left with ${shipment.number}`);
    const dear = { customerId, lines: [{ ...line, price: 'dear' }] };
    expect(await server.refused(api.createOrder, { body: dear })).toMatchObject({ field: 'lines.0.price' });
    const nobody = { customerId: 99_999, lines: [line] };
    expect(await server.refused(api.createOrder, { body: nobody })).toMatchObject({ field: 'customerId' });
    await server.call(api.cancelOrder, {
      params: { id: again.id },
      body: { version: again.version, reason: 'a test' },
    });
    await server.call(api.undoDocument, { params: { id: shipment.id }, body: {} });
    expect((await states())[1]).toEqual(['S2', 'in a parcel']);
  });
});

describe('papers', () => {
  it('look as the owner has set them, and a bench person may not change that', async () => {
    const { company } = await server.call(api.session, {});
    expect(company.papers).toMatchObject({ size: 'A4', columns: ['tile', 'code', 'price', 'day'], logo: null });
    const body = {
      size: 'Letter',
      head: 'Thank you',
      foot: 'VAT 1',
      columns: ['price', 'tile'],
      version: company.version,
    } as const;
    expect(await server.call(api.updatePapers, { body: { ...body, columns: [...body.columns] } })).toMatchObject({
      papers: { size: 'Letter', head: 'Thank you', foot: 'VAT 1', columns: ['tile', 'price'] },
    });
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const put = (content: Buffer) =>
      server.fetch('/api/company/logo', {
        method: 'PUT',
        headers: { 'content-type': 'application/octet-stream', 'idempotency-key': crypto.randomUUID() },
        body: new Uint8Array(content),
      });
    expect((await put(Buffer.from('no picture'))).status).toBe(422);
    expect((await put(png)).status).toBe(200);
    expect((await server.fetch('/api/company/logo')).headers.get('content-type')).toBe('image/webp');
    await server.call(api.removeLogo, {});
    expect((await server.fetch('/api/company/logo')).status).toBe(404);
    await server.signIn(2);
    const { version } = await server.call(api.session, {}).then(({ company: now }) => now);
    const refused = await server.refused(api.updatePapers, { body: { ...body, columns: [], version } });
    expect(refused).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
  });

  it('print a label of where a parcel goes', async () => {
    const id = await shop.customer('FERN', {
      billing: 'Hill 1\nTown',
      delivery: 'Gate 2\nBack yard\nLower town\nShire',
    });
    const sold = await shop.sell(id, [{ itemId: jar.id, quantity: '1' }]);
    const pack = { partId: sold.lines[0]?.parts[0]?.id ?? 0, binId: shop.bin(0), quantity: '1' };
    await server.call(api.packOrder, { params: { id: sold.id }, body: { lines: [pack] } });
    const [parcel] = (await order(sold.id)).parcels;
    const job = await server.call(api.createLabelJob, { body: { of: { parcelId: parcel?.id ?? 0 } } });
    expect(await server.call(api.labelJob, { params: { id: job.id } })).toMatchObject({
      labels: [{ title: 'FERN & Co', lines: ['Gate 2', 'Back yard', 'Lower town, Shire'], text: parcel?.number }],
    });
  });
});
