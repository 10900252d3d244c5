import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** A hold holds wherever goods stand: what was picked before it was held neither leaves nor is used. */
describe('what is held after it was picked', () => {
  let server: TestServer;
  let shop: Workshop;
  let [wax, lamp, unit]: Item[] = [];
  let reasonId = 0;
  let customerId = 0;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'hold')?.id ?? 0;
    customerId = await shop.customer('LARK');
    wax = await shop.item('WAX', { tracking: 'lot', lotOrder: 'free' });
    lamp = await shop.item('LAMP', { source: 'made', bin: 2 });
    unit = await shop.item('UNIT', { source: 'made', tracking: 'serial', bin: 2 });
    await shop.receive(wax, '20', '3', 0, { lot: 'L1' });
    await shop.receive(wax, '20', '3', 1, { lot: 'L2' });
    await shop.define(lamp, [[wax, '2']]);
    await shop.define(unit, [[wax, '1']]);
    await shop.receive(unit, '2', '9', 2, { serials: ['U1', 'U2'] });
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  const lotIds = async (code: string) => {
    const { rows } = await server.call(api.lots, { query: { itemId: wax?.id ?? 0, q: code } });
    return rows.map(({ id }) => id);
  };
  const serialIds = async (code: string) => {
    const { rows } = await server.call(api.serials, { params: { id: unit?.id ?? 0 }, query: { q: code } });
    return rows.map(({ id }) => id);
  };
  const order = (id: number) => server.call(api.order, { params: { id } });
  const listed = async (id: number) =>
    (await server.call(api.orders, { query: { show: 'open' } })).rows.find((row) => row.id === id);
  const ship = async (id: number) => {
    const { version, lines } = await order(id);
    const body = { version, lines: lines.map((line) => ({ lineId: line.id, quantity: line.open, parts: [] })) };
    return { params: { id }, body };
  };

  it('does not leave with its order, and whose order it is is told', async () => {
    const { id, number, lines } = await shop.sell(customerId, [{ itemId: wax?.id ?? 0, quantity: '4', price: '9' }]);
    const partId = lines[0]?.parts[0]?.id ?? 0;
    const packed = (quantity: string, lot: string, bin: number) => ({ partId, binId: shop.bin(bin), quantity, lot });
    await server.call(api.packOrder, { params: { id }, body: { lines: [packed('3', 'L1', 0), packed('1', 'L2', 1)] } });
    expect(await listed(id)).toMatchObject({ canLeave: true, outlook: 'ready' });
    const { stops } = await server.call(api.hold, { body: { reasonId, lotIds: await lotIds('L1') } });
    expect(stops).toEqual([{ kind: 'order', id, number }]);
    expect(await listed(id)).toMatchObject({
      canLeave: false,
      outlook: 'unknown',
      shares: { ready: 0.25, short: 0.75 },
    });
    expect((await order(id)).lines[0]).toMatchObject({
      canShip: '1',
      inParcel: '1',
      parts: [{ packed: '4', stuck: '3', completeOn: null }],
    });
    expect(await server.refused(api.shipOrder, await ship(id))).toMatchObject({
      code: 'is-held',
      facts: { code: 'L1' },
    });
    // What stands beside it in the parcel may go.
    const body = {
      version: (await order(id)).version,
      lines: [{ lineId: lines[0]?.id ?? 0, quantity: '1', parts: [] }],
    };
    const sent = await server.call(api.shipOrder, { params: { id }, body });
    await server.call(api.undoDocument, { params: { id: sent.id }, body: {} });
    await server.call(api.release, { body: { lotIds: await lotIds('L1') } });
    // All of it stands in the parcel: it is there now, with nothing left to wait for.
    expect((await order(id)).lines[0]).toMatchObject({
      completeOn: '',
      parts: [{ open: '0', packed: '4', completeOn: '' }],
    });
    await server.call(api.shipOrder, await ship(id));
  });

  it('is not used on the bench, and what is not held is used first', async () => {
    const build = await shop.start(lamp as Item, '2');
    const pick = (lot: string, bin: number) => ({
      params: { id: build.id },
      body: { lines: [{ lineId: build.lines[0]?.id ?? 0, binId: shop.bin(bin), quantity: '2', lot }] },
    });
    await server.call(api.pick, pick('L1', 0));
    await server.call(api.pick, pick('L2', 1));
    const { stops } = await server.call(api.hold, { body: { reasonId, lotIds: await lotIds('L1') } });
    expect(stops).toEqual([{ kind: 'build', id: build.id, number: build.number }]);
    const read = () => server.call(api.build, { params: { id: build.id } });
    expect((await read()).held).toMatchObject([{ code: 'WAX', quantity: '2' }]);
    const { onBench } = await server.call(api.today, {});
    expect(onBench.find(({ id }) => id === build.id)?.held).toHaveLength(1);
    const { cards } = await server.call(api.board, {});
    expect(cards.find(({ buildId }) => buildId === build.id)?.blocks[0]).toMatchObject({ kind: 'held', quantity: '2' });
    const comes = async () => (await server.call(api.coming, { params: { id: lamp?.id ?? 0 } }))[0]?.on;
    expect(await comes()).toBeNull();
    const finish = async (good: string) => {
      const { version, outputBinId } = await server.call(api.build, { params: { id: build.id } });
      return { params: { id: build.id }, body: { version, good, outputBinId, lines: [] } };
    };
    expect(await server.refused(api.finish, await finish('2'))).toMatchObject({ code: 'is-held' });
    const { id } = await server.withBuild(api.finish, await finish('1'));
    const { movements } = await server.call(api.document, { params: { id } });
    expect(movements.filter(({ code }) => code === 'WAX').map(({ lot }) => lot)).toEqual(['L2']);
    expect(await server.refused(api.finish, await finish('1'))).toMatchObject({ code: 'is-held' });
    const body = { lineId: build.lines[0]?.id ?? 0, quantity: '1', serials: [] };
    await server.call(api.takeBack, { params: { id: build.id }, body });
    expect((await read()).held).toMatchObject([{ quantity: '1' }]);
    const again = { lineId: body.lineId, binId: shop.bin(1), quantity: '1', lot: 'L2' };
    await server.call(api.pick, { params: { id: build.id }, body: { lines: [again] } });
    await server.call(api.release, { body: { lotIds: await lotIds('L1') } });
    expect((await read()).held).toEqual([]);
    expect(await comes()).not.toBeNull();
    await server.call(api.finish, await finish('1'));
  });

  it('is not taken apart', async () => {
    await server.call(api.hold, { body: { reasonId, serialIds: await serialIds('U1') } });
    const { revisionId, lines } = await server.call(api.apartPlan, { params: { id: unit?.id ?? 0 }, query: {} });
    const apart = (serial: string) => ({
      body: {
        itemId: unit?.id ?? 0,
        revisionId,
        binId: shop.bin(2),
        quantity: '1',
        serials: [serial],
        leftover: 'written-off' as const,
        lines: lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: shop.bin(0), lot: 'L1' })),
      },
    });
    expect(await server.refused(api.takeApart, apart('U1'))).toMatchObject({ code: 'is-held', field: 'serials' });
    await server.call(api.takeApart, apart('U2'));
  });
});
