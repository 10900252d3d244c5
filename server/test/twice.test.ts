import { api } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

/** One thing in two parts: what the first took is gone for the second, and each is told of itself. */
let server: TestServer;
let at: Ground;
beforeAll(async () => {
  server = await TestServer.start();
  at = await Ground.of(server);
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

describe('a part that is named twice', () => {
  it('is packed no more than is open, and taken out no more than is packed', async () => {
    const { id, lines } = await at.order(await at.stocked(), '5');
    const partId = lines[0]?.parts[0]?.id ?? 0;
    const pack = (...amounts: string[]) => ({
      params: { id },
      body: { lines: amounts.map((quantity) => ({ partId, binId: at.bin(), quantity })) },
    });
    expect(await server.refused(api.packOrder, pack('3', '3'))).toMatchObject({
      code: 'more-than-open',
      field: 'lines.1.quantity',
      facts: { open: '2' },
    });
    await server.call(api.packOrder, pack('3', '2'));
    const unpack = (...amounts: string[]) => ({
      params: { id },
      body: { lines: amounts.map((quantity) => ({ partId, quantity, serials: [] })) },
    });
    expect(await server.refused(api.unpackOrder, unpack('3', '3'))).toMatchObject({
      code: 'not-packed',
      field: 'lines.1.quantity',
      facts: { packed: '2' },
    });
    await server.call(api.unpackOrder, unpack('3', '2'));
    expect((await at.read('order', id)).lines[0]?.parts[0]).toMatchObject({ packed: '0', open: '5' });
  });

  it('is counted as still here for its first lines first, and nothing of it twice', async () => {
    const nail = await at.item();
    const line = { itemId: nail.id, binId: at.bin(), quantity: '5', unitCost: '1' };
    const { id } = await server.call(api.receive, { body: { kind: 'receipt', lines: [line, line, line] } });
    const here = async () =>
      (await server.call(api.receiptPrices, { params: { id } })).lines.map(({ here: one }) => one);
    expect(await here()).toEqual(['5', '5', '5']);
    const less = { itemId: nail.id, binId: at.bin(), change: '-3', unitCost: null };
    await server.call(api.adjust, { body: { reasonId: await at.reason('adjustment'), lines: [less] } });
    expect(await here()).toEqual(['5', '5', '2']);
    await server.call(api.adjust, {
      body: { reasonId: await at.reason('adjustment'), lines: [{ ...less, change: '-5' }] },
    });
    expect(await here()).toEqual(['5', '2', '0']);
  });
});

it('a return is of one customer: lines of two are refused at the second, and none of another arrives', async () => {
  const first = await at.cameBack();
  const other = await at.shop.customer(at.code());
  const { id, version, lines } = await at.shop.sell(other, [{ itemId: at.pin.id, quantity: '2', price: '3' }]);
  const lineId = lines[0]?.id ?? 0;
  const { id: shipmentId } = await server.call(api.shipOrder, {
    params: { id },
    body: { version, lines: [{ lineId, quantity: '2' }] },
  });
  const body = { arrived: false, lines: [first, { ...first, shipmentId, lineId }] };
  expect(await server.refused(api.announceReturn, { body })).toMatchObject({
    code: 'return-of-several',
    field: 'lines.1.shipmentId',
  });
  const told = await server.call(api.announceReturn, { body: { arrived: false, lines: [first] } });
  const theirs = { version: await at.version('return', told.id), lines: [{ ...first, shipmentId, lineId }] };
  expect(await server.refused(api.arriveReturn, { params: { id: told.id }, body: theirs })).toMatchObject({
    code: 'return-of-several',
    field: 'lines.0.shipmentId',
  });
});

it('an order of which one line has left is not cancelled', async () => {
  const line = { itemId: at.pin.id, quantity: '2', price: '3' };
  const { id, version, lines } = await at.shop.sell(at.customerId, [line, line]);
  const left = { version, lines: [{ lineId: lines[1]?.id ?? 0, quantity: '1' }] };
  await server.call(api.shipOrder, { params: { id }, body: left });
  const body = { version: await at.version('order', id), reason: 'No more' };
  expect(await server.refused(api.cancelOrder, { params: { id }, body })).toMatchObject({ code: 'order-has-shipped' });
});

it('one item of two suppliers is ordered of each by what they call it', async () => {
  const body = { code: at.code(), name: 'South' };
  const { id: other } = await server.call(api.createSupplier, { body });
  const offer = (supplierId: number, code: string) => ({ supplierId, code, price: '1' });
  for (const suppliers of [
    [offer(at.supplierId, 'N-7'), offer(other, 'S-9')],
    [offer(other, 'S-9'), offer(at.supplierId, 'N-7')],
  ]) {
    const item = await at.item({ suppliers });
    const lines = [{ itemId: item.id, quantity: '1', price: '1' }];
    const orders = await Promise.all([at.supplierId, other].map((supplierId) => at.shop.order({ supplierId, lines })));
    expect(orders.flatMap((order) => order.lines.map(({ supplierCode }) => supplierCode))).toEqual(['N-7', 'S-9']);
  }
});

it('two items of one supplier learn how long each of them takes', async () => {
  const start = new Date('2026-03-02T09:00:00');
  let now = start;
  const own = await TestServer.start(undefined, { now: () => now });
  const shop = await Ground.of(own);
  const take = async (code: string, days: number) => {
    const item = await shop.item({ suppliers: [{ supplierId: shop.supplierId, code, price: '1' }] });
    const lines = [{ itemId: item.id, quantity: '5', price: '1' }];
    const order = await shop.shop.order({ supplierId: shop.supplierId, lines }, 'print');
    now = new Date(now.getTime() + days * 86_400_000);
    const came = { lineId: order.lines[0]?.id ?? 0, binId: shop.bin(), quantity: '5', unitCost: '1' };
    await own.call(api.receivePurchase, { params: { id: order.id }, body: { lines: [came] } });
    return { itemId: item.id, quantity: '5', price: '1' };
  };
  const lines = [await take('A', 3), await take('B', 9)];
  const { offers } = await own.call(api.supplier, { params: { id: shop.supplierId } });
  expect(offers.map(({ code, learnt }) => [code, learnt?.usual])).toEqual([
    ['A', 3],
    ['B', 9],
  ]);
  // Ordered again on a Saturday, each is expected so many days on, or on the next working day.
  const next = await shop.shop.order({ supplierId: shop.supplierId, lines }, 'print');
  expect(next.lines.map(({ expectedOn }) => expectedOn)).toEqual(['2026-03-17', '2026-03-23']);
  await own.close();
});

it('a build of which some are finished is finished when the rest is called off', async () => {
  const { id } = await at.picked('3');
  const body = { version: await at.version('build', id), good: '1', outputBinId: at.bin(), lines: [] };
  await server.call(api.finish, { params: { id }, body });
  await server.call(api.cancelBuild, { params: { id }, body: { version: await at.version('build', id) } });
  expect(await at.read('build', id)).toMatchObject({ state: 'finished', finished: '1' });
});

it('of two lots on a bench the one that is held goes back first', async () => {
  const wax = await at.item({ tracking: 'lot', lotOrder: 'free' });
  for (const lot of ['L1', 'L2', 'L3']) await at.shop.receive(wax, '2', '1', 0, { lot });
  const product = await at.item({ source: 'made' });
  await at.shop.define(product, [[wax, '6']]);
  const { id, lines } = await at.shop.start(product, '1');
  const lineId = lines[0]?.id ?? 0;
  const taken = ['L1', 'L2', 'L3'].map((lot) => ({ lineId, binId: at.bin(), quantity: '2', lot }));
  await server.call(api.pick, { params: { id }, body: { lines: taken } });
  const { rows } = await server.call(api.lots, { query: { itemId: wax.id, q: 'L2' } });
  await server.call(api.hold, { body: { reasonId: await at.reason('hold'), lotIds: rows.map((row) => row.id) } });
  await server.call(api.takeBack, { params: { id }, body: { lineId, quantity: '2', serials: [] } });
  const left = (await at.read('build', id)).lines[0]?.pieces.map(({ lot }) => lot);
  expect(left).toEqual(['L1', 'L3']);
});

it('whose turn is set twice is so for the second reason', async () => {
  const { id } = await at.order();
  const set = (was: number | null, rank: number | null, reason: string) =>
    server.call(api.setPriorities, { body: { lines: [{ kind: 'order', id, was, rank, reason }] } } as never);
  await set(null, -1, 'Promised by phone');
  await set(-1, 1, 'Paid late');
  const rows = await server.call(api.priorities, {});
  expect(rows.find((row) => row.id === id)).toMatchObject({ rank: 1, reason: 'Paid late' });
});

it('what is below zero in one bin is offered to be put right only from a bin that has all of it', async () => {
  const nail = await at.item();
  await at.shop.receive(nail, '2', '1', 0);
  await at.shop.receive(nail, '4', '1', 1);
  await at.shop.receive(nail, '5', '1', 2);
  const reasonId = await at.reason('adjustment');
  const line = { itemId: nail.id, binId: at.bin(), change: '-7', unitCost: null };
  await server.call(api.adjust, { body: { reasonId, lines: [line], override: { reason: 'Counted' } } });
  const row = (await server.call(api.putRight, {})).find(({ itemId }) => itemId === nail.id);
  expect(row).toMatchObject({ quantity: '-5', elsewhere: [{ binId: at.bin(2), quantity: '5' }] });
  // To have looked, without putting anything right, is the owner's.
  await server.signIn(2);
  const seen = { params: { id: row?.id ?? 0 }, body: { by: 'seen', remark: 'Looked' } } as const;
  expect(await server.refused(api.settle, seen)).toMatchObject({ code: 'owner-only' });
  await server.signIn(1);
});

it('of two items below zero each is offered the bins that have that item', async () => {
  const reasonId = await at.reason('adjustment');
  const override = { reason: 'Counted' };
  const below = async (inOther: string) => {
    const nail = await at.item();
    await at.shop.receive(nail, inOther, '1', 1);
    const lines = [{ itemId: nail.id, binId: at.bin(), change: '-2', unitCost: '1' }];
    await server.call(api.adjust, { body: { reasonId, lines, override } });
    return nail.id;
  };
  const ids = [await below('3'), await below('7')];
  const rows = (await server.call(api.putRight, {})).filter(({ itemId }) => ids.includes(itemId ?? 0));
  const offered = rows.map(({ itemId, elsewhere }) => [itemId, elsewhere.map(({ quantity }) => quantity)]);
  expect(offered.toSorted(([a], [b]) => Number(a) - Number(b))).toEqual([
    [ids[0], ['3']],
    [ids[1], ['7']],
  ]);
});

it('of two lots in one bin the one that is not there is counted', async () => {
  const wax = await at.item({ tracking: 'lot' });
  await at.shop.receive(wax, '4', '1', 0, { lot: 'W1', bestBefore: '2027-01-01' });
  await at.shop.receive(wax, '5', '1', 0, { lot: 'W2', bestBefore: '2027-02-01' });
  const { id } = await at.order(wax, '9');
  const run = await server.call(api.makeRun, { body: { goals: [{ kind: 'order', id }] } });
  const body = { binId: at.bin(), itemId: wax.id, lot: 'W2' };
  await server.call(api.notThere, { params: { id: run.id }, body });
  const { stops, missing } = await server.call(api.pickRun, { params: { id: run.id } });
  expect(stops.map(({ lot, quantity }) => [lot, quantity])).toEqual([['W1', '4']]);
  expect(missing).toMatchObject([{ quantity: '5' }]);
  const { version } = await server.call(api.pickRun, { params: { id: run.id } });
  await server.call(api.endRun, { params: { id: run.id }, body: { version } });
});

it('a part that builds and orders wait for is short by what both lack', async () => {
  const nail = await at.stocked('1');
  const made = await at.item({ source: 'made' });
  await at.define(made, [partLine(nail, '2')]);
  await at.shop.plan(made, '2');
  await at.order(nail, '3');
  const { holdUps } = await server.call(api.today, {});
  expect(holdUps.find(({ itemId }) => itemId === nail.id)).toMatchObject({ short: '6', builds: 1, orders: 1 });
});

it('what was given up of an order is promised to nobody in the answer to it', async () => {
  const { id, version, lines } = await at.order(at.pin, '5');
  const line = { lineId: lines[0]?.id ?? 0, quantity: '2' };
  await server.call(api.shipOrder, { params: { id }, body: { version, lines: [line] } });
  const dropped = { version: await at.version('order', id), lineIds: [line.lineId], reason: 'No more' };
  await server.call(api.dropOrder, { params: { id }, body: dropped });
  const xml = await (await server.fetch(`/api/orders/${id}/response.xml`)).text();
  expect(xml).toMatch(/<cbc:Quantity[^>]*>2<\/cbc:Quantity>/);
  expect(xml).not.toMatch(/<cbc:Quantity[^>]*>5<\/cbc:Quantity>/);
});

describe('two products of one order', () => {
  it('are built apart, each order by itself or all together', async () => {
    const [one, two] = [(await at.product()).item, (await at.product()).item];
    const line = ({ id }: { id: number }, quantity: string) => ({ itemId: id, quantity, price: '3' });
    const chosen = async () => {
      const sold = await at.shop.sell(at.customerId, [line(one, '2'), line(two, '3')]);
      return sold.lines.map(({ parts, quantity }) => ({ partId: parts[0]?.id ?? 0, quantity }));
    };
    const built = async (together: 'per-order' | 'per-product') => {
      const body = { together, chosen: [...(await chosen()), ...(await chosen())] } as never;
      const { builds } = await server.call(api.buildForOrders, { body });
      const all = await Promise.all(builds.map(({ id }) => at.read('build', id)));
      return all.map(({ itemId, quantity }) => [itemId, quantity]);
    };
    expect(await built('per-order')).toEqual([
      [one.id, '2'],
      [two.id, '3'],
      [one.id, '2'],
      [two.id, '3'],
    ]);
    expect(await built('per-product')).toEqual([
      [one.id, '4'],
      [two.id, '6'],
    ]);
  });
});

describe('taking two of one product apart', () => {
  const plan = async (itemId: number) => {
    const { lines, revisionId } = await server.call(api.apartPlan, { params: { id: itemId } });
    const back = lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: at.bin() }));
    return { itemId, revisionId, binId: at.bin(), quantity: '1', leftover: 'spread' as const, lines: back };
  };

  it('asks for both together whether somebody is promised one, and not for what came back', async () => {
    const { item } = await at.product();
    await at.shop.receive(item, '5', '5');
    // Two of three went out, and one of them came back.
    const { pieceId } = await at.returned(true, item);
    await at.order(item, '2');
    const own = await plan(item.id);
    expect(await at.read('item', item.id)).toMatchObject({ free: '1' });
    const body = { ...own, others: [own] };
    expect(await server.refused(api.takeApart, { body })).toMatchObject({
      code: 'apart-promised',
      facts: { name: item.name, free: '1' },
    });
    await server.call(api.takeApart, { body: own });
    // One that came back is promised to nobody; beside one from the shelf it is no deed of its return alone.
    const other = await at.stocked('1', { source: 'made' });
    await at.define(other, [partLine(at.pin, '1')]);
    const mixed = { ...own, pieceId, others: [await plan(other.id)] };
    const posted = await server.posted(api.takeApart, { body: mixed });
    expect(posted.for).toBeNull();
    await server.call(api.undoDocument, { params: { id: posted.id }, body: {} });
    const alone = await server.posted(api.takeApart, { body: { ...own, pieceId } });
    expect(alone.for).toMatchObject({ kind: 'return' });
  });
});
