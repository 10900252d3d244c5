import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

describe('taking apart', () => {
  let server: TestServer;
  let shop: Workshop;
  let [jar, carton, gift]: Item[] = [];

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR');
    carton = await shop.item('CARTON');
    gift = await shop.item('GIFT', { source: 'made', bin: 2 });
    await shop.receive(jar, '50', '2');
    await shop.define(gift, [[jar, '2']]);
    const { id } = await shop.start(gift, '10');
    await shop.pickAll(id);
    const { version, outputBinId } = await server.call(api.build, { params: { id } });
    await server.call(api.finish, { params: { id }, body: { version, good: '10', outputBinId, lines: [] } });
    // A later revision has a carton that went into none of them.
    const draft = await server.call(api.startRevision, { params: { id: await shop.definitionOf(gift) }, body: {} });
    const saved = await server.call(api.saveRevision, {
      params: { id: draft.id },
      body: { version: draft.version, outputQuantity: '1', lines: [partLine(jar, '2'), partLine(carton, '2')] },
    });
    await server.call(api.putInUse, { params: { id: draft.id }, body: { version: saved.version } });
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  const plan = () => server.call(api.apartPlan, { params: { id: gift?.id ?? 0 }, query: {} });
  const apart = async (quantity: string, more: object = {}) => {
    const { revisionId, lines } = await plan();
    return {
      body: {
        itemId: gift?.id ?? 0,
        revisionId,
        binId: shop.bin(2),
        quantity,
        leftover: 'written-off' as const,
        lines: lines.map(({ lineId }) => ({ lineId, good: '2', damaged: '0', binId: shop.bin(0) })),
        ...more,
      },
    };
  };

  it('gives back what went into the last that was built, not what only a later revision has', async () => {
    expect(await plan()).toMatchObject({ revision: 1, isInUse: false, build: null, lines: [{ code: 'JAR' }] });
    await server.call(api.takeApart, await apart('1'));
    const { id } = await shop.start(gift as Item, '1').catch(() => ({ id: 0 }));
    expect(id).toBe(0);
  });

  it('says to whom some of it is promised, before', async () => {
    const sold = await shop.sell(await shop.customer('LARK'), [{ itemId: gift?.id ?? 0, quantity: '8', price: '9' }]);
    await server.call(api.takeApart, await apart('1'));
    const refused = await server.refused(api.takeApart, await apart('1'));
    expect(refused).toMatchObject({
      code: 'apart-promised',
      field: 'quantity',
      facts: { name: 'The GIFT', free: '0' },
    });
    expect(refused.detail).toContain(`${sold.number} (LARK & Co)`);
    await server.call(api.takeApart, await apart('1', { alsoPromised: true }));
    expect(await shop.stockOf(gift as Item)).toMatchObject({ onHand: '7', free: '-1' });
  });
});
