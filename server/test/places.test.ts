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
    const add = (storeId: number, code: string, pickingOrder: number) =>
      server.call(api.createBin, { params: { id: storeId }, body: { code, pickingOrder } });
    await add(store.id, 'Z9', 0);
    const stores = await server.call(api.stores, {});
    const codes = stores[0]?.bins.map(({ code }) => code);
    expect(codes).toEqual(['Z9', 'A1', 'A2', 'B1', 'Bench']);
    const twice = { params: { id: store.id }, body: { code: 'z9', pickingOrder: 4 } };
    expect(await server.refused(api.createBin, twice)).toMatchObject({ code: 'code-taken', field: 'code' });
    expect((await add(stores[1]?.id ?? 0, 'Z9', 1)).code).toBe('Z9');
  });

  it('are changed as a whole: renamed, walked otherwise, added, by the version of their store', async () => {
    const now = (await server.call(api.stores, {}))[0] as Store;
    const [z9, a1, a2, b1] = now.bins.map(({ id }) => id);
    const shelf = 'shelf' as const;
    const body = (
      bins: { id: number | null; code: string; kind: 'shelf' | 'quarantine' }[],
      version = now.version,
    ) => ({
      params: { id: store.id },
      body: { code: 'MAIN', name: 'Front store', bins, version },
    });
    // A1 and A2 swap their codes, Z9 waits for a decision, one is new; B1 is not named and stays behind.
    const bins = [
      { id: a1 ?? 0, code: 'A2', kind: shelf },
      { id: a2 ?? 0, code: 'A1', kind: shelf },
      { id: null, code: 'N1', kind: shelf },
      { id: z9 ?? 0, code: 'Z9', kind: 'quarantine' as const },
    ];
    const after = await server.call(api.updateStore, body(bins));
    expect(after).toMatchObject({ name: 'Front store', version: now.version + 1 });
    expect(after.bins.map(({ code, kind, pickingOrder }) => [code, kind, pickingOrder])).toEqual([
      ['A2', 'shelf', 10],
      ['A1', 'shelf', 20],
      ['N1', 'shelf', 30],
      ['Z9', 'quarantine', 40],
      ['B1', 'shelf', 50],
      ['Bench', 'bench', 9999],
    ]);
    expect(after.bins.at(0)?.id).toBe(a1);
    expect(await server.refused(api.updateStore, body(bins))).toMatchObject({
      code: 'stale-save',
      facts: { current: { name: 'Front store' } },
    });
    const { version } = after;
    const [n1] = after.bins.filter(({ code }) => code === 'N1');
    const asSaved = bins.map((bin) => (bin.code === 'N1' ? { ...bin, id: n1?.id ?? 0 } : bin));
    const refused = (line: (typeof bins)[number]) => server.refused(api.updateStore, body([...asSaved, line], version));
    const taken = { code: 'code-taken', field: 'bins.4.code' };
    expect(await refused({ id: b1 ?? 0, code: 'n1', kind: shelf })).toMatchObject(taken);
    expect(await refused({ id: null, code: 'b1', kind: shelf })).toMatchObject(taken);
    expect(await refused({ id: null, code: 'bench', kind: shelf })).toMatchObject(taken);
    expect(await refused({ id: a1 ?? 0, code: 'X', kind: shelf })).toMatchObject({
      code: 'invalid',
      field: 'bins.4.id',
    });
    const foreign = (await server.call(api.stores, {}))[1]?.bins[0]?.id ?? 0;
    expect(await refused({ id: foreign, code: 'X', kind: shelf })).toMatchObject({
      code: 'unknown-bin',
      field: 'bins.4.id',
    });
    expect((await server.call(api.stores, {}))[0]).toEqual(after);
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
