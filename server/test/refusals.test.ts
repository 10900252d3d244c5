import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

describe('bad input gets a clear answer and changes nothing', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let product: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART');
    product = await shop.item('PRODUCT', { source: 'made', bin: 2 });
    await shop.receive(part, '50', '2');
    await shop.define(product, [[part, '2']]);
  });
  afterAll(() => server.close());

  const receive = (line: Partial<{ itemId: number; binId: number; quantity: string; unitCost: string }>) => ({
    body: {
      kind: 'receipt' as const,
      lines: [{ itemId: part.id, binId: shop.bin(0), quantity: '1', unitCost: '1', ...line }],
    },
  });

  it.each([
    ['an unknown item', { itemId: 9999 }, 'unknown-item', 'lines.0.itemId'],
    ['an unknown bin', { binId: 9999 }, 'unknown-bin', 'lines.0.binId'],
    ['zero', { quantity: '0' }, 'not-positive', 'lines.0.quantity'],
    ['a negative quantity', { quantity: '-3' }, 'not-positive', 'lines.0.quantity'],
    ['too many decimals', { quantity: '1.5' }, 'too-many-decimals', 'lines.0.quantity'],
    ['a thousand million', { quantity: '1000000000' }, 'too-large', 'lines.0.quantity'],
    ['text for a number', { quantity: 'a dozen' }, 'not-a-number', 'lines.0.quantity'],
    ['a negative cost', { unitCost: '-1' }, 'negative', 'lines.0.unitCost'],
    ['an impossible value', { quantity: '999999999', unitCost: '999999999' }, 'too-large', undefined],
  ])('refuses %s', async (_, line, code, field) => {
    const problem = await server.refused(api.receive, receive(line));
    expect(problem).toMatchObject({ status: 422, code, type: `urn:yosegi:problem:${code}` });
    expect(problem.field).toBe(field);
    expect(problem.detail.length).toBeGreaterThan(10);
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '50', value: '100' });
  });

  it('names the field of a body of the wrong shape', async () => {
    const problem = await server.refused(api.receive, receive({ quantity: 5 as unknown as string }));
    expect(problem).toMatchObject({ status: 422, code: 'invalid', field: 'lines.0.quantity' });
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [] } })).toMatchObject({
      code: 'invalid',
      field: 'lines',
    });
  });

  it('refuses a definition that contains itself, naming the path', async () => {
    const other = await shop.item('OTHER', { source: 'made' });
    await shop.define(other, [[product, '1']]);
    const definition = await server.did('definition', api.startRevision, {
      params: { id: product.definitionId ?? (await shop.stockOf(product)).definitionId ?? 0 },
      body: {},
    });
    const draft = definition.revisions[0];
    const save = (itemId: number) =>
      server.refused(api.saveRevision, {
        params: { id: draft?.id ?? 0 },
        body: {
          version: draft?.version ?? 0,
          outputQuantity: '1',
          lines: [partLine(part, '1'), partLine(part, '1', { itemId })],
        },
      });
    expect(await save(product.id)).toMatchObject({
      code: 'contains-itself',
      field: 'lines.1.itemId',
      facts: { path: ['PRODUCT', 'PRODUCT'] },
    });
    expect(await save(other.id)).toMatchObject({
      code: 'contains-itself',
      facts: { path: ['PRODUCT', 'OTHER', 'PRODUCT'] },
    });
    await server.call(api.discardRevision, { params: { id: draft?.id ?? 0 } });
  });

  it('refuses take-apart shares that cannot be a hundred, and amounts of no sense in a draft', async () => {
    const made = await shop.item('SHARED', { source: 'made' });
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: made.id } });
    const line = partLine(part, '1', { share: '60' });
    const save = (lines: object[]) =>
      server.refused(api.saveRevision, {
        params: { id: revisions[0]?.id ?? 0 },
        body: { version: 0, outputQuantity: '1', lines: lines as never },
      });
    expect(await save([line, line])).toMatchObject({ code: 'shares-over', facts: { sum: '120' } });
    expect(await save([line])).toMatchObject({ code: 'shares-under' });
    expect(await save([{ ...line, quantity: '0' }])).toMatchObject({ code: 'not-positive', field: 'lines.0.quantity' });
    expect(await save([{ ...line, waste: '-1' }])).toMatchObject({ code: 'out-of-range', field: 'lines.0.waste' });
    expect(await save([{ ...line, share: '101' }])).toMatchObject({ code: 'out-of-range', field: 'lines.0.share' });
    expect(
      await server.refused(api.putInUse, { params: { id: revisions[0]?.id ?? 0 }, body: { version: 0 } }),
    ).toMatchObject({ code: 'no-lines' });
    expect(
      await server.refused(api.planBuilds, { body: { builds: [{ itemId: made.id, quantity: '1', due: null }] } }),
    ).toMatchObject({ code: 'no-definition-in-use' });
  });

  it('refuses to finish more than planned and to pick more than is open, also in two lines', async () => {
    const build = await shop.start(product, '5');
    const line = build.lines[0]?.id ?? 0;
    const pick = (...quantities: string[]) => ({
      params: { id: build.id },
      body: { lines: quantities.map((quantity) => ({ lineId: line, binId: shop.bin(0), quantity })) },
    });
    expect(await server.refused(api.pick, pick('11'))).toMatchObject({
      code: 'more-than-open',
      field: 'lines.0.quantity',
      facts: { open: '10' },
    });
    expect(await server.refused(api.pick, pick('6', '5'))).toMatchObject({
      code: 'more-than-open',
      field: 'lines.1.quantity',
      facts: { open: '4' },
    });
    expect(await server.refused(api.pick, pick('-1'))).toMatchObject({ code: 'not-positive' });
    const finish = (good: string) =>
      server.refused(api.finish, {
        params: { id: build.id },
        body: { version: build.version, good, outputBinId: shop.bin(2), lines: [] },
      });
    expect(await finish('6')).toMatchObject({ code: 'more-than-planned', field: 'good', facts: { left: '5' } });
    expect(await finish('0')).toMatchObject({ code: 'not-positive' });
    expect(await finish('2.5')).toMatchObject({ code: 'too-many-decimals', field: 'good' });
    await server.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
  });

  it('refuses to take apart more than is on hand, or to get back more than went in', async () => {
    const plan = await server.call(api.apartPlan, { params: { id: product.id } });
    const apart = (quantity: string, good: string, damaged = '0') =>
      server.refused(api.takeApart, {
        body: {
          itemId: product.id,
          revisionId: plan.revisionId,
          binId: shop.bin(2),
          quantity,
          leftover: 'spread',
          lines: [{ lineId: plan.lines[0]?.lineId ?? 0, good, damaged, binId: shop.bin(0) }],
        },
      });
    expect(await apart('1', '2')).toMatchObject({
      code: 'stock-short',
      status: 409,
      facts: { lines: [{ name: 'The PRODUCT', wanted: '1', there: '0', bin: 'B1' }] },
    });
    expect(await apart('1', '2', '1')).toMatchObject({ code: 'more-than-expected', field: 'lines.0.damaged' });
  });

  it('keeps codes unique whatever their case, and units once stock has been kept in them', async () => {
    const { code, name, source, homeBinId } = part;
    const body = {
      code: 'part',
      name,
      source,
      homeBinId,
      unitId: 1,
      sellPrice: null,
      reorderPoint: null,
      standardCost: null,
      note: '',
    };
    expect(await server.refused(api.createItem, { body })).toMatchObject({
      code: 'code-taken',
      field: 'code',
      status: 409,
    });
    expect(
      await server.refused(api.updateItem, {
        params: { id: part.id },
        body: { ...body, code, unitId: 2, version: part.version },
      }),
    ).toMatchObject({ code: 'unit-in-use', field: 'unitId' });
  });

  it('answers what does not exist with 404, and books stay whole after all of this', async () => {
    expect(await server.refused(api.build, { params: { id: 4711 } })).toMatchObject({ status: 404, code: 'not-found' });
    expect((await server.fetch('/api/nowhere')).status).toBe(404);
    expect(await server.verify()).toEqual([]);
  });
});
