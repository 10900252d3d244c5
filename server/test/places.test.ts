import { api, type Store } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('places', () => {
  let server: TestServer;
  let shop: Workshop;
  let store: Store;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    store = shop.store;
  });
  afterAll(() => server.close());

  it('every store has a bench of its own, which nothing can be received into', async () => {
    const shed = await server.call(api.createStore, { body: { code: 'SHED', name: 'Shed' } });
    const bench = shed.bins.find(({ kind }) => kind === 'bench');
    expect(shed.bins).toHaveLength(1);
    const item = await shop.item('PLANK');
    const lines = [{ itemId: item.id, binId: bench?.id ?? 0, quantity: '1', unitCost: '1' }];
    const body = { kind: 'receipt' as const, lines };
    expect(await server.refused(api.receive, { body })).toMatchObject({ code: 'unknown-bin', field: 'lines.0.binId' });
  });

  it('bins keep the walking order, and their codes are unique within a store only', async () => {
    const add = (storeId: number, code: string, walkOrder: number) =>
      server.call(api.createBin, { params: { id: storeId }, body: { code, walkOrder } });
    await add(store.id, 'Z9', 0);
    const stores = await server.call(api.stores, {});
    const codes = stores[0]?.bins.map(({ code }) => code);
    expect(codes).toEqual(['Z9', 'A1', 'A2', 'B1', 'Bench']);
    const twice = { params: { id: store.id }, body: { code: 'z9', walkOrder: 4 } };
    expect(await server.refused(api.createBin, twice)).toMatchObject({ code: 'code-taken', field: 'code' });
    expect((await add(stores[1]?.id ?? 0, 'Z9', 1)).code).toBe('Z9');
  });

  it('are renamed by version, and a stale rename shows what stands there', async () => {
    const bin = shop.bin(0);
    const rename = (code: string, version: number) => ({ params: { id: bin }, body: { code, walkOrder: 1, version } });
    expect(await server.call(api.updateBin, rename('A1b', 0))).toMatchObject({ code: 'A1b', version: 1 });
    const stale = await server.refused(api.updateBin, rename('A1c', 0));
    expect(stale).toMatchObject({ code: 'stale-save', facts: { current: { code: 'A1b' } } });
    const move = { params: { id: store.id }, body: { code: 'MAIN', name: 'Front store', version: store.version } };
    expect(await server.call(api.updateStore, move)).toMatchObject({ name: 'Front store' });
    expect(await server.refused(api.updateStore, move)).toMatchObject({ code: 'stale-save' });
  });

  it('rates are named once', async () => {
    const body = { name: 'Bench hour', perHour: '30' };
    expect(await server.refused(api.createRate, { body })).toMatchObject({ code: 'code-taken', field: 'name' });
    expect(await server.refused(api.createRate, { body: { name: 'Night', perHour: '-1' } })).toMatchObject({
      field: 'perHour',
    });
    expect(await server.call(api.rates, {})).toEqual([{ id: 1, name: 'Bench hour', perHour: '24' }]);
  });
});
