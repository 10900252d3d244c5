import { api, EXPORTS_PATH, type FileKindName, IMPORTS_PATH, type ImportJob, type Item } from '@yosegi/contract';
import { LARGEST_FILE } from '@yosegi/core/exchange';
import exceljs from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';
import { zipBomb } from './zip-bomb.ts';

let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
});
afterAll(() => server.close());

const send = (kind: FileKindName, content: string | Uint8Array, name = 'file.csv') =>
  server.fetch(`${IMPORTS_PATH}?kind=${kind}&name=${encodeURIComponent(name)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: typeof content === 'string' ? content : Buffer.from(content),
  });

/** The job once it is in another state; each question waits for the next step. */
async function settled(id: string, from: ImportJob['state'] = 'reading'): Promise<ImportJob> {
  let job = await server.call(api.importJob, { params: { id } });
  while (job.state === from) job = await server.call(api.importJob, { params: { id }, query: { seen: job.step } });
  return job;
}
async function check(kind: FileKindName, content: string | Uint8Array): Promise<ImportJob> {
  const response = await send(kind, content);
  if (!response.ok) throw new Error(await response.text());
  return settled(((await response.json()) as ImportJob).id);
}
const rowsOf = async (job: ImportJob) =>
  (await server.call(api.importRows, { params: { id: job.id }, query: { limit: 500 } })).rows;
const apply = (job: ImportJob) => server.call(api.applyImport, { params: { id: job.id }, body: {} });
const download = async (kind: FileKindName, format: 'csv' | 'xlsx') =>
  Buffer.from(await (await server.fetch(`${EXPORTS_PATH}?kind=${kind}&format=${format}`)).arrayBuffer());
async function workbook(fill: (sheet: exceljs.Worksheet) => void): Promise<Uint8Array> {
  const book = new exceljs.Workbook();
  fill(book.addWorksheet('Sheet'));
  return new Uint8Array(await book.xlsx.writeBuffer());
}

describe('files that are not what they should be', () => {
  it.each<[string, () => Uint8Array | Promise<Uint8Array>, RegExp]>([
    ['a PDF renamed', () => Buffer.from('%PDF-1.7\n1 0 obj'), /This is a PDF, whatever its name says/],
    ['a picture renamed', () => Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a]), /This is a picture/],
    ['a workbook of before 2007', () => Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1]), /before 2007/],
    ['an empty file', () => Buffer.from(''), /has no rows below its titles/],
    ['titles alone', () => Buffer.from('Code,Name\n'), /has no rows below its titles/],
    ['an empty sheet', () => workbook(() => undefined), /has no rows below its titles/],
    ['another ZIP archive', () => zipBomb({ entries: 1, size: 10 }), /a ZIP archive/],
    ['a ZIP bomb', () => zipBomb({ entries: 1, size: 400 * 1024 * 1024 }), /unpacks to far more/],
    ['a ZIP bomb of many entries', () => zipBomb({ entries: 2500, size: 10 }), /unpacks to far more/],
    ['a ZIP bomb that lies about its size', () => zipBomb({ entries: 1, size: 5_000_000, told: 1000 }), /damaged/],
    ['half a workbook', async () => (await workbook((sheet) => sheet.addRow(['Code']))).subarray(0, 900), /damaged/],
    ['bytes', () => Buffer.from(Array.from({ length: 400 }, (_, n) => (n * 7) % 256)), /not a text file/],
    [
      'a quote never closed',
      () => Buffer.from('Code,Name\nA,"Nails\nB,Pins\n'),
      /quoted cell in row 2 is never closed/,
    ],
  ])('%s gets a clear answer', async (_, content, answer) => {
    const job = await check('items', await content());
    expect(job).toMatchObject({ state: 'failed', problem: expect.stringMatching(answer) });
  });

  it('200 MB are refused without being taken in', async () => {
    const size = 200 * 1024 * 1024;
    const told = await new Promise<{ status: number; body: string }>((resolve, reject) => {
      import('node:http').then(({ request }) => {
        const path = `${IMPORTS_PATH}?kind=items`;
        const { port } = new URL(server.address);
        const headers = { 'content-length': size, 'content-type': 'application/octet-stream', cookie: server.cookie };
        const asked = request({ port, host: '127.0.0.1', path, method: 'POST', headers }, (response) => {
          let body = '';
          response.on('data', (chunk) => {
            body += chunk;
          });
          response.on('end', () => {
            asked.destroy();
            resolve({ status: response.statusCode ?? 0, body });
          });
        });
        asked.on('error', reject);
        asked.write('Code,Name\n');
      });
    });
    expect(told.status).toBe(413);
    expect(told.body).toContain('larger than 32 MB');
    expect(LARGEST_FILE).toBe(32 * 1024 * 1024);
  });

  it('a file without a told length is cut off at the limit', async () => {
    const chunk = new Uint8Array(1024 * 1024).fill(65);
    const body = new ReadableStream({
      pull(controller) {
        controller.enqueue(chunk);
      },
    });
    const response = await server
      .fetch(`${IMPORTS_PATH}?kind=items`, {
        method: 'POST',
        body,
        duplex: 'half',
        headers: { 'content-type': 'application/octet-stream' },
      } as RequestInit)
      .catch(() => null);
    // The connection may be closed before the answer is read; either way nothing was taken in.
    if (response) expect(response.status).toBe(413);
  });

  it('nobody else sees a file', async () => {
    const job = await check('items', 'Code,Name\nX,Y');
    await server.signIn(2);
    expect(await server.refused(api.importJob, { params: { id: job.id } })).toMatchObject({
      code: 'import-gone',
      status: 404,
    });
    await server.signIn(1);
    const cookie = server.cookie;
    server.cookie = '';
    expect((await send('items', 'Code,Name\nX,Y')).status).toBe(401);
    expect((await server.fetch(`${EXPORTS_PATH}?kind=items`)).status).toBe(401);
    server.cookie = cookie;
    expect((await server.fetch(`${EXPORTS_PATH}?kind=people`)).status).toBe(422);
  });
});

describe('ways to write the same table', () => {
  const table = (delimiter: string) =>
    [
      ['Code', 'Name', 'Sell price', 'Note'],
      ['MÜL-1', '"Mühle, groß"', delimiter === ',' ? '1234.5' : '1.234,50', '"first line\nsecond ""line"""'],
    ]
      .map((row) => row.join(delimiter))
      .join('\r\n');
  const utf16 = (text: string, big: boolean, mark: boolean) => {
    const little = Buffer.from((mark ? '\ufeff' : '') + text, 'utf16le');
    return big ? little.swap16() : little;
  };
  it.each<[string, () => Buffer, string]>([
    ['comma, UTF-8', () => Buffer.from(table(',')), 'CSV, comma, UTF-8'],
    ['semicolon, UTF-8 with a mark', () => Buffer.from(`\ufeff${table(';')}`), 'CSV, semicolon, UTF-8'],
    ['tab, UTF-16 with a mark', () => utf16(table('\t'), false, true), 'CSV, tab, UTF-16'],
    ['tab, UTF-16 the other way round', () => utf16(table('\t'), true, true), 'CSV, tab, UTF-16'],
    ['semicolon, UTF-16 without a mark', () => utf16(table(';'), false, false), 'CSV, semicolon, UTF-16'],
    ['semicolon, Windows-1252', () => Buffer.from(table(';'), 'latin1'), 'CSV, semicolon, Windows-1252'],
    ['bar, told by its first line', () => Buffer.from(`sep=|\r\n${table('|')}`), 'CSV, bar, UTF-8'],
  ])('%s', async (_, content, format) => {
    const job = await check('items', content());
    expect(job).toMatchObject({ state: 'ready', format, matching: ['code', 'name', 'sellPrice', 'note'] });
    expect(job.sample[0]).toEqual([
      'MÜL-1',
      'Mühle, groß',
      expect.stringMatching(/1.?234[.,]5/),
      'first line\nsecond "line"',
    ]);
    expect(job.counts).toEqual({ new: 1, changed: 0, same: 0, refused: 0 });
  });

  it('a title above, cells too many, a missing column and a doubled code are told row by row', async () => {
    const job = await check('items', 'Stock list of May\n\nCode,Unit\nA,each\nA,each\nB,each,12,5\nC,crate\n');
    expect(job).toMatchObject({ missing: ['Name'], counts: { refused: 4 } });
    const rows = await rowsOf(job);
    expect(rows.map(({ row }) => row)).toEqual([4, 5, 6, 7]);
    expect(rows[1]?.faults[0]?.reason).toContain('is in row 4 already');
    expect(rows[2]?.faults[0]?.reason).toContain('4 cells under 2 titles');
    expect(rows[3]?.faults.map(({ column, reason }) => `${column}: ${reason}`).join(' ')).toMatch(
      /Name: Fill this in. Unit: “crate” is not a stock unit\. There are each, kg/,
    );
    expect(await server.refused(api.applyImport, { params: { id: job.id }, body: {} })).toMatchObject({
      code: 'import-has-refusals',
    });
  });

  it('a workbook gives numbers as they look, formulas as they were saved, and names what it cannot give', async () => {
    const content = await workbook((sheet) => {
      sheet.addRow(['Code', 'Name', 'Sell price', 'Standard cost', 'Barcode']);
      sheet.addRow([
        'F-1',
        { richText: [{ text: 'Fine ' }, { text: 'pin' }] },
        0.1 + 0.2,
        { formula: 'C2*2', result: 0.6 },
        4006381333931,
      ]);
      sheet.addRow(['F-2', 'Broken', { error: '#REF!' }, { formula: 'C3*2' }, '']);
    });
    const job = await check('items', content);
    expect(job).toMatchObject({ format: 'XLSX, sheet Sheet', counts: { new: 1, refused: 1 } });
    expect(job.sample[0]).toEqual(['F-1', 'Fine pin', '0.3', '0.6', '4006381333931']);
    const [, broken] = await rowsOf(job);
    expect(broken?.faults.map(({ reason }) => reason)).toEqual([
      expect.stringContaining('Cell C3 shows an error'),
      expect.stringContaining('Cell D3 is a formula that was saved without its value'),
    ]);
  });

  it('other columns and another decimal sign are judged anew', async () => {
    const job = await check('items', 'Number;Text;Cost\nN-1;Pin;1,5\n');
    expect(job).toMatchObject({ decimalSign: 'comma', missing: ['Code'] });
    await server.call(api.matchColumns, {
      params: { id: job.id },
      body: { matching: ['code', 'name', 'sellPrice'], decimalSign: 'point' },
    });
    const again = await settled(job.id);
    expect(again).toMatchObject({ missing: [], counts: { refused: 1 } });
    expect((await rowsOf(again))[0]?.faults).toEqual([
      { column: 'Sell price', reason: expect.stringContaining('“1,5” is not a number') },
    ]);
    // Columns that nobody knew at first speak for the sign once they are known to be amounts.
    const unknown = await check('items', 'Code;Name;Einzelpreis\nN-1;Pin;1,5\n');
    expect(unknown).toMatchObject({ decimalSign: 'point' });
    await server.call(api.matchColumns, {
      params: { id: unknown.id },
      body: { matching: ['code', 'name', 'sellPrice'] },
    });
    expect(await settled(unknown.id)).toMatchObject({ decimalSign: 'comma' });
    const twice = { params: { id: job.id }, body: { matching: ['code', 'code'], decimalSign: 'comma' as const } };
    expect(await server.refused(api.matchColumns, twice)).toMatchObject({ code: 'column-twice' });
  });
});

describe('all or nothing', () => {
  it('a whole catalogue comes in, goes out and comes in again without a change, as CSV and as XLSX', async () => {
    const items = [
      'Code,Name,Unit,Bought or made,Home bin,Sell price,Packs,Barcode,Note,Field: Warranty months',
      'OAK,Oak board,m,bought,MAIN/A1,,bundle = 5,,=1+1,',
      'PEG,"Peg, turned",each,made,A2,1.25,box = 12; pallet = 480,4006381333931,"-5 °C at most",24',
      'RACK,Peg rack,each,made,B1,39.9,,,,12',
    ].join('\n');
    expect(await apply(await check('items', items))).toEqual({ new: 3, changed: 0, documentId: null });
    const prices =
      'Item,Supplier,Supplier name,Price,Pack,MOQ,Lead time\nOAK,NS,North Shed Timber,4.20,1 bundle,10,14\nPEG,NS,,0.4,box,0,\n';
    const bad = await check('prices', prices);
    expect((await rowsOf(bad))[1]?.faults[0]?.reason).toContain('“box” is not a number');
    expect(await apply(await check('prices', prices.replace(',box,', ',1 box,')))).toMatchObject({ new: 2 });
    const stock = 'Item;Bin;Quantity;Unit cost\nOAK;MAIN/A1;12,5;4,10\nPEG;A2;3 box;0,5\nRACK;B1;0;0\n';
    const opened = await apply(await check('stock', stock));
    expect(await server.call(api.document, { params: { id: opened.documentId ?? 0 } })).toMatchObject({
      kind: 'opening',
    });
    const definitions = [
      'Product,Makes,Component,Quantity,Waste,Taken,Alternates,Rate,Text,On an order',
      'PEG,100,OAK,150 cm,5 %,backflush,,,,',
      ',,,20,,,,Bench hour,Turn,',
      'RACK,1,OAK,0.6,,,,,,swaps listed',
      ',,PEG,6,,,OAK x 0.02,,,',
      ',,,,,,,,Sand the edges,',
    ].join('\n');
    expect(await apply(await check('definitions', definitions))).toMatchObject({ new: 2 });
    const { rows } = await server.call(api.definitions, { query: { q: 'RACK' } });
    const rack = await server.call(api.definition, { params: { id: rows[0]?.id ?? 0 } });
    expect(rack).toMatchObject({
      behaviour: { onOrder: 'swaps', swapFor: 'listed' },
      revisions: [
        {
          state: 'in-use',
          lines: [{ quantity: '0.6' }, { quantity: '6', alternates: [{ ratio: '0.02' }] }, { kind: 'note' }],
        },
      ],
    });
    const peg = (await server.call(api.items, { query: { q: '4006381333931' } })).rows[0] as Item;
    expect(await server.call(api.item, { params: { id: peg.id } })).toMatchObject({
      code: 'PEG',
      note: '-5 °C at most',
      onHand: '36',
      packs: [
        { name: 'box', one: '12' },
        { name: 'pallet', one: '480' },
      ],
      suppliers: [{ supplier: 'NS', price: '0.4', pack: '12' }],
      fields: [{ name: 'Warranty months', value: '24' }],
    });
    for (const kind of ['items', 'prices', 'stock', 'definitions'] as const) {
      for (const format of ['csv', 'xlsx'] as const) {
        const content = await download(kind, format);
        const job = await check(kind, content);
        const { same, ...others } = job.counts;
        expect([
          kind,
          format,
          others,
          await rowsOf(job).then((all) => all.filter(({ fate }) => fate !== 'same')),
        ]).toEqual([kind, format, { new: 0, changed: 0, refused: 0 }, []]);
        expect(same).toBeGreaterThan(1);
        expect(await apply(job)).toEqual({ new: 0, changed: 0, documentId: null });
        if (format === 'csv' && kind === 'items') {
          expect(content.toString()).toContain(",'=1+1,");
          expect(content.toString()).toContain(",'-5 °C at most,");
        }
      }
    }
    const asked: string[] = [];
    const end = server.database.trace((sql) => asked.push(sql));
    const again = await download('items', 'xlsx');
    end();
    // A thread reads the catalogue over a connection of its own: nobody else's question waits for it.
    expect(asked.filter((sql) => sql.includes('FROM item '))).toEqual([]);
    const book = new exceljs.Workbook();
    await book.xlsx.load(again as unknown as ArrayBuffer);
    const notes = book.worksheets[0]?.getColumn('Q').values ?? [];
    expect(notes).toContain('=1+1');
    expect(await server.verify()).toEqual([]);
  });

  it('changes what differs: an item, a price, and a definition as its next revision', async () => {
    expect(await apply(await check('items', 'Code,Sell price\npeg,1.5\n'))).toMatchObject({ new: 0, changed: 1 });
    expect(await apply(await check('prices', 'Item,Supplier,Price\nPEG,ns,0.45\n'))).toMatchObject({ changed: 1 });
    const job = await check('definitions', 'Product,Component,Quantity\nPEG,OAK,0.02\n');
    expect(await apply(job)).toMatchObject({ changed: 1 });
    const { rows } = await server.call(api.definitions, { query: { q: 'PEG' } });
    const peg = await server.call(api.definition, { params: { id: rows.find(({ code }) => code === 'PEG')?.id ?? 0 } });
    expect(peg.revisions.map(({ number, state }) => [number, state])).toEqual([
      [2, 'in-use'],
      [1, 'retired'],
    ]);
    expect(await server.call(api.item, { params: { id: peg.item.id } })).toMatchObject({
      sellPrice: '1.5',
      barcode: '4006381333931',
    });
  });

  it('swaps barcodes of two items, which no order of saving them one by one could', async () => {
    const codes = async (...items: string[]) =>
      Promise.all(
        items.map(
          async (q) => (await server.call(api.items, { query: { q } })).rows.find(({ code }) => code === q)?.barcode,
        ),
      );
    const bring = async (one: string, two: string) =>
      apply(await check('items', `code,NAME,BarCode\nSWAP-1,One,${one}\nSWAP-2,Two,${two}\n`));
    await bring('96385074', '036000291452');
    expect(await bring('036000291452', '96385074')).toMatchObject({ new: 0, changed: 2 });
    expect(await codes('SWAP-1', 'SWAP-2')).toEqual(['036000291452', '96385074']);
  });

  it('what changed after the check is checked again before anything comes in', async () => {
    const job = await check('items', 'Code,Name\nLATE,Late\n');
    await shop.item('LATE');
    expect(await server.refused(api.applyImport, { params: { id: job.id }, body: {} })).toMatchObject({
      code: 'import-changed',
    });
    expect((await settled(job.id)).counts).toMatchObject({ new: 0, changed: 1 });
  });

  it('a stopped import leaves nothing, and the same command twice brings it in once', async () => {
    const many = ['Code,Name', ...Array.from({ length: 4000 }, (_, n) => `BULK-${n},Bulk ${n}`)].join('\n');
    const first = await check('items', many);
    const applying = server.refused(api.applyImport, { params: { id: first.id }, body: {} }, { key: 'bulk-stopped' });
    await settled(first.id, 'ready');
    await server.call(api.cancelImport, { params: { id: first.id }, body: {} });
    expect(await applying).toMatchObject({ code: 'import-cancelled' });
    expect((await server.call(api.items, { query: { q: 'BULK-' } })).rows).toEqual([]);
    const again = await check('items', many);
    const command = { params: { id: again.id }, body: {} };
    const answers = await Promise.all(
      [1, 2, 3].map(() => server.call(api.applyImport, command, { key: 'bulk-brought-in' })),
    );
    expect(answers).toEqual([1, 2, 3].map(() => ({ new: 4000, changed: 0, documentId: null })));
    expect((await server.call(api.items, { query: { q: 'BULK-', limit: 500 } })).rows).toHaveLength(500);
    expect(await server.verify()).toEqual([]);
  });
});

describe('what a company takes to another', () => {
  it('comes in again whole: patterns of serials, rules of lots, price breaks, stock in quarantine and below zero', async () => {
    const own = await TestServer.start();
    const first = await Workshop.open(own);
    const q1 = { code: 'Q1', pickingOrder: 90, kind: 'quarantine' as const };
    const quarantine = (await own.call(api.createBin, { params: { id: first.store.id }, body: q1 })).id;
    const jar = await first.item('JAR');
    await first.item('SCALE', { tracking: 'serial', serialPattern: 'SC-####', returnDays: 30 } as never);
    await first.item('WAX', { tracking: 'lot', lotOrder: 'free', lotFields: ['Colour', 'Origin'] } as never);
    await first.receive(jar, '10', '2');
    const move = { itemId: jar.id, fromBinId: first.bin(0), toBinId: quarantine, quantity: '4' };
    await own.call(api.transfer, { body: { lines: [move] } });
    const reasonId = (await own.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'adjustment')?.id ?? 0;
    const lines = [{ itemId: jar.id, binId: first.bin(1), change: '-2' }];
    await own.call(api.adjust, { body: { lines, reasonId, override: { reason: 'It was there' } } as never });
    const mill = await own.call(api.createSupplier, { body: { code: 'MILL', name: 'The Mill' } as never });
    const offer = { supplierId: mill.id, code: '', price: '2', pack: '1', minimum: '0', leadDays: null };
    const item = await own.call(api.item, { params: { id: jar.id } });
    const breaks = [
      { from: '100', price: '1.8' },
      { from: '1000', price: '1.5' },
    ];
    const body = { ...item, suppliers: [{ ...offer, breaks }], packs: [], fields: [] } as never;
    await own.call(api.updateItem, { params: { id: jar.id }, body });
    const files = async (from: TestServer) => {
      const text = async (kind: FileKindName) => (await from.fetch(`${EXPORTS_PATH}?kind=${kind}&format=csv`)).text();
      return { items: await text('items'), prices: await text('prices'), stock: await text('stock') };
    };
    const taken = await files(own);
    expect(taken.prices).toContain('100 = 1.8; 1000 = 1.5');
    const bring = async (to: TestServer, kind: FileKindName, content: string) => {
      const before = server;
      server = to;
      try {
        const job = await check(kind, content);
        expect([kind, job.state, job.counts.refused, (await rowsOf(job)).flatMap(({ faults }) => faults)]).toEqual([
          kind,
          'ready',
          0,
          [],
        ]);
        if (job.counts.new + job.counts.changed > 0) await apply(job);
        return job.counts;
      } finally {
        server = before;
      }
    };
    // At home nothing changes by it.
    for (const kind of ['items', 'prices', 'stock'] as const)
      expect(await bring(own, kind, taken[kind])).toMatchObject({ new: 0, changed: 0 });
    const other = await TestServer.start();
    const second = await Workshop.open(other);
    await other.call(api.createBin, { params: { id: second.store.id }, body: q1 });
    for (const kind of ['items', 'prices', 'stock'] as const) await bring(other, kind, taken[kind]);
    expect(await files(other)).toEqual(taken);
    expect(await other.verify()).toEqual([]);
    await other.close();
    await own.close();
  });

  it('may have rows of nothing, whatever they leave out', async () => {
    await shop.item('NOTHING');
    const job = await check(
      'stock',
      'Item,Bin,Quantity,Unit cost\nNOTHING,,0,\nNOTHING,MAIN/A1,0,\nNOTHING,,"0,00",\n',
    );
    expect(job.counts).toEqual({ new: 0, changed: 0, same: 3, refused: 0 });
    const typed = await check('stock', 'Item,Bin,Quantity,Unit cost\nNOTHING,,3,\n');
    expect(typed.counts.refused).toBe(1);
  });
});
