import { api, type Item, type ItemDetail, picturePath } from '@yosegi/contract';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('items', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  const plain = (item: ItemDetail) => ({
    code: item.code,
    name: item.name,
    unitId: item.unitId,
    source: item.source,
    homeBinId: item.homeBinId,
    sellPrice: item.sellPrice,
    reorderPoint: item.reorderPoint,
    standardCost: item.standardCost,
    note: item.note,
    version: item.version,
  });
  const detail = (id: number) => server.call(api.item, { params: { id } });

  it('keep packs, suppliers, barcode, tracking and fields of their own, and refuse each where it is wrong', async () => {
    const { id } = await shop.item('JAR', { unitId: 1 });
    const supplier = await server.call(api.createSupplier, { body: { code: 'GLASS', name: 'Low Mill' } });
    const item = await detail(id);
    const more = {
      tracking: 'lot' as const,
      taxFree: true,
      barcode: '4 006381 333931',
      packs: [{ name: 'tray', one: '24' }],
      fields: [{ name: 'Colour', value: 'clear' }],
      suppliers: [
        {
          ...{ supplierId: supplier.id, code: 'G-7', price: '0.38', pack: '24', minimum: '48', leadDays: 10 },
          breaks: [
            { from: '240', price: '0.35' },
            { from: '480', price: '0.3' },
          ],
        },
      ],
    };
    const broken = (...breaks: object[]) => ({ suppliers: [{ ...more.suppliers[0], breaks }] });
    const change = (part: object) => ({ params: { id }, body: { ...plain(item), ...more, ...part } });
    const refusals = [
      [{ barcode: '4006381333932' }, 'barcode', 'barcode-check-digit'],
      [{ packs: [{ name: 'tray', one: '1.5' }] }, 'packs.0.one', 'too-many-decimals'],
      [
        {
          packs: [
            { name: 'box', one: '2' },
            { name: 'BOX', one: '3' },
          ],
        },
        'packs.1.name',
        'twice',
      ],
      [
        {
          fields: [
            { name: 'A', value: '1' },
            { name: 'a', value: '2' },
          ],
        },
        'fields.1.name',
        'twice',
      ],
      [{ suppliers: [{ ...more.suppliers[0], pack: '0' }] }, 'suppliers.0.pack', 'not-positive'],
      [broken({ from: '0', price: '1' }), 'suppliers.0.breaks.0.from', 'not-positive'],
      [broken({ from: '1.5', price: '1' }), 'suppliers.0.breaks.0.from', 'too-many-decimals'],
      [broken({ from: '9', price: '1' }, { from: '9', price: '2' }), 'suppliers.0.breaks.1.from', 'twice'],
      [{ suppliers: [{ ...more.suppliers[0], supplierId: 99 }] }, 'suppliers.0.supplierId', 'unknown-choice'],
    ] as const;
    for (const [part, field, code] of refusals)
      expect(await server.refused(api.updateItem, change(part))).toMatchObject({ field, code });
    const saved = await server.did('item', api.updateItem, change({}));
    expect(saved).toMatchObject({
      ...more,
      barcode: '4006381333931',
      suppliers: [{ supplier: 'GLASS', ...more.suppliers[0] }],
      measures: [{ name: 'tray', one: '24' }],
    });
    expect((await server.call(api.items, { query: { supplierId: supplier.id } })).rows.map(({ code }) => code)).toEqual(
      ['JAR'],
    );
    const other = await shop.item('LID');
    const taken = { params: { id: other.id }, body: { ...plain(await detail(other.id)), barcode: '4006381333931' } };
    expect(await server.refused(api.updateItem, taken)).toMatchObject({ code: 'barcode-taken', facts: { by: 'JAR' } });
  });

  it('are known by code, barcode, name, supplier’s code or all words of it, and never guessed when several fit', async () => {
    await shop.item('OIL-L');
    await shop.item('OIL-T');
    const texts = ['oil-t', '4006381333931', 'the jar', 'G-7', 'oil', 'JAR the', 'nothing at all', ''];
    const found = await server.call(api.matchItems, { body: { texts } });
    expect(found.map(({ item }) => item?.code ?? null)).toEqual([
      'OIL-T',
      'JAR',
      'JAR',
      'JAR',
      null,
      'JAR',
      null,
      null,
    ]);
    expect(found[4]?.likely.map(({ code }) => code).sort()).toEqual(['OIL-L', 'OIL-T']);
  });

  it('are looked for with a handful of questions, however many texts fit none', async () => {
    const asked: string[] = [];
    const end = server.database.trace((sql) => asked.push(sql));
    const texts = [...Array.from({ length: 150 }, (_, nth) => `no such ${nth}`), 'oil 100%', 'oil-'];
    const found = await server.call(api.matchItems, { body: { texts } });
    end();
    expect(found.filter(({ likely }) => likely.length > 0).map(({ text }) => text)).toEqual(['oil-']);
    expect(asked.filter((sql) => sql.includes('LIKE'))).toHaveLength(4);
  });

  it('are archived once they have a history, deleted before, and brought back', async () => {
    const lone = await shop.item('LONE');
    await server.call(api.deleteItem, { params: { id: lone.id } });
    expect(await server.refused(api.item, { params: { id: lone.id } })).toMatchObject({ code: 'not-found' });
    const pin = await shop.item('PIN');
    await shop.receive(pin, '5', '2');
    expect(await server.refused(api.deleteItem, { params: { id: pin.id } })).toMatchObject({
      code: 'item-has-history',
    });
    const set = (archived: boolean, version: number) => ({ params: { id: pin.id }, body: { archived, version } });
    expect(await server.refused(api.archiveItem, set(true, 0))).toMatchObject({ code: 'archive-has-stock' });
    const cap = await shop.item('CAP', { source: 'made' });
    await shop.define(cap, [[await shop.item('DISC'), '1']]);
    const { id, version } = await detail(cap.id);
    const archived = await server.did('item', api.archiveItem, { params: { id }, body: { archived: true, version } });
    expect(archived).toMatchObject({ archived: true });
    expect((await server.call(api.items, { query: { q: 'CAP' } })).rows).toEqual([]);
    expect((await server.call(api.items, { query: { show: 'archived' } })).rows.map(({ code }) => code)).toEqual([
      'CAP',
    ]);
    const plan = { body: { builds: [{ itemId: id, quantity: '1', due: null }] } };
    expect(await server.refused(api.planBuilds, plan)).toMatchObject({ code: 'item-archived' });
    const line = { itemId: id, binId: shop.bin(0), quantity: '1', unitCost: '1' };
    const receipt = { body: { kind: 'receipt' as const, lines: [line] } };
    expect(await server.refused(api.receive, receipt)).toMatchObject({
      code: 'item-archived',
      field: 'lines.0.itemId',
    });
    const back = await server.did('item', api.archiveItem, {
      params: { id },
      body: { archived: false, version: archived.version },
    });
    expect(back.archived).toBe(false);
  });

  it('keep their tracking while any is there', async () => {
    const { id } = await shop.item('WAX');
    await shop.receive(await shop.stockOf({ id } as never), '5', '2');
    const body = { ...plain(await detail(id)), tracking: 'lot' as const };
    expect(await server.refused(api.updateItem, { params: { id }, body })).toMatchObject({
      code: 'tracking-in-use',
      field: 'tracking',
    });
  });

  it('are listed in any order, page by page, without repeating or dropping one', async () => {
    for (let n = 0; n < 12; n += 1) {
      const item = await shop.item(`SORT-${String(n).padStart(2, '0')}`);
      if (n % 3 > 0) await shop.receive(item, String((n % 3) * 10), '1');
    }
    for (const sort of ['code', 'name', 'onHand', 'free', 'value', 'averageCost'] as const) {
      for (const down of [false, true]) {
        const seen: string[] = [];
        let cursor: string | undefined;
        do {
          const query = { q: 'SORT-', sort, down: String(down), limit: 5, ...(cursor ? { cursor } : {}) };
          const page = await server.call(api.items, { query });
          seen.push(...page.rows.map(({ code }) => code));
          cursor = page.next ?? undefined;
        } while (cursor);
        expect([sort, down, seen.length, new Set(seen).size]).toEqual([sort, down, 12, 12]);
        const all = await server.call(api.items, { query: { q: 'SORT-', sort, down: String(down), limit: 50 } });
        expect(seen).toEqual(all.rows.map(({ code }) => code));
      }
    }
    expect(await server.refused(api.items, { query: { cursor: 'nonsense' } })).toMatchObject({
      code: 'invalid',
      field: 'cursor',
    });
    const low = await shop.item('LOW');
    await server.call(api.updateItem, {
      params: { id: low.id },
      body: { ...plain(await detail(low.id)), reorderPoint: '4' },
    });
    expect((await server.call(api.items, { query: { show: 'low' } })).rows.map(({ code }) => code)).toEqual(['LOW']);
    expect(await server.call(api.itemCounts, {})).toMatchObject({ low: 1, overdrawn: 0, archived: 0 });
  });

  it('save filters for the person who did', async () => {
    const view = { list: 'items', name: 'Short', search: 'show=low' };
    const saved = await server.call(api.saveView, { body: view });
    await server.call(api.saveView, { body: { ...view, name: 'short', search: 'show=overdrawn' } });
    expect(await server.call(api.views, {})).toEqual([{ ...view, id: saved.id, search: 'show=overdrawn' }]);
    await server.signIn(2);
    expect(await server.call(api.views, {})).toEqual([]);
    expect(await server.refused(api.deleteView, { params: { id: saved.id } })).toMatchObject({ code: 'not-found' });
    await server.signIn(1);
    await server.call(api.deleteView, { params: { id: saved.id } });
    expect(await server.call(api.views, {})).toEqual([]);
  });

  describe('pictures', () => {
    let id: number;
    beforeAll(async () => {
      id = (await shop.item('SEEN')).id;
    });
    const put = (body: Buffer, key: string = crypto.randomUUID()) =>
      server.fetch(picturePath(id), {
        method: 'PUT',
        body: body as unknown as BodyInit,
        headers: { 'content-type': 'application/octet-stream', 'idempotency-key': key },
      });
    const drawn = (width: number, height: number) =>
      sharp({ create: { width, height, channels: 3, background: '#d39a35' } });

    it('are shrunk, stripped and told from their content', async () => {
      const big = await drawn(1600, 900)
        .withMetadata({ exif: { IFD0: { Copyright: 'someone' } } })
        .jpeg()
        .toBuffer();
      const saved = await (await put(big, 'picture-1')).json();
      expect(await (await put(big, 'picture-1')).json()).toEqual(saved);
      const item = await server.call(api.item, { params: { id } });
      expect(item.picture).toMatch(/^[0-9a-f]{16}$/);
      const response = await server.fetch(picturePath(id, item.picture ?? ''));
      expect(response.headers.get('content-type')).toBe('image/webp');
      expect(response.headers.get('cache-control')).toContain('immutable');
      const kept = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
      expect(kept).toMatchObject({ format: 'webp', width: 480, height: 270 });
      expect(kept.exif).toBeUndefined();
      expect(await server.call(api.pictures, {})).toEqual([{ itemId: id, code: 'SEEN', hash: item.picture }]);
      await server.call(api.removePicture, { params: { id } });
      expect((await server.fetch(picturePath(id))).status).toBe(404);
    });

    it.each<[string, () => Buffer | Promise<Buffer>, string]>([
      ['a page of text', () => Buffer.from('<html><script>alert(1)</script>'), 'picture-unreadable'],
      [
        'an SVG, which could hold anything',
        () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
        'picture-unreadable',
      ],
      ['half a picture', async () => (await drawn(400, 400).png().toBuffer()).subarray(0, 60), 'picture-unreadable'],
      ['nothing', () => Buffer.alloc(0), 'picture-unreadable'],
      ['far too many pixels', () => drawn(9000, 9000).png().toBuffer(), 'picture-too-large'],
    ])('%s is refused', async (_, content, code) => {
      const response = await put(await content());
      expect(await response.json()).toMatchObject({ code });
      expect(await server.call(api.pictures, {})).toEqual([]);
    });

    it('of tens of megapixels are drawn one at a time, a few wait, and nobody else waits for all of them', async () => {
      const large = await drawn(8000, 6000).png({ compressionLevel: 1 }).toBuffer();
      const answered: string[] = [];
      const mine = Array.from({ length: 30 }, async () => {
        const response = await put(large);
        const { code } = (await response.json()) as { code?: string };
        answered.push(code ?? 'kept');
      });
      await Promise.race(mine);
      await server.signIn(2);
      const body = (await drawn(20, 20).png().toBuffer()) as unknown as BodyInit;
      const headers = { 'content-type': 'application/octet-stream', 'idempotency-key': crypto.randomUUID() };
      await server.fetch(picturePath(id), { method: 'PUT', body, headers });
      const before = answered.length;
      await server.signIn(1);
      await Promise.all(mine);
      expect(before).toBeLessThan(30);
      expect(answered.filter((code) => code === 'kept').length).toBeLessThan(25);
      expect(new Set(answered)).toEqual(new Set(['kept', 'too-much-waiting']));
    });
  });
});

