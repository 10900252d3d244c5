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

  /** Every page of a list, five rows at a time. */
  const allOf = async <Row>(ask: (query: object) => Promise<{ rows: Row[]; next: string | null }>): Promise<Row[]> => {
    const rows: Row[] = [];
    let cursor: string | undefined;
    do {
      const read = await ask({ limit: 5, ...(cursor ? { cursor } : {}) });
      rows.push(...read.rows);
      cursor = read.next ?? undefined;
    } while (cursor);
    return rows;
  };
  const byWorth = (key: string, a: unknown, b: unknown) =>
    key === 'text' ? String(a).toLowerCase().localeCompare(String(b).toLowerCase()) : Number(a) - Number(b);

  it('of purchase orders are sorted on the server, and no page repeats or drops one', async () => {
    const suppliers = await Promise.all(
      ['Beta', 'alpha', 'Gamma'].map((name) => server.call(api.createSupplier, { body: { code: name, name } })),
    );
    const nut = await shop.item('BOLT');
    for (let n = 0; n < 12; n += 1)
      await shop.order(
        {
          supplierId: suppliers[n % 3]?.id ?? 0,
          wantedOn: n % 4 === 0 ? null : `2026-12-${10 + (n % 5)}`,
          lines: [{ itemId: nut.id, quantity: String(1 + (n % 6)), price: '2.5' }],
        },
        n % 2 === 0 ? 'print' : null,
      );
    const keys = {
      made: ['number', ({ id }: { id: number }) => id],
      supplier: ['text', ({ supplier }: { supplier: string }) => supplier],
      worth: ['number', ({ worth }: { worth: string }) => worth],
      due: ['text', ({ expectedOn }: { expectedOn: string | null }) => expectedOn ?? '9999'],
    } as const;
    for (const [sort, [kind, keyOf]] of Object.entries(keys))
      for (const down of [false, true]) {
        const query = { show: 'all', sort, down: String(down) };
        const rows = await allOf((more) => server.call(api.purchases, { query: { ...query, ...more } as never }));
        expect([sort, down, new Set(rows.map(({ id }) => id)).size]).toEqual([sort, down, 12]);
        const sorted = rows.map((row) => (keyOf as (row: object) => unknown)(row));
        expect(sorted).toEqual([...sorted].sort((a, b) => (down ? -1 : 1) * byWorth(kind, a, b)));
      }
    expect(await server.call(api.purchaseCounts, {})).toEqual({ open: 12, drafts: 6, late: 0, announced: 0 });
    expect(await server.refused(api.purchases, { query: { cursor: '[1]' } })).toMatchObject({
      code: 'invalid',
      field: 'cursor',
    });
  });

  it('of lots are sorted on the server, and no page repeats or drops one', async () => {
    const oils = await Promise.all(['OIL-B', 'OIL-A'].map((code) => shop.item(code, { unitId: 2, tracking: 'lot' })));
    for (let n = 0; n < 12; n += 1)
      await shop.receive(oils[n % 2] as (typeof oils)[number], String(1 + (n % 4)), '3', 0, {
        lot: `L${(n * 7) % 12}`,
        ...(n % 3 === 0 ? {} : { bestBefore: `2027-0${1 + (n % 5)}-01` }),
      });
    const keys = {
      bestBefore: ['text', ({ bestBefore }: { bestBefore: string | null }) => bestBefore ?? '9999'],
      code: ['text', ({ code }: { code: string }) => code],
      item: ['text', ({ item }: { item: string }) => item],
      quantity: ['number', ({ quantity }: { quantity: string }) => quantity],
    } as const;
    for (const [sort, [kind, keyOf]] of Object.entries(keys))
      for (const down of [false, true]) {
        const query = { q: 'OIL-', sort, down: String(down) };
        const rows = await allOf((more) => server.call(api.lots, { query: { ...query, ...more } as never }));
        expect([sort, down, new Set(rows.map(({ id }) => id)).size]).toEqual([sort, down, 12]);
        const sorted = rows.map((row) => (keyOf as (row: object) => unknown)(row));
        expect(sorted).toEqual([...sorted].sort((a, b) => (down ? -1 : 1) * byWorth(kind, a, b)));
      }
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
    // In any order of words, by what else it is known by, and never by a part of them alone.
    const kinds = async (q: string) => (await server.call(api.find, { query: { q } })).map(({ kind }) => kind);
    expect(await kinds('NUT the')).toContain('item');
    expect(await kinds('b-0001 nut')).toEqual(['build']);
    expect(await kinds('nut nothing')).toEqual([]);
    expect(await server.call(api.whereUsed, { params: { id: found[0]?.id ?? 0 } })).toEqual([]);
  });
});
