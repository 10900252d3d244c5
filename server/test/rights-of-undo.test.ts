import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** Who may do something may undo it, and nobody else; and a standard cost is a matter of worth. */
describe('undoing', () => {
  let server: TestServer;
  let shop: Workshop;
  let jar: Item;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR');
    await shop.receive(jar, '10', '2');
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });
  const undo = (id: number) => ({ params: { id }, body: {} });
  async function asBuilder<T>(work: () => Promise<T>): Promise<T> {
    await server.signIn(2);
    try {
      return await work();
    } finally {
      await server.signIn(1);
    }
  }

  it('needs the right that posting needed, that of going over a refusal included', async () => {
    const lines = [{ itemId: jar.id, unitCost: '3' }];
    const revalued = await server.call(api.revalue, { body: { lines, remark: '' } });
    const out = { itemId: jar.id, binId: shop.bin(1), change: '-1' };
    const reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'adjustment')?.id ?? 0;
    const below = await server.call(api.adjust, {
      body: { lines: [out], reasonId, override: { reason: 'It is there' } } as never,
    });
    const receipt = await shop.receive(jar, '1', '3');
    await asBuilder(async () => {
      for (const { id } of [revalued, below])
        expect(await server.refused(api.undoDocument, undo(id))).toMatchObject({ code: 'owner-only' });
      await server.call(api.undoDocument, undo(receipt.id));
    });
    await server.call(api.undoDocument, undo(below.id));
    await server.call(api.undoDocument, undo(revalued.id));
  });

  it('of a count needs the right to approve one, and makes it open again', async () => {
    const { id } = await server.call(api.beginCount, { body: { binIds: [shop.bin(0)], group: null } as never });
    const read = () => server.call(api.count, { params: { id } });
    const [line] = (await read()).sheet;
    await server.call(api.countLine, { params: { id: line?.id ?? 0 }, body: { counted: '8' } });
    const { documentId } = await server.call(api.approveCount, {
      params: { id },
      body: { version: (await read()).version },
    });
    expect(await read()).toMatchObject({ state: 'approved' });
    await asBuilder(async () =>
      expect(await server.refused(api.undoDocument, undo(documentId ?? 0))).toMatchObject({ code: 'owner-only' }),
    );
    await server.call(api.undoDocument, undo(documentId ?? 0));
    expect(await read()).toMatchObject({ state: 'open', documentId: null });
    const again = await server.call(api.approveCount, { params: { id }, body: { version: (await read()).version } });
    expect(again.documentId).not.toBeNull();
    expect((await shop.stockOf(jar)).onHand).toBe('8');
  });

  it('a standard cost is set by who may say what stock is worth, on every way', async () => {
    const item = await shop.stockOf(jar);
    const { version } = item;
    await asBuilder(async () => {
      const body = { standardCost: '5', version };
      expect(await server.refused(api.setPrices, { params: { id: jar.id }, body })).toMatchObject({
        code: 'owner-only',
      });
      const input = { ...item, suppliers: [], packs: [], fields: [], standardCost: '5' } as never;
      expect(await server.refused(api.updateItem, { params: { id: jar.id }, body: input })).toMatchObject({
        code: 'owner-only',
      });
      await expect(shop.item('LID', { standardCost: '1' })).rejects.toMatchObject({ problem: { code: 'owner-only' } });
      await server.call(api.setPrices, { params: { id: jar.id }, body: { sellPrice: '9', version } });
    });
  });
});
