import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('lists', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    for (let n = 10; n < 35; n += 1) await shop.item(`NUT-${n}`);
    await shop.item('odd_one');
  });
  afterAll(() => server.close());

  it('come in pages that together are the whole, in order', async () => {
    const codes: string[] = [];
    let cursor: string | null = '';
    do {
      const page: { rows: { code: string }[]; next: string | null } = await server.call(api.items, {
        query: { limit: 7, ...(cursor ? { cursor } : {}) },
      });
      codes.push(...page.rows.map((row) => row.code));
      cursor = page.next;
    } while (cursor);
    expect(codes).toHaveLength(26);
    expect(codes).toEqual([...codes].sort((a, b) => a.toLowerCase().localeCompare(b.toLowerCase())));
  });

  it('find by a part of code or name, and take wildcards literally', async () => {
    const find = async (q: string) => (await server.call(api.items, { query: { q } })).rows.length;
    expect([await find('nut-1'), await find('The NUT'), await find('_'), await find('%')]).toEqual([10, 25, 1, 0]);
  });

  it('refuse a page of no size', async () => {
    expect(await server.refused(api.items, { query: { limit: 100_000 } })).toMatchObject({
      code: 'invalid',
      field: 'limit',
    });
  });

  it('finds anything, the exact code first', async () => {
    const product = await shop.item('NUT', { source: 'made' });
    await shop.define(product, [[(await server.call(api.items, { query: { q: 'NUT-10' } })).rows[0] ?? product, '1']]);
    await shop.plan(product, '1');
    const found = await server.call(api.find, { query: { q: 'nut' } });
    expect(found.slice(0, 2).map(({ kind, code }) => [kind, code])).toEqual([
      ['item', 'NUT'],
      ['definition', 'NUT'],
    ]);
    expect(found.filter(({ code }) => code === 'B-0001')).toMatchObject([
      { kind: 'build', state: 'planned', open: true, stock: { quantity: '1', unit: 'each' } },
    ]);
    // An item, its definition and its builds stand together, before the next item.
    expect(found.slice(0, 4).map(({ kind }) => kind)).toEqual(['item', 'definition', 'build', 'item']);
    expect((await server.call(api.find, { query: { q: 'B-0001' } }))[0]).toMatchObject({
      kind: 'build',
      name: 'The NUT',
    });
    expect(await server.call(api.whereUsed, { params: { id: found[0]?.id ?? 0 } })).toEqual([]);
  });
});
