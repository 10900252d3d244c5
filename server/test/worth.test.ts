import { api, type Item, type Posted, type StockDocument } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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

const pricesOf = (document: StockDocument) => server.call(api.receiptPrices, { params: { id: document.id } });
const post = async (document: StockDocument, ...costs: string[]) => {
  const { lines } = await pricesOf(document);
  const body = { lines: costs.map((unitCost, index) => ({ lineId: lines[index]?.lineId ?? 0, unitCost })) };
  return server.posted(api.postPrices, { params: { id: document.id }, body });
};
const value = async (item: Item) => {
  const { onHand, value } = await shop.stockOf(item);
  return [onHand, value];
};
const take = (item: Item, quantity: string, named: object = {}) =>
  server.posted(api.adjust, {
    body: { reasonId: 1, lines: [{ itemId: item.id, binId: shop.bin(0), change: `-${quantity}`, ...named }] },
  });

describe('a price known later', () => {
  it('lands on what is still here, the rest is a difference in cost', async () => {
    const item = await shop.item('P1');
    const receipt = await shop.receive(item, '10', '2');
    await take(item, '4');
    const posted = await post(receipt, '2.5');
    expect(posted.kind).toBe('price-difference');
    // 10 × 0.50 more: 6 of 10 are here, so 3.00 go into stock and 2.00 are gone.
    expect(posted.values).toMatchObject([
      { kind: 'supplier', amount: '5' },
      { kind: 'cost-difference', amount: '-2' },
    ]);
    expect(await value(item)).toEqual(['6', '15']);
    expect((await pricesOf(receipt)).lines).toMatchObject([{ unitCost: '2.5', here: '6', value: '25' }]);
    const back = await post(receipt, '2');
    expect(await value(item)).toEqual(['6', '12']);
    expect(await server.refused(api.undoDocument, { params: { id: receipt.id }, body: {} })).toMatchObject({
      code: 'undo-later-first',
      facts: { number: back.number },
    });
    await server.posted(api.undoDocument, { params: { id: back.id }, body: {} });
    expect(await value(item)).toEqual(['6', '15']);
    expect((await pricesOf(receipt)).lines[0]?.unitCost).toBe('2.5');
  });

  it('finds its own lot and its own serials', async () => {
    const lot = await shop.item('P2', { tracking: 'lot' });
    const first = await shop.receive(lot, '5', '1', 0, { lot: 'L1' });
    await shop.receive(lot, '5', '1', 0, { lot: 'L2' });
    await take(lot, '3', { lot: 'L1' });
    const posted = await post(first, '2');
    expect(posted.movements).toMatchObject([{ lot: 'L1', quantity: '0', value: '2' }]);
    const serial = await shop.item('P3', { tracking: 'serial' });
    const two = await shop.receive(serial, '2', '30', 0, { serials: ['S1', 'S2'] });
    await shop.receive(serial, '1', '50', 0, { serials: ['S3'] });
    await take(serial, '1', { serials: ['S1'] });
    await post(two, '34');
    const { rows } = await server.call(api.serials, { params: { id: serial.id }, query: {} });
    expect(rows.map((row) => [row.code, row.cost])).toEqual([
      ['S1', null],
      ['S2', '34'],
      ['S3', '50'],
    ]);
  });

  it('never makes goods worth less than nothing, and is refused when nothing differs or the receipt is undone', async () => {
    const item = await shop.item('P4');
    const receipt = await shop.receive(item, '10', '3');
    await shop.receive(item, '10', '1');
    await take(item, '15');
    await post(receipt, '0');
    expect(await value(item)).toEqual(['5', '0']);
    const other = await shop.receive(item, '1', '3');
    expect(
      await server.refused(api.postPrices, {
        params: { id: other.id },
        body: { lines: [{ lineId: (await pricesOf(other)).lines[0]?.lineId ?? 0, unitCost: '3' }] },
      }),
    ).toMatchObject({ code: 'no-price-change' });
    const lineId = (await pricesOf(other)).lines[0]?.lineId ?? 0;
    await server.posted(api.undoDocument, { params: { id: other.id }, body: {} });
    expect(
      await server.refused(api.postPrices, { params: { id: other.id }, body: { lines: [{ lineId, unitCost: '4' }] } }),
    ).toMatchObject({ code: 'receipt-undone' });
    await server.signIn(2);
    expect(
      await server.refused(api.postPrices, {
        params: { id: receipt.id },
        body: { lines: [{ lineId, unitCost: '4' }] },
      }),
    ).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
  });
});

