import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** What made parts without stock cost, and the price that a draft keeps until it is in use. */
describe('costs and prices of what is made', () => {
  let server: TestServer;
  let shop: Workshop;
  let [leg, glue, stool, set, ribbon]: Item[] = [];
  const now = new Date('2026-11-23T09:00:00');

  beforeAll(async () => {
    server = await TestServer.start(undefined, { now: () => new Date(now) });
    shop = await Workshop.open(server);
    leg = await shop.item('LEG');
    glue = await shop.item('GLUE');
    ribbon = await shop.item('RIBBON');
    stool = await shop.item('STOOL', { source: 'made', sellPrice: '49' });
    set = await shop.item('SET', { source: 'made', sellPrice: '80' });
    await shop.receive(leg, '30', '4.5');
    await shop.receive(ribbon, '30', '0.05');
    await shop.define(stool, [[leg, '4']], '10');
    await shop.define(set, [
      [stool, '2'],
      [ribbon, '1'],
    ]);
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  const product = async (code: string) =>
    (await server.call(api.products, { query: {} })).rows.find((row) => row.code === code);

  it('are those of its own bill of materials, said as such, until some are in stock', async () => {
    expect(await shop.stockOf(stool as Item)).toMatchObject({ averageCost: '22', costFrom: 'built' });
    expect(await product('SET')).toMatchObject({ unitCost: '44.05', isAtLeast: false, margin: '44.9375' });
    const order = await shop.sell(await shop.customer('LARK'), [
      { itemId: stool?.id ?? 0, quantity: '2', price: '49' },
    ]);
    expect(order).toMatchObject({ plannedCost: '44' });
    const { items } = await server.call(api.snapshot, { query: {} });
    expect(items.find(([id]) => id === stool?.id)?.[2]).toBe('22');
    await shop.receive(stool as Item, '1', '30');
    expect(await shop.stockOf(stool as Item)).toMatchObject({ averageCost: '30', costFrom: 'average' });
  });

  it('are the same on a list with its parts, of which the last was used up, as alone', async () => {
    const [oil, lamp] = [await shop.item('OIL'), await shop.item('LAMP', { source: 'made' })];
    await shop.define(lamp, [
      [oil, '2'],
      [leg as Item, '1'],
    ]);
    await shop.receive(oil, '3', '7');
    const gone = { itemId: oil.id, binId: shop.bin(0), change: '-3' };
    await server.call(api.adjust, { body: { reasonId: 1, lines: [gone] } });
    const alone = await shop.stockOf(lamp);
    expect(alone).toMatchObject({ averageCost: '18.5', costFrom: 'built' });
    const { rows } = await server.call(api.items, { query: { limit: 500 } });
    expect(rows.find(({ id }) => id === lamp.id)).toMatchObject({ averageCost: '18.5', costFrom: 'built' });
    const { items } = await server.call(api.snapshot, { query: {} });
    expect(items.find(([id]) => id === lamp.id)?.[2]).toBe('18.5');
  });

  it('are at least what is known of them, without a margin, where a part has no cost', async () => {
    const [box, crate] = [
      await shop.item('BOX', { source: 'made', sellPrice: '9' }),
      await shop.item('CRATE', { source: 'made', sellPrice: '9' }),
    ];
    await shop.define(box, [
      [glue as Item, '1'],
      [leg as Item, '1'],
    ]);
    await shop.define(crate, [[box, '2']]);
    expect(await shop.stockOf(box)).toMatchObject({ averageCost: '4.5', costFrom: 'at-least' });
    expect(await product('BOX')).toMatchObject({ unitCost: '4.5', isAtLeast: true, margin: null });
    expect(await product('CRATE')).toMatchObject({ unitCost: '9', isAtLeast: true, margin: null });
    expect((await server.call(api.items, { query: { q: 'BOX' } })).rows).toMatchObject([{ costFrom: 'at-least' }]);
  });

  it('keep the price that was set with a draft, and take it once that is in use', async () => {
    const definitionId = (await shop.stockOf(stool as Item)).definitionId ?? 0;
    const draft = async (sellPrice: string | null) => {
      const { id, version } = await server.call(api.startRevision, { params: { id: definitionId }, body: {} });
      const { revisions } = await server.call(api.definition, { params: { id: definitionId } });
      const own = revisions.find((one) => one.id === id);
      const lines = [
        {
          kind: 'part' as const,
          itemId: leg?.id ?? 0,
          basis: 'per-output' as const,
          quantity: '4',
          waste: '0',
          taken: 'picked-first' as const,
          share: null,
          comesBack: true,
          fromBinId: null,
          alternates: [],
        },
      ];
      const body = { version, outputQuantity: own?.outputQuantity ?? '1', lines, sellPrice };
      return server.call(api.saveRevision, { params: { id }, body });
    };
    const price = async () => (await shop.stockOf(stool as Item)).sellPrice;
    const first = await draft('55.42');
    expect(await price()).toBe('49');
    const read = await server.call(api.definition, { params: { id: definitionId } });
    expect(read.revisions.find(({ id }) => id === first.id)?.sellPrice).toBe('55.42');
    await server.call(api.putInUse, { params: { id: first.id }, body: { version: first.version } });
    expect(await price()).toBe('55.42');
    // One that says nothing of the price leaves it; one that waits for its day does too, until then.
    const second = await draft(null);
    await server.call(api.putInUse, { params: { id: second.id }, body: { version: second.version } });
    expect(await price()).toBe('55.42');
    const third = await draft('60');
    await server.call(api.putInUse, { params: { id: third.id }, body: { version: third.version, from: '2026-11-25' } });
    expect(await price()).toBe('55.42');
    now.setDate(26);
    await server.call(api.definition, { params: { id: definitionId } });
    await shop.receive(leg as Item, '1', '4.5');
    expect(await price()).toBe('60');
  });
});