describe('units', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  it('are added and changed by the owner, and keep the decimals that quantities need', async () => {
    const sheet = await server.call(api.createUnit, {
      body: { code: 'm2', name: 'square metre', decimals: 4, related: [{ name: 'sheet', one: '0.72' }] },
    });
    expect(sheet.related).toEqual([{ name: 'sheet', one: '0.72' }]);
    expect(await server.refused(api.createUnit, { body: { code: 'M2', name: 'again', decimals: 0 } })).toMatchObject({
      code: 'code-taken',
      field: 'code',
    });
    const felt = await shop.item('FELT', { unitId: sheet.id });
    await shop.receive(felt, '1.25', '3');
    const change = (decimals: number) => ({
      params: { id: sheet.id },
      body: { code: 'm2', name: 'square metre', decimals, related: [], version: 0 },
    });
    expect(await server.refused(api.updateUnit, change(1))).toMatchObject({
      code: 'unit-decimals-used',
      field: 'decimals',
      facts: { name: 'The FELT', used: '1.25' },
    });
    expect(await server.call(api.updateUnit, change(2))).toMatchObject({ decimals: 2, related: [] });
  });

  describe('keep the decimals that are in use, wherever it is', () => {
    let made = 0;
    /** An item in a unit of its own, with one decimal more than is left of it in the end. */
    const fresh = async (more: object = {}) => {
      made += 1;
      const unit = await server.call(api.createUnit, { body: { code: `u${made}`, name: `Unit ${made}`, decimals: 2 } });
      return { unit, item: await shop.item(`U-${made}`, { unitId: unit.id, ...more }) };
    };
    const order = async (item: Item, quantity: string, needs: object[] = []) => {
      const supplier = await server.call(api.createSupplier, { body: { code: `S${made}`, name: `Supplier ${made}` } });
      const lines = [{ itemId: item.id, quantity, price: '1', needs }] as never;
      return shop.order({ supplierId: supplier.id, lines }, 'print');
    };
    const product = async (item: Item, quantity: string) => {
      const box = await shop.item(`BOX-${made}`, { source: 'made' });
      await shop.define(box, [[item, quantity]]);
      return box;
    };

    it.each<[string, string, () => Promise<Awaited<ReturnType<typeof fresh>>>]>([
      [
        'of an open order',
        '2.5',
        async () => {
          const own = await fresh();
          await order(own.item, '2.5');
          return own;
        },
      ],
      [
        'that a supplier confirmed',
        '1.5',
        async () => {
          const own = await fresh();
          const sent = await order(own.item, '2');
          const lines = [{ lineId: sent?.lines[0]?.id ?? 0, quantity: '1.5', on: null }];
          await server.call(api.confirmPurchase, {
            params: { id: sent?.id ?? 0 },
            body: { version: sent?.version ?? 0, lines },
          });
          return own;
        },
      ],
      [
        'of what an order is needed for',
        '0.5',
        async () => {
          const own = await fresh();
          const build = await shop.plan(await product(own.item, '1'), '1');
          await order(own.item, '2', [{ buildId: build.id, quantity: '0.5' }]);
          return own;
        },
      ],
      [
        'of an open count',
        '3.5',
        async () => {
          const own = await fresh();
          await shop.receive(own.item, '3', '1');
          const { sheet } = await server.did('count', api.beginCount, {
            body: { binIds: [shop.bin(0)], q: own.item.code },
          });
          await server.call(api.countLine, { params: { id: sheet[0]?.id ?? 0 }, body: { counted: '3.5' } });
          return own;
        },
      ],
      [
        'of a definition',
        '0.5',
        async () => {
          const own = await fresh();
          await product(own.item, '0.5');
          return own;
        },
      ],
      ['of a reorder point', '7.5', () => fresh({ reorderPoint: '7.5' })],
      ['of a pack', '0.5', () => fresh({ packs: [{ name: 'half', one: '0.5' }] })],
    ])('%s', async (_, used, use) => {
      const { unit, item } = await use();
      const { code, name, version } = unit;
      const change = (decimals: number) => ({
        params: { id: unit.id },
        body: { code, name, decimals, related: [], version },
      });
      expect(await server.refused(api.updateUnit, change(0))).toMatchObject({
        code: 'unit-decimals-used',
        facts: { name: item.name, used },
      });
      expect(await server.call(api.updateUnit, change(1))).toMatchObject({ decimals: 1 });
    });
  });
});
