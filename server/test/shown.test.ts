import { api, type Item, TABLE_PATH } from '@yosegi/contract';
import exceljs from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let part: Item;
let dear: Item;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  part = await shop.item('PART');
  dear = await shop.item('DEAR');
  await shop.receive(part, '10', '2');
  await shop.receive(dear, '1', '8');
});
afterAll(() => server.close());

/** A product of these parts, in use unless it is only a draft. */
async function product(code: string, sellPrice: string | null, lines: readonly [Item, string][], inUse = true) {
  const item = await shop.item(code, { source: 'made', sellPrice });
  const begun = await server.did('definition', api.createDefinition, { body: { itemId: item.id } });
  const [draft] = begun.revisions;
  const body = { version: 0, outputQuantity: '1', lines: lines.map(([one, amount]) => partLine(one, amount)) };
  const saved = await server.did('definition', api.saveRevision, { params: { id: draft?.id ?? 0 }, body });
  const version = saved.revisions[0]?.version ?? 0;
  if (inUse) await server.call(api.putInUse, { params: { id: draft?.id ?? 0 }, body: { version } });
}

describe('products as an owner looks at them', () => {
  beforeAll(async () => {
    await product('GOOD', '10', [[part, '2']]);
    await product('THIN', '4.2', [[part, '2']]);
    await product('LOSSY', '3', [[part, '2']]);
    await product('SHORT', '40', [
      [dear, '2'],
      [part, '1'],
    ]);
    await product('BEGUN', null, [[part, '1']], false);
  });
  const list = async (query: object = {}) => (await server.call(api.products, { query })).rows;
  const codes = async (query: object = {}) => (await list(query)).map(({ code }) => code);

  it('come with cost, price, margin and what can be made, the worrying first', async () => {
    // Standing loss, then what is no definition yet, then what cannot be made, then by margin.
    expect(await codes()).toEqual(['LOSSY', 'BEGUN', 'SHORT', 'THIN', 'GOOD']);
    const [lossy, begun, short] = await list();
    expect(lossy).toMatchObject({
      ...{ unitCost: '4', sellPrice: '3', margin: '-33.333333', canMakeNow: '5' },
      ...{ faults: ['below-cost'], inUse: 1, draft: null },
    });
    expect(begun).toMatchObject({ faults: ['none-in-use'], margin: null, canMakeNow: null, inUse: null, draft: 1 });
    expect(short).toMatchObject({
      ...{ unitCost: '18', margin: '55', canMakeNow: '0', faults: [] },
      pieces: [
        { code: 'DEAR', name: dear.name, cost: '16' },
        { code: 'PART', name: part.name, cost: '2' },
      ],
    });
  });

  it('sort by each figure, what is unknown before what is known, and are found by code and name', async () => {
    expect(await codes({ sort: 'code' })).toEqual(['BEGUN', 'GOOD', 'LOSSY', 'SHORT', 'THIN']);
    expect(await codes({ sort: 'unitCost', down: 'true' })).toEqual(['SHORT', 'GOOD', 'LOSSY', 'THIN', 'BEGUN']);
    expect(await codes({ sort: 'margin' })).toEqual(['BEGUN', 'LOSSY', 'THIN', 'SHORT', 'GOOD']);
    expect(await codes({ sort: 'canMakeNow' })).toEqual(['BEGUN', 'SHORT', 'GOOD', 'LOSSY', 'THIN']);
    expect(await codes({ q: 'thi' })).toEqual(['THIN']);
    const first = await server.call(api.products, { query: { limit: 3 } });
    const rest = await server.call(api.products, { query: { limit: 3, cursor: first.next ?? '' } });
    expect([...first.rows, ...rest.rows].map(({ code }) => code)).toEqual(await codes());
    expect(rest.next).toBeNull();
  });
});

