import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let plank: Item;
let hive: Item;
let customerId: number;

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  plank = await shop.item('PLANK', { sellPrice: '5' });
  hive = await shop.item('HIVE', { source: 'made', sellPrice: '100', bin: 2 });
  await shop.receive(plank, '500', '3');
  await shop.define(hive, [[plank, '4']], '30');
  customerId = await shop.customer('LARK');
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const order = (id: number) => server.call(api.order, { params: { id } });
const build = (id: number) => server.call(api.build, { params: { id } });
const sell = (lines: object[], more: object = {}) => shop.sell(customerId, lines as never, more as never);
type Sold = Awaited<ReturnType<typeof sell>>;
const partOf = (sold: Sold, line = 0, part = 0) => sold.lines[line]?.parts[part]?.id ?? 0;
const pack = (sold: Sold, quantity: string, more: object = {}) => ({
  params: { id: sold.id },
  body: { lines: [{ partId: partOf(sold), binId: shop.bin(0), quantity, ...more }] },
});
const ship = async (sold: Sold, quantity: string, more: object = {}) => ({
  params: { id: sold.id },
  body: { version: (await order(sold.id)).version, lines: [{ lineId: sold.lines[0]?.id ?? 0, quantity }], ...more },
});
const forOrder = async (sold: Sold, quantity: string) => {
  const { builds } = await server.call(api.buildForOrders, {
    body: { chosen: [{ partId: partOf(sold), quantity }] },
  });
  return build(builds[0]?.id ?? 0);
};
const finished = async (id: number, good: string) => ({
  version: (await build(id)).version,
  good,
  outputBinId: shop.bin(2),
  lines: [],
});

