import { api, type Store } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

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

describe('taking apart', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  it('splits 27.00 by 50/30/20 with the second part damaged: 13.50 + 5.40 in, 8.10 off, or spread', async () => {
    const [one, two, three] = [await shop.item('ONE'), await shop.item('TWO'), await shop.item('THREE')];
    const kit = await shop.item('KIT', { source: 'made', bin: 2 });
    for (const [part, cost] of [
      [one, '20'],
      [two, '4'],
      [three, '3'],
    ] as const)
      await shop.receive(part, '4', cost);
    const { id } = await server.call(api.createDefinition, { body: { itemId: kit.id } });
    const definition = await server.call(api.definition, { params: { id } });
    const draft = definition.revisions[0]?.id ?? 0;
    const taken = 'when-finished' as const;
    const lines = [
      partLine(one, '1', { taken, share: '50' }),
      partLine(two, '1', { taken, share: '30' }),
      partLine(three, '1', { taken }),
    ];
    await server.call(api.saveRevision, { params: { id: draft }, body: { version: 0, outputQuantity: '1', lines } });
    await server.call(api.putInUse, { params: { id: draft }, body: { version: 1 } });
    const build = await shop.start(kit, '4');
    const finish = { version: build.version, good: '4', outputBinId: shop.bin(2), lines: [] };
    expect(await server.call(api.finish, { params: { id: build.id }, body: finish })).toMatchObject({ unitCost: '27' });

    const plan = await server.call(api.apartPlan, { params: { id: kit.id } });
    expect(plan.lines.map(({ share }) => share)).toEqual(['50', '30', '20']);
    const apart = (leftover: 'written-off' | 'spread') =>
      server.call(api.takeApart, {
        body: {
          itemId: kit.id,
          revisionId: plan.revisionId,
          binId: shop.bin(2),
          quantity: '1',
          leftover,
          lines: plan.lines.map(({ lineId, code }) => ({
            lineId,
            good: code === 'TWO' ? '0' : '1',
            damaged: code === 'TWO' ? '1' : '0',
            binId: shop.bin(1),
          })),
        },
      });
    const worth = async (leftover: 'written-off' | 'spread') => {
      const { movements, values } = await apart(leftover);
      return [movements.map(({ code, value }) => [code, value]), values.map(({ kind, amount }) => [kind, amount])];
    };
    expect(await worth('written-off')).toEqual([
      [
        ['KIT', '-27'],
        ['ONE', '13.5'],
        ['THREE', '5.4'],
      ],
      [['written-off', '-8.1']],
    ]);
    expect(await worth('spread')).toEqual([
      [
        ['KIT', '-27'],
        ['ONE', '19.285714'],
        ['THREE', '7.714286'],
      ],
      [],
    ]);
    expect(await server.verify()).toEqual([]);
  });

  it('needs every line that comes back, in a bin that exists', async () => {
    const kit = (await server.call(api.items, { query: { q: 'KIT' } })).rows[0];
    const plan = await server.call(api.apartPlan, { params: { id: kit?.id ?? 0 } });
    const [line] = plan.lines;
    const body = {
      itemId: plan.itemId,
      revisionId: plan.revisionId,
      binId: shop.bin(2),
      quantity: '1',
      leftover: 'spread' as const,
      lines: [{ lineId: line?.lineId ?? 0, good: '1', damaged: '0', binId: shop.bin(0) }],
    };
    expect(await server.refused(api.takeApart, { body })).toMatchObject({ code: 'unknown-line', field: 'lines' });
    expect(await server.refused(api.takeApart, { body: { ...body, binId: 999 } })).toMatchObject({
      code: 'unknown-bin',
    });
    expect(await server.refused(api.takeApart, { body: { ...body, revisionId: 999 } })).toMatchObject({
      code: 'unknown-choice',
    });
  });
});