describe('a list as it is shown', () => {
  const table = (body: unknown, format = 'csv') =>
    server.fetch(`${TABLE_PATH}?format=${format}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });
  const shown = {
    name: 'Items: low/free',
    columns: [
      { title: 'Name', amount: false },
      { title: 'Free', amount: true },
    ],
    rows: [
      ['=HYPERLINK("x")', '-34'],
      ['Bee brush', '-1+1'],
      ['Short', ''],
    ],
  };

  it('is a CSV whose numbers are numbers, and whose texts are never formulas', async () => {
    const response = await table(shown);
    expect(response.headers.get('content-disposition')).toBe(
      'attachment; filename="yosegi-items-low-free-2026-11-23.csv"',
    );
    const rows = ['Name,Free', '"\'=HYPERLINK(""x"")",-34', "Bee brush,'-1+1", 'Short,', ''];
    expect(await response.text()).toBe(`${rows.join('\r\n')}`);
  });

  it('is an XLSX of the same', async () => {
    const workbook = new exceljs.Workbook();
    // A name that workbooks keep for themselves.
    await workbook.xlsx.load((await (await table({ ...shown, name: 'History' }, 'xlsx')).arrayBuffer()) as never);
    const [sheet] = workbook.worksheets;
    expect(sheet?.name).toBe('List');
    expect(sheet?.getRow(2).getCell(1).value).toBe('=HYPERLINK("x")');
    expect([sheet?.getRow(2).getCell(2).value, sheet?.getRow(3).getCell(2).value]).toEqual([-34, '-1+1']);
  });

  it('is refused when it is no list', async () => {
    for (const body of ['', '[]', '{"name":"x"}', 'nonsense', { ...shown, rows: [[1]] }, { ...shown, columns: [] }])
      expect((await table(body)).status).toBe(422);
    expect((await table(shown, 'pdf')).status).toBe(422);
    const { status } = await fetch(`${server.address}${TABLE_PATH}?format=csv`, { method: 'POST' });
    expect(status).toBe(401);
  });
});

describe('the list of documents', () => {
  it('says what each was about, for what, and who brought it', async () => {
    const supplier = await server.call(api.createSupplier, {
      body: { code: 'OAK', name: 'Oak & Sons', email: '', address: '' },
    });
    const bin = shop.bin(0);
    const lines = [
      { itemId: part.id, quantity: '3', price: '1' },
      { itemId: dear.id, quantity: '2', price: '9' },
    ];
    const order = await shop.order({ supplierId: supplier.id, lines });
    const params = { id: order.id };
    await server.call(api.sendPurchase, { params, body: { version: order.version, how: 'print' } });
    const received = order.lines.map((line) => ({
      ...{ lineId: line.id, binId: bin, quantity: line.quantity, unitCost: line.price },
    }));
    await server.call(api.receivePurchase, { params, body: { lines: received } });
    const moving = [{ itemId: part.id, fromBinId: bin, toBinId: shop.bin(1), quantity: '4' }];
    await server.call(api.transfer, { body: { lines: moving } });
    const [moved, came] = (await server.call(api.documents, {})).rows;
    expect(moved).toMatchObject({ item: { code: 'PART', quantity: '4' }, others: 0, for: null, party: null });
    expect(came).toMatchObject({ item: { code: 'DEAR', quantity: '2' }, others: 1, party: 'Oak & Sons' });
    // An override that was not needed is nobody's reason.
    const override = { reason: 'To be sure' };
    const sure = await server.posted(api.transfer, { body: { lines: moving, override } });
    expect(sure.overrideReason).toBeNull();
    await server.call(api.undoDocument, { params: { id: sure.id }, body: {} });
    const { rows } = await server.call(api.documents, {});
    expect(rows.slice(0, 3).map(({ kind, undone }) => [kind, undone])).toEqual([
      ['undo', false],
      ['transfer', true],
      ['transfer', false],
    ]);
    // What is not tracked stands in its bin without pieces.
    const bins = await server.call(api.itemBins, { params: { id: part.id } });
    expect(bins.find(({ binId }) => binId === shop.bin(1))).toMatchObject({ pieces: [] });
  });
});