describe('a parcel', () => {
  it('holds what was picked into it, counts for its order alone, and leaves first', async () => {
    const sold = await sell([{ itemId: plank.id, quantity: '10' }]);
    const before = await shop.stockOf(plank);
    const packed = await server.call(api.packOrder, pack(sold, '4'));
    expect(packed).toMatchObject({ openLines: 1, parcel: 'PC-0001' });
    expect(await order(sold.id)).toMatchObject({
      parcels: [{ number: 'PC-0001' }],
      lines: [{ canShip: '10', inParcel: '4', parts: [{ packed: '4', open: '6', ready: '6' }] }],
    });
    // Promised is less by what is packed, and so is what can be taken: free stays as it was.
    expect(await shop.stockOf(plank)).toMatchObject({ free: before.free, promised: '6', onBench: '4' });
    expect(await server.refused(api.packOrder, pack(sold, '7'))).toMatchObject({
      code: 'more-than-open',
      facts: { open: '6' },
    });
    const sent = await server.call(api.shipOrder, await ship(sold, '5'));
    expect((await server.document(sent)).movements).toMatchObject([
      { quantity: '-4', value: '-12', build: 'PC-0001' },
      { quantity: '-1', value: '-3', build: null },
    ]);
    // It leads to the order that it is for.
    expect((await server.document(sent)).for).toEqual({ kind: 'order', id: sold.id, number: sold.number });
    expect(await order(sold.id)).toMatchObject({ parcels: [], lines: [{ inParcel: '0', shipped: '5' }] });
    await server.call(api.undoDocument, { params: { id: sent.id }, body: {} });
    expect(await order(sold.id)).toMatchObject({
      parcels: [{ number: 'PC-0001' }],
      lines: [{ shipped: '0', inParcel: '4' }],
    });
    await server.call(api.undoDocument, { params: { id: packed.id }, body: {} });
    expect(await order(sold.id)).toMatchObject({ lines: [{ inParcel: '0', parts: [{ packed: '0', open: '10' }] }] });
    const { version } = await order(sold.id);
    await server.call(api.cancelOrder, { params: { id: sold.id }, body: { version, reason: 'a test' } });
  });

  it('is put back in part to where it came from, and whole when the order is given up', async () => {
    const sold = await sell([{ itemId: plank.id, quantity: '6' }]);
    await shop.receive(plank, '5', '3', 1);
    await server.call(api.packOrder, pack(sold, '5', { binId: shop.bin(1) }));
    const back = (quantity: string, more: object = {}) => ({
      params: { id: sold.id },
      body: { lines: [{ partId: partOf(sold), quantity, ...more }] },
    });
    expect(await server.refused(api.unpackOrder, back('6'))).toMatchObject({
      code: 'not-packed',
      facts: { packed: '5' },
    });
    const document = await server.call(api.unpackOrder, back('2'));
    expect((await server.document(document)).movements.map(({ bin, quantity }) => [bin, quantity])).toEqual([
      ['MAIN · Bench', '-2'],
      ['MAIN · A2', '2'],
    ]);
    // Less than what stands in it would leave something over; the order is refused with the way out.
    const { version } = await order(sold.id);
    const less = { version, customerId, lines: [{ id: sold.lines[0]?.id, itemId: plank.id, quantity: '2' }] };
    expect(await server.refused(api.saveOrder, { params: { id: sold.id }, body: less as never })).toMatchObject({
      code: 'parcel-first',
      field: 'lines.0.quantity',
      facts: { packed: '3', needed: '2', parcel: 'PC-0002' },
    });
    await server.call(api.cancelOrder, { params: { id: sold.id }, body: { version, reason: 'a test' } });
    expect(await order(sold.id)).toMatchObject({ standing: 'cancelled', lines: [{ parts: [{ packed: '0' }] }] });
  });

  it('of one order does not leave with another, nor twice', async () => {
    const [one, two] = [
      await sell([{ itemId: plank.id, quantity: '2' }]),
      await sell([{ itemId: plank.id, quantity: '2' }]),
    ];
    await server.call(api.packOrder, pack(one, '2'));
    const [parcel] = (await order(one.id)).parcels;
    const parcelId = parcel?.id;
    expect(await server.refused(api.shipOrder, await ship(two, '2', { parcelId }))).toMatchObject({
      code: 'parcel-elsewhere',
      field: 'parcelId',
      facts: { order: one.number },
    });
    await server.call(api.shipOrder, await ship(one, '1', { parcelId }));
    await server.call(api.shipOrder, await ship(one, '1', { parcelId }));
    expect(await server.refused(api.shipOrder, await ship(two, '2', { parcelId }))).toMatchObject({
      code: 'parcel-elsewhere',
    });
    const third = await sell([{ itemId: plank.id, quantity: '1' }]);
    expect(await server.refused(api.shipOrder, await ship(third, '1', { parcelId: 999 }))).toMatchObject({
      code: 'unknown-choice',
      field: 'parcelId',
    });
    await server.call(api.shipOrder, await ship(two, '2'));
    await server.call(api.shipOrder, await ship(third, '1'));
  });

  it('takes the serials and lots that were scanned, and gives back just these', async () => {
    const bell = await shop.item('BELL', { tracking: 'serial', sellPrice: '20' });
    await shop.receive(bell, '3', '7', 0, { serials: ['B1', 'B2', 'B3'] });
    const sold = await sell([{ itemId: bell.id, quantity: '2' }]);
    await server.call(api.packOrder, pack(sold, '2', { serials: ['B1', 'B3'] }));
    expect((await order(sold.id)).lines[0]?.parts[0]?.pieces.map(({ serial }) => serial)).toEqual(['B1', 'B3']);
    const line = { partId: partOf(sold), quantity: '1', serials: ['B2'] };
    expect(await server.refused(api.unpackOrder, { params: { id: sold.id }, body: { lines: [line] } })).toMatchObject({
      code: 'serial-unknown',
      field: 'lines.0.serials',
    });
    await server.call(api.unpackOrder, { params: { id: sold.id }, body: { lines: [{ ...line, serials: ['B1'] }] } });
    const sent = await server.call(api.shipOrder, await ship(sold, '1'));
    expect((await server.document(sent)).movements).toMatchObject([{ serial: 'B3', quantity: '-1', value: '-7' }]);
  });
});