describe('a revaluation', () => {
  it('makes what is there worth the new cost, each serial too, and can set the standard', async () => {
    const plain = await shop.item('R1', { standardCost: '2' });
    await shop.receive(plain, '3', '1.111111');
    const serial = await shop.item('R2', { tracking: 'serial' });
    await shop.receive(serial, '1', '30', 0, { serials: ['A'] });
    await shop.receive(serial, '1', '50', 0, { serials: ['B'] });
    const lines = [
      { itemId: plain.id, unitCost: '1.5' },
      { itemId: serial.id, unitCost: '40' },
    ];
    const posted = await server.posted(api.revalue, { body: { remark: 'Year end', asStandard: true, lines } });
    expect(posted).toMatchObject({ kind: 'revaluation', remark: 'Year end' });
    expect(posted.values.map(({ kind, amount }) => [kind, amount])).toEqual([['revalued', '1.166667']]);
    expect(await value(plain)).toEqual(['3', '4.5']);
    expect((await shop.stockOf(plain)).standardCost).toBe('1.5');
    const { rows } = await server.call(api.serials, { params: { id: serial.id }, query: {} });
    expect(rows.map((row) => row.cost)).toEqual(['40', '40']);
    await server.posted(api.undoDocument, { params: { id: posted.id }, body: {} });
    expect(await value(plain)).toEqual(['3', '3.333333']);
  });

  it('is refused for what is not there, what does not change and what is named twice', async () => {
    const none = await shop.item('R3');
    const some = await shop.item('R4');
    await shop.receive(some, '2', '2');
    const revalue = (...lines: { itemId: number; unitCost: string }[]) =>
      server.refused(api.revalue, { body: { lines } });
    expect(await revalue({ itemId: none.id, unitCost: '1' })).toMatchObject({
      code: 'nothing-on-hand',
      field: 'lines.0.unitCost',
    });
    expect(await revalue({ itemId: some.id, unitCost: '2' })).toMatchObject({ code: 'no-price-change' });
    expect(await revalue({ itemId: some.id, unitCost: '3' }, { itemId: some.id, unitCost: '4' })).toMatchObject({
      code: 'twice',
      field: 'lines.1.itemId',
    });
    expect(await value(some)).toEqual(['2', '4']);
  });
});

describe('the put-right list', () => {
  const overdraw = async (item: Item, quantity: string, bin = 0) =>
    server.posted(api.adjust, {
      body: {
        reasonId: 1,
        lines: [{ itemId: item.id, binId: shop.bin(bin), change: `-${quantity}` }],
        override: { reason: 'It is on the shelf' },
      },
    });
  const entry = async (item: Item) => (await server.call(api.putRight, {})).find((one) => one.itemId === item.id);

  it('says what would settle each, and does it in one step', async () => {
    const item = await shop.item('W1');
    await shop.receive(item, '2', '3');
    await shop.receive(item, '9', '3', 1);
    await overdraw(item, '5');
    const listed = await entry(item);
    expect(listed).toMatchObject({
      quantity: '-3',
      bin: 'A1',
      reason: 'It is on the shelf',
      elsewhere: [{ bin: 'Main store A2', quantity: '9' }],
      order: null,
    });
    const moved = await server.call(api.settle, {
      params: { id: listed?.id ?? 0 },
      body: { by: 'transfer', fromBinId: shop.bin(1) },
    });
    expect(await server.document(moved.document as Posted)).toMatchObject({
      kind: 'transfer',
      movements: [{ quantity: '-3' }, { quantity: '3' }],
    });
    expect(await entry(item)).toBeUndefined();
    expect(
      await server.refused(api.settle, {
        params: { id: listed?.id ?? 0 },
        body: { by: 'transfer', fromBinId: shop.bin(1) },
      }),
    ).toMatchObject({ code: 'settled-already' });
    await overdraw(item, '1');
    const second = await entry(item);
    const found = await server.call(api.settle, {
      params: { id: second?.id ?? 0 },
      body: { by: 'adjustment', reasonId: 1 },
    });
    expect(await server.document(found.document as Posted)).toMatchObject({
      kind: 'adjustment',
      remark: expect.stringContaining('right'),
      movements: [{ quantity: '1' }],
    });
    expect(await value(item)).toEqual(['6', '18']);
  });

  it('lets an owner who has looked settle what no posting can', async () => {
    const part = await shop.item('W2');
    const product = await shop.item('W3', { source: 'made' });
    await shop.define(product, [[part, '2']]);
    const build = await shop.plan(product, '1');
    await server.call(api.startBuild, {
      params: { id: build.id },
      body: { version: build.version, override: { reason: 'They come tonight' } },
    });
    const listed = (await server.call(api.putRight, {})).find((one) => one.buildId === build.id);
    const settle = (by: 'seen' | 'adjustment') =>
      by === 'seen' ? { by, remark: 'All there now' } : { by, reasonId: 1 };
    const params = { id: listed?.id ?? 0 };
    expect(await server.refused(api.settle, { params, body: settle('adjustment') })).toMatchObject({
      code: 'not-below-zero',
    });
    await server.signIn(2);
    expect(await server.refused(api.settle, { params, body: settle('seen') })).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
    await server.call(api.settle, { params, body: settle('seen') });
    expect((await server.call(api.putRight, {})).some((one) => one.buildId === build.id)).toBe(false);
  });
});
