import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

/** Two of everything: what is shown, kept or refused of one is never of the other. */
let server: TestServer;
let at: Ground;
beforeAll(async () => {
  server = await TestServer.start();
  at = await Ground.of(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const supplier = async (code: string) =>
  (await server.call(api.createSupplier, { body: { code, name: `${code} & Co` } })).id;

describe('two builds', () => {
  it('tell whom each is for, in the list as on its sheet', async () => {
    const orders = [await at.order(at.box, '1'), await at.order(at.box, '2')];
    const builds: number[] = [];
    for (const { lines } of orders) {
      const chosen = [{ partId: lines[0]?.parts[0]?.id ?? 0, quantity: '1' }];
      builds.push((await server.call(api.buildForOrders, { body: { chosen } })).builds[0]?.id ?? 0);
    }
    const { rows } = await server.call(api.builds, { query: { state: 'open', limit: 200 } });
    const shown = builds.map((id) => rows.find((row) => row.id === id)?.orders.map(({ orderId }) => orderId));
    expect(shown).toEqual(orders.map(({ id }) => [id]));
    const sheets = await Promise.all(builds.map((id) => at.read('build', id)));
    expect(sheets.map((build) => build.orders.map(({ orderId }) => orderId))).toEqual(orders.map(({ id }) => [id]));
  });

  it('have each what was bought for it', async () => {
    const nail = await at.item();
    const product = await at.item({ source: 'made' });
    await at.define(product, [partLine(nail, '1')]);
    const builds = [await at.shop.plan(product, '3'), await at.shop.plan(product, '4')];
    for (const { id } of builds) {
      const needs = [{ buildId: id, quantity: '3' }];
      const lines = [{ itemId: nail.id, quantity: '3', price: '1', needs }];
      await at.shop.order({ supplierId: at.supplierId, lines }, id === builds[0]?.id ? 'print' : null);
    }
    const bought = await Promise.all(builds.map(async ({ id }) => (await at.read('build', id)).purchases));
    expect(bought).toMatchObject([
      [{ code: nail.code, quantity: '3', open: true }],
      [{ code: nail.code, quantity: '3', open: false }],
    ]);
    expect(bought[0]?.[0]?.number).not.toBe(bought[1]?.[0]?.number);
  });

  it('show on the board which of their tasks is being done', async () => {
    const one = await at.onBench('1');
    const two = await at.onBench('1');
    const task = one.tasks.find(({ kind }) => kind === 'labour');
    await server.call(api.startClock, { params: { id: task?.id ?? 0 }, body: {} });
    const { cards } = await server.call(api.board, {});
    const doing = (id: number) =>
      cards
        .filter(({ buildId }) => buildId === id)
        .flatMap(({ tasks }) => tasks.filter(({ isDoing }) => isDoing).length);
    expect([doing(one.id), doing(two.id)]).toEqual([[1], [0]]);
    await server.call(api.stopClock, { body: { minutes: '1' } });
  });
});

describe('what Cover reckons with', () => {
  it('has each bill of materials with its own parts, work and charges', async () => {
    const { definitions } = await server.call(api.snapshot, { query: {} });
    const of = ({ id }: Item) => definitions.find(({ itemId }) => itemId === id);
    expect(of(at.box)).toMatchObject({
      parts: [[at.pin.id, '2', 0, '0', []]],
      labour: [['6', 0, '24']],
      charges: [['5', 1]],
    });
    expect(of(at.kit)).toMatchObject({
      parts: [[at.pin.id, '3', 0, '0', [[at.knob.id, '1']]]],
      labour: [],
      charges: [],
    });
  });
});

describe('two suppliers', () => {
  it('of one item have each their own code and price, and an order carries its supplier’s', async () => {
    const [north, south] = [await supplier('NORD'), await supplier('SUED')];
    const offer = (supplierId: number, code: string, price: string) => ({ supplierId, code, price, leadDays: 3 });
    const nail = await at.item({ suppliers: [offer(north, 'N-1', '2'), offer(south, 'S-1', '3')], reorderPoint: '5' });
    const screw = await at.item({ suppliers: [offer(south, 'S-2', '4')], reorderPoint: '5' });
    const rows = await server.call(api.buyList, { query: {} });
    const offers = ({ id }: Item) =>
      rows.find(({ itemId }) => itemId === id)?.offers.map(({ supplierId, price }) => [supplierId, price]);
    expect(offers(nail)).toEqual([
      [north, '2'],
      [south, '3'],
    ]);
    expect(offers(screw)).toEqual([[south, '4']]);
    const lines = [nail, screw].map(({ id: itemId }) => ({ itemId, quantity: '5', price: '1' }));
    const order = await at.shop.order({ supplierId: south, lines }, 'print');
    expect(order.lines.map(({ supplierCode }) => supplierCode)).toEqual(['S-1', 'S-2']);
  });
});

describe('two lines of a purchase order', () => {
  it('of which one has come keep the order from being cancelled; the other can be closed', async () => {
    const [nail, screw] = [await at.item(), await at.item()];
    const lines = [nail, screw].map(({ id: itemId }) => ({ itemId, quantity: '5', price: '1' }));
    const order = await at.shop.order({ supplierId: at.supplierId, lines }, 'print');
    const params = { id: order.id };
    const came = { lineId: order.lines[1]?.id ?? 0, binId: at.bin(), quantity: '2', unitCost: '1' };
    await server.call(api.receivePurchase, { params, body: { lines: [came] } });
    const { version } = await at.read('purchase', order.id);
    expect(await server.refused(api.cancelPurchase, { params, body: { version } })).toMatchObject({
      code: 'order-has-receipts',
    });
    await server.call(api.closePurchase, { params, body: { version, lineIds: [order.lines[0]?.id ?? 0] } });
    const after = (await at.read('purchase', order.id)).lines.map(({ open, received }) => [open, received]);
    expect(after).toEqual([
      ['0', '0'],
      ['3', '2'],
    ]);
  });
});

describe('two counts', () => {
  it('approved one after the other are undone each for itself', async () => {
    const counts = [];
    for (const _ of [1, 2]) {
      const count = await at.count();
      await count.line('2');
      await server.call(api.approveCount, { params: count.params, body: { version: await count.version() } });
      counts.push(count.params.id);
    }
    const second = counts[1] ?? 0;
    const { documentId } = await at.read('count', second);
    await server.call(api.undoDocument, { params: { id: documentId ?? 0 }, body: {} });
    const states = await Promise.all(counts.map(async (id) => (await at.read('count', id)).state));
    expect(states).toEqual(['approved', 'open']);
  });

  it('ask for a cost only where something is found of which nobody knows any', async () => {
    const item = await at.item();
    const { params } = await at.count();
    await server.call(api.addCountLine, { params, body: { itemId: item.id, binId: at.bin() } });
    const line = async () => (await at.read('count', params.id)).sheet.find(({ itemId }) => itemId === item.id);
    const asks = async (counted: string) => {
      const id = (await line())?.id ?? 0;
      await server.call(api.countLine, { params: { id }, body: { counted, serials: [] } });
      return (await line())?.needsCost;
    };
    expect([await asks('0'), await asks('2')]).toEqual([false, true]);
  });
});

describe('two customers of one item', () => {
  it('are each owed for what came back of theirs', async () => {
    const nail = await at.stocked('9');
    const [anna, ben] = [await at.shop.customer('ANNA'), await at.shop.customer('BEN')];
    const sold = async (customerId: number) => {
      const order = await at.shop.sell(customerId, [{ itemId: nail.id, quantity: '2', price: '5' }]);
      const line = { lineId: order.lines[0]?.id ?? 0, quantity: '2' };
      const shipped = await server.call(api.shipOrder, {
        params: { id: order.id },
        body: { version: order.version, lines: [line] },
      });
      return { shipmentId: shipped.id, lineId: line.lineId };
    };
    await sold(anna);
    const came = await sold(ben);
    const reasonId = await at.reason('return');
    const lines = [{ ...came, quantity: '1', reasonId, condition: 'as new' as const }];
    await server.call(api.announceReturn, { body: { arrived: true, lines } });
    const { customers, ...all } = await server.call(api.itemSales, { params: { id: nail.id } });
    const of = (id: number) => {
      const own = customers.find((one) => one.id === id);
      return [own?.sold, own?.owed];
    };
    expect([of(anna), of(ben), [all.sold, all.owed]]).toEqual([
      ['10', '0'],
      ['10', '5'],
      ['20', '5'],
    ]);
  });
});

describe('two shipments from one parcel', () => {
  it('are undone in any order: what stood in it is in it again, and leaves anew', async () => {
    const order = await at.order(at.pin, '4');
    const params = { id: order.id };
    const [line] = order.lines;
    const packed = { partId: line?.parts[0]?.id ?? 0, binId: at.bin(), quantity: '4' };
    await server.call(api.packOrder, { params, body: { lines: [packed] } });
    const ship = async (quantity: string) => {
      const { version } = await at.read('order', order.id);
      return server.call(api.shipOrder, { params, body: { version, lines: [{ lineId: line?.id ?? 0, quantity }] } });
    };
    const first = await ship('1');
    await ship('3');
    expect((await at.read('order', order.id)).parcels).toEqual([]);
    await server.call(api.undoDocument, { params: { id: first.id }, body: {} });
    expect(await server.verify()).toEqual([]);
    const after = await at.read('order', order.id);
    expect([after.lines[0]?.inParcel, after.parcels.length]).toEqual(['1', 1]);
    await ship('1');
    expect(await at.read('order', order.id)).toMatchObject({ standing: 'shipped', parcels: [] });
  });
});

describe('two revisions', () => {
  it('have each their own lines, and their alternates with them', async () => {
    const { definitionId, revision } = await at.product();
    const { id, version } = await server.call(api.startRevision, { params: { id: definitionId }, body: {} });
    const lines = [partLine(at.knob, '4', { alternates: [{ itemId: at.pin.id, ratio: '2' }] })];
    await server.call(api.saveRevision, { params: { id }, body: { version, outputQuantity: '1', lines } });
    const { revisions } = await at.read('definition', definitionId);
    const shown = (which: number) =>
      revisions
        .find((one) => one.id === which)
        ?.lines.map((line) => (line.kind === 'part' ? [line.item.id, line.quantity, line.alternates.length] : null));
    expect([shown(revision.id), shown(id)]).toEqual([[[at.pin.id, '1', 0]], [[at.knob.id, '4', 1]]]);
  });

  it('of one item are in one bill of materials: a second is refused with the way to the first', async () => {
    const { item, definitionId } = await at.product();
    expect(await server.refused(api.createDefinition, { body: { itemId: item.id } })).toMatchObject({
      code: 'definition-exists',
      field: 'itemId',
      facts: { id: definitionId },
    });
  });
});

describe('two units on a bench', () => {
  it('go back by the serial that was named, however it is written', async () => {
    const scale = await at.item({ tracking: 'serial' });
    await at.shop.receive(scale, '2', '9', 0, { serials: ['SC-1', 'SC-2'] });
    const product = await at.item({ source: 'made' });
    await at.define(product, [partLine(scale, '1')]);
    const { id, lines } = await at.shop.start(product, '2');
    const lineId = lines[0]?.id ?? 0;
    const taken = { lineId, binId: at.bin(), quantity: '2', serials: ['SC-1', 'SC-2'] };
    await server.call(api.pick, { params: { id }, body: { lines: [taken] } });
    await server.call(api.takeBack, { params: { id }, body: { lineId, quantity: '1', serials: ['sc-1'] } });
    const left = (await at.read('build', id)).lines[0]?.pieces.map(({ serial }) => serial);
    expect(left).toEqual(['SC-2']);
  });
});

describe('two bins', () => {
  it('of which one is named when it ships: it leaves from there', async () => {
    const nail = await at.item();
    for (const bin of [0, 1, 2]) await at.shop.receive(nail, '5', '1', bin);
    const { id, version, lines } = await at.order(nail, '4');
    const part = { partId: lines[0]?.parts[0]?.id ?? 0, binId: at.bin(2), serials: [] };
    const line = { lineId: lines[0]?.id ?? 0, quantity: '4', parts: [part] };
    await server.call(api.shipOrder, { params: { id }, body: { version, lines: [line] } });
    const left = await server.call(api.itemBins, { params: { id: nail.id } });
    expect(left.map(({ binId, quantity }) => [binId, quantity])).toEqual([
      [at.bin(0), '5'],
      [at.bin(1), '5'],
      [at.bin(2), '1'],
    ]);
  });
});

describe('two portions', () => {
  it('of a build of which the first was all that the order wanted: the second is not finished as it ships', async () => {
    const { id, lines } = await at.order(at.box, '2');
    const partId = lines[0]?.parts[0]?.id ?? 0;
    const { id: buildId, version: planned } = await at.plan('5');
    const read = () => at.read('build', buildId);
    const wanted = { version: planned, orders: [{ partId, quantity: '2' }] };
    await server.call(api.setBuildFor, { params: { id: buildId }, body: wanted });
    await server.call(api.startBuild, { params: { id: buildId }, body: { version: (await read()).version } });
    await at.shop.pickAll(buildId);
    const portion = async (good: string) => ({
      version: (await read()).version,
      good,
      outputBinId: at.bin(),
      lines: [],
    });
    await server.call(api.finish, { params: { id: buildId }, body: await portion('2') });
    expect((await read()).orders).toMatchObject([{ quantity: '2', kept: '2' }]);
    const finishes = [{ buildId, ...(await portion('1')) }];
    const line = { lineId: lines[0]?.id ?? 0, quantity: '2' };
    const body = { version: await at.version('order', id), lines: [line], finishes };
    expect(await server.refused(api.shipOrder, { params: { id }, body })).toMatchObject({
      code: 'not-built-for',
      field: 'finishes.0.buildId',
    });
  });
});