describe('a build for orders', () => {
  it('is planned for what nothing else brings, is theirs, and what it finishes is kept for them', async () => {
    await shop.receive(hive, '2', '10', 2);
    const sold = await sell([{ itemId: hive.id, quantity: '5' }], { wantedOn: '2026-12-12' });
    const look = await server.call(api.lookToBuild, { body: { orderIds: [sold.id] } });
    expect(look).toMatchObject({
      lines: [{ order: sold.number, open: '5', ready: '2', building: '0', short: '3' }],
      products: [{ code: 'HIVE', quantity: '3', canStart: '3' }],
      missing: [],
    });
    const planned = await forOrder(sold, '3');
    expect(planned).toMatchObject({
      quantity: '3',
      due: '2026-12-12',
      orders: [{ order: sold.number, customer: 'LARK & Co', quantity: '3', kept: '0' }],
    });
    expect(await order(sold.id)).toMatchObject({
      outlook: 'in-time',
      // It is wanted later, but with its parts there it can be done today.
      lines: [
        {
          completeOn: '2026-11-23',
          parts: [
            {
              builds: [{ number: planned.number, state: 'planned' }],
              comes: [{ number: planned.number, quantity: '3', on: '2026-11-23' }],
            },
          ],
        },
      ],
    });
    // Nobody else is given what it makes, however early they want it.
    const sooner = await sell([{ itemId: hive.id, quantity: '3' }], { wantedOn: '2026-12-01' });
    expect(await order(sooner.id)).toMatchObject({ lines: [{ canShip: '2', completeOn: null }] });
    await server.did('build', api.startBuild, { params: { id: planned.id }, body: { version: planned.version } });
    await shop.pickAll(planned.id);
    const posted = await server.call(api.finish, {
      params: { id: planned.id },
      body: await finished(planned.id, '2'),
    });
    expect(await order(sold.id)).toMatchObject({
      lines: [{ inParcel: '2', parts: [{ packed: '2', builds: [{ quantity: '3', kept: '2' }] }] }],
    });
    await server.call(api.undoDocument, { params: { id: posted.id }, body: {} });
    expect(await order(sold.id)).toMatchObject({
      lines: [{ inParcel: '0', parts: [{ packed: '0', builds: [{ quantity: '3', kept: '0' }] }] }],
    });
    expect(await build(planned.id)).toMatchObject({ state: 'on-bench', finished: '0' });
    await server.call(api.finish, { params: { id: planned.id }, body: await finished(planned.id, '3') });
    expect(await order(sold.id)).toMatchObject({ lines: [{ inParcel: '3' }] });
    // Begun is first in turn: what is on the shelf is its own now too.
    expect(await order(sold.id)).toMatchObject({ lines: [{ canShip: '5' }] });
    for (const { id } of [sooner, sold]) {
      const { version } = await order(id);
      await server.call(api.cancelOrder, { params: { id }, body: { version, reason: 'a test' } });
    }
    expect(await shop.stockOf(hive)).toMatchObject({ onHand: '5', promised: '0' });
  });

  it('serves several orders in their turn, and is parted with them', async () => {
    const later = await sell([{ itemId: hive.id, quantity: '7' }], { wantedOn: '2026-12-20' });
    const sooner = await sell([{ itemId: hive.id, quantity: '4' }], { wantedOn: '2026-12-10' });
    const { builds } = await server.call(api.buildForOrders, {
      body: {
        chosen: [
          { partId: partOf(later), quantity: '4' },
          { partId: partOf(sooner), quantity: '2' },
        ],
      },
    });
    const id = builds[0]?.id ?? 0;
    expect(await build(id)).toMatchObject({
      quantity: '6',
      due: '2026-12-10',
      orders: [{ quantity: '2' }, { quantity: '4' }],
    });
    // Three go ahead: both of the sooner, one of the later.
    const { version } = await build(id);
    await server.call(api.startBuild, { params: { id }, body: { version, quantity: '3' } });
    expect(await build(id)).toMatchObject({ orders: [{ order: sooner.number, quantity: '2' }, { quantity: '1' }] });
    const [rest] = (await build(id)).related;
    expect(await build(rest?.id ?? 0)).toMatchObject({
      quantity: '3',
      orders: [{ order: later.number, quantity: '3' }],
    });
    // Fewer than it is for are refused; for stock they can be made.
    const other = await build(rest?.id ?? 0);
    const fewer = { quantity: '2', due: null, outputBinId: shop.bin(2), remark: '', version: other.version };
    expect(await server.refused(api.updateBuild, { params: { id: other.id }, body: fewer })).toMatchObject({
      code: 'built-for-orders',
      facts: { orders: [later.number], promised: '3' },
    });
    const some = { version: other.version, orders: [{ partId: partOf(later), quantity: '1' }] };
    await server.call(api.setBuildFor, { params: { id: other.id }, body: some });
    expect(await build(other.id)).toMatchObject({ orders: [{ quantity: '1' }] });
    const most = { version: other.version + 1, orders: [{ partId: partOf(later), quantity: '4' }] };
    expect(await server.refused(api.setBuildFor, { params: { id: other.id }, body: most })).toMatchObject({
      code: 'more-than-planned',
    });
    // A build that is given up is for nobody.
    await server.call(api.cancelBuild, { params: { id: other.id }, body: { version: other.version + 1 } });
    expect((await order(later.id)).lines[0]?.parts[0]?.builds).toMatchObject([{ id, quantity: '1' }]);
    // And an order that is given up leaves the build for stock.
    for (const sold of [later, sooner]) {
      const now = await order(sold.id);
      await server.call(api.cancelOrder, { params: { id: sold.id }, body: { version: now.version, reason: 'a test' } });
    }
    const stays = await build(id);
    expect(stays).toMatchObject({ state: 'on-bench', orders: [] });
    await server.call(api.cancelBuild, { params: { id }, body: { version: stays.version } });
  });

  it('keeps what is good for whom wants it first; nothing rejected, and nothing that goes into quarantine', async () => {
    const later = await sell([{ itemId: hive.id, quantity: '2' }], { wantedOn: '2026-12-20' });
    const sooner = await sell([{ itemId: hive.id, quantity: '3' }], { wantedOn: '2026-12-10' });
    const { onHand } = await shop.stockOf(hive);
    const chosen = [later, sooner].map((sold) => ({ partId: partOf(sold), quantity: sold === later ? '2' : '3' }));
    const { builds } = await server.call(api.buildForOrders, { body: { chosen } });
    const id = builds[0]?.id ?? 0;
    const { version } = await build(id);
    await server.call(api.startBuild, { params: { id }, body: { version } });
    await shop.pickAll(id);
    const finish = async (good: string, more: object) =>
      server.call(api.finish, { params: { id }, body: { ...(await finished(id, good)), ...more } });
    const kept = async () =>
      Promise.all([sooner, later].map(async (sold) => (await order(sold.id)).lines[0]?.inParcel));
    const reasons = await server.call(api.reasons, {});
    const rejectReasonId = reasons.find(({ usedFor }) => usedFor === 'reject')?.id ?? 0;
    await finish('2', { rejected: '1', rejectReasonId, rejectCost: 'written-off' });
    expect(await kept()).toEqual(['2', '0']);
    expect(await build(id)).toMatchObject({
      orders: [
        { order: sooner.number, quantity: '3', kept: '2' },
        { order: later.number, quantity: '1', kept: '0' },
      ],
    });
    const quarantine = await server.call(api.createBin, {
      params: { id: shop.store.id },
      body: { code: 'Q1', pickingOrder: 90, kind: 'quarantine' },
    });
    await finish('1', { outputBinId: quarantine.id });
    expect(await kept()).toEqual(['2', '0']);
    await finish('1', {});
    expect(await kept()).toEqual(['3', '0']);
    expect(await shop.stockOf(hive)).toMatchObject({ onHand: String(Number(onHand) + 1), held: '1' });
    for (const sold of [later, sooner]) {
      const now = await order(sold.id);
      await server.call(api.cancelOrder, { params: { id: sold.id }, body: { version: now.version, reason: 'a test' } });
    }
  });

  it('is planned once by two people who saw the same shortage; the second is told what the first planned', async () => {
    const sold = await sell([{ itemId: hive.id, quantity: '9' }]);
    const chosen = [{ partId: partOf(sold), quantity: '3', building: '0' }];
    const both = await Promise.allSettled([1, 2].map(() => server.call(api.buildForOrders, { body: { chosen } })));
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    expect(await server.refused(api.buildForOrders, { body: { chosen } })).toMatchObject({
      code: 'built-meanwhile',
      field: 'chosen.0.quantity',
      facts: { building: '3' },
    });
    const again = [{ partId: partOf(sold), quantity: '3', building: '3' }];
    const { builds } = await server.call(api.buildForOrders, { body: { chosen: again } });
    expect(builds).toHaveLength(1);
  });

  it('goes along with what is split off its line, as far as that needs it', async () => {
    const sold = await sell([
      { itemId: hive.id, quantity: '9' },
      { itemId: plank.id, quantity: '1' },
    ]);
    const first = await forOrder(sold, '4');
    const second = await forOrder(sold, '2');
    const line = sold.lines[0]?.id ?? 0;
    const split = async (from: Sold, quantity: string) => {
      const { version, lines } = await order(from.id);
      const body = { version, wantedOn: null, lines: [{ lineId: lines[0]?.id ?? 0, quantity }] };
      return order((await server.call(api.splitOrder, { params: { id: from.id }, body })).id);
    };
    const made = async (of: Sold) =>
      (await order(of.id)).lines[0]?.parts[0]?.builds.map(({ id, quantity }) => [id, quantity]);
    const other = await split(sold, '5');
    expect(other.lines[0]).toMatchObject({ quantity: '5' });
    expect(await made(other)).toEqual([
      [first.id, '4'],
      [second.id, '1'],
    ]);
    expect(await made(sold)).toEqual([[second.id, '1']]);
    expect((await order(sold.id)).lines[0]).toMatchObject({ id: line, quantity: '4' });
    expect((await build(second.id)).orders.map(({ orderId, quantity }) => [orderId, quantity])).toEqual([
      [sold.id, '1'],
      [other.id, '1'],
    ]);
  });

  it('is refused with a way out beyond what a line needs, for what is bought, and before it is confirmed', async () => {
    const sold = await sell([
      { itemId: hive.id, quantity: '2' },
      { itemId: plank.id, quantity: '2' },
    ]);
    const quote = await sell([{ itemId: hive.id, quantity: '2' }], { confirm: false });
    const refused = (partId: number, quantity: string) =>
      server.refused(api.buildForOrders, { body: { chosen: [{ partId, quantity }] } });
    expect(await refused(partOf(sold), '3')).toMatchObject({ code: 'more-than-needed', facts: { needed: '2' } });
    expect(await refused(partOf(sold), '0.5')).toMatchObject({ code: 'too-many-decimals' });
    expect(await refused(partOf(sold, 1), '1')).toMatchObject({ code: 'no-way-to-build' });
    expect(await refused(partOf(quote), '1')).toMatchObject({ code: 'order-not-confirmed' });
    expect(await refused(99999, '1')).toMatchObject({ code: 'unknown-line', field: 'chosen.0.partId' });
    const own = await forOrder(sold, '2');
    expect(await refused(partOf(sold), '1')).toMatchObject({ code: 'more-than-needed', facts: { needed: '0' } });
    // What the line needs no more is for stock.
    const { version } = await order(sold.id);
    const less = {
      version,
      customerId,
      lines: sold.lines.map(({ id, itemId }) => ({ id, itemId, quantity: '1' })),
    };
    await server.call(api.saveOrder, { params: { id: sold.id }, body: less });
    expect(await build(own.id)).toMatchObject({ quantity: '2', orders: [{ quantity: '1' }] });
  });

  it('is finished by shipping, all of it or nothing', async () => {
    const { value } = await shop.stockOf(plank);
    // One more than shelves and build have together.
    const most = `${Number((await shop.stockOf(hive)).onHand) + 7}`;
    const sold = await sell([{ itemId: hive.id, quantity: most }]);
    const planned = await forOrder(sold, '6');
    const finish = { ...(await finished(planned.id, '6')), buildId: planned.id };
    const all = await ship(sold, most, { finishes: [finish] });
    expect(await server.refused(api.shipOrder, all)).toMatchObject({ code: 'stock-short' });
    expect(await build(planned.id)).toMatchObject({ state: 'planned', version: planned.version });
    expect((await shop.stockOf(plank)).value).toBe(value);
    const actual = planned.lines.flatMap(({ id, kind }) => (kind === 'part' ? { lineId: id, actual: '25' } : []));
    const sent = await server.call(api.shipOrder, await ship(sold, '6', { finishes: [{ ...finish, lines: actual }] }));
    expect(await build(planned.id)).toMatchObject({ state: 'finished', finished: '6' });
    // 25 planks at 3.00 and three hours at 24.00.
    expect((await server.document(sent)).movements).toMatchObject([{ quantity: '-6' }]);
    expect(Number((await shop.stockOf(plank)).value)).toBe(Number(value) - 75);
    expect(await order(sold.id)).toMatchObject({ standing: 'partly-shipped', lines: [{ shipped: '6' }] });
    const other = await forOrder(await sell([{ itemId: hive.id, quantity: '1' }]), '1');
    const wrong = { ...(await finished(other.id, '1')), buildId: other.id };
    expect(await server.refused(api.shipOrder, await ship(sold, '1', { finishes: [wrong] }))).toMatchObject({
      code: 'not-built-for',
      field: 'finishes.0.buildId',
    });
  });
});
