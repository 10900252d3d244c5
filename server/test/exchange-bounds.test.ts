import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, EXPORTS_PATH, type FileKindName, IMPORTS_PATH, type ImportJob, labelPdfPath } from '@yosegi/contract';
import exceljs from 'exceljs';
import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { Slots } from '../src/command/slots.ts';
import { partLine, TestServer, Workshop } from './harness.ts';

// Threads that read files start slowly on a busy machine.
vi.setConfig({ testTimeout: 60_000 });

let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

async function send(kind: FileKindName, content: string | Uint8Array): Promise<ImportJob> {
  const response = await server.fetch(`${IMPORTS_PATH}?kind=${kind}&name=file`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: typeof content === 'string' ? content : Buffer.from(content),
  });
  if (!response.ok) throw new Error(await response.text());
  return (await response.json()) as ImportJob;
}
async function settled({ id }: ImportJob): Promise<ImportJob> {
  let job = await server.call(api.importJob, { params: { id } });
  while (job.state === 'reading') job = await server.call(api.importJob, { params: { id }, query: { seen: job.step } });
  return job;
}
const check = async (kind: FileKindName, content: string | Uint8Array) => settled(await send(kind, content));
const apply = ({ id }: ImportJob) => ({ params: { id }, body: {} });

/** A small workbook whose inside is changed by hand. */
async function workbook(path: string, change: (xml: string) => string): Promise<Uint8Array> {
  const book = new exceljs.Workbook();
  const sheet = book.addWorksheet('S');
  sheet.addRow(['Code', 'Name']);
  sheet.addRow(['A-1', 'Pin']);
  const zip = await JSZip.loadAsync(Buffer.from(await book.xlsx.writeBuffer()));
  zip.file(path, change((await zip.file(path)?.async('string')) ?? ''));
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}
const SHEET = 'xl/worksheets/sheet1.xml';

describe('a small file that would be a lot of work', () => {
  it('is read without what is merged', async () => {
    const content = await workbook(SHEET, (xml) =>
      xml.replace('</sheetData>', '</sheetData><mergeCells count="1"><mergeCell ref="A1:XFD1048576"/></mergeCells>'),
    );
    expect(content.length).toBeLessThan(8000);
    expect(await check('items', content)).toMatchObject({ state: 'ready', counts: { new: 1 } });
  });

  it.each<[string, () => string | Uint8Array | Promise<Uint8Array>, RegExp]>([
    [
      'a name for all cells there can be',
      () =>
        workbook('xl/workbook.xml', (xml) =>
          xml.replace(
            '</sheets>',
            '</sheets><definedNames><definedName name="x">S!$A$1:$XFD$1048576</definedName></definedNames>',
          ),
        ),
      /cells or named ranges/,
    ],
    [
      'a cell at the far end of a row',
      () =>
        workbook(SHEET, (xml) => xml.replace('</sheetData>', '<row r="9"><c r="XFD9"><v>1</v></c></row></sheetData>')),
      /far more cells/,
    ],
    [
      'millions of cells',
      () =>
        workbook(SHEET, (xml) =>
          xml.replace('</sheetData>', `<row r="9">${'<c/>'.repeat(4_100_000)}</row></sheetData>`),
        ),
      /far more cells/,
    ],
    ['nothing but line ends', () => `Code,Name\n${'\n'.repeat(20_000_000)}`, /can be imported at once/],
    ['nothing but delimiters', () => `Code,Name\n${','.repeat(20_000_000)}`, /far more cells/],
  ])('%s is refused with words before it is one', async (_, content, words) => {
    const job = await check('items', await content());
    expect(job).toMatchObject({ state: 'failed', problem: expect.stringMatching(words) });
  });
});

describe('a file whose bringing in fails at the end', () => {
  it('is not said to be in, and can be tried again', async () => {
    const job = await check('items', 'Code,Name\nLATE-1,Late one\n');
    expect(job.state).toBe('ready');
    const { write } = server.database;
    server.database.write = async (work) =>
      write.call(server.database, async (tx) => {
        await work(tx);
        throw Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
      }) as never;
    const key = crypto.randomUUID();
    expect(await server.refused(api.applyImport, apply(job), { key })).toMatchObject({ code: 'disk-full' });
    server.database.write = write;
    expect(await settled(job)).toMatchObject({ state: 'ready' });
    expect((await server.call(api.items, { query: { q: 'LATE-1' } })).rows).toEqual([]);
    expect(await server.call(api.applyImport, apply(job), { key })).toMatchObject({ new: 1 });
    expect(await settled(job)).toMatchObject({ state: 'done' });
    expect((await server.refused(api.applyImport, apply(job))).code).toBe('wrong-state');
  });
});

it('files of a server that has died are gone with the next one, those of a living one stay', async () => {
  const dead = spawnSync('node', ['-e', '']).pid;
  const [left, living] = [dead, process.ppid].map((pid) => mkdtempSync(join(tmpdir(), `yosegi-import-${pid}-`)));
  for (const folder of [left, living]) writeFileSync(join(folder ?? '', 'upload'), 'Code,Name');
  const next = await TestServer.start();
  expect([left, living].map((folder) => existsSync(folder ?? ''))).toEqual([false, true]);
  await next.close();
  rmSync(living ?? '', { recursive: true });
});

describe('files of several people', () => {
  it('push out only older ones of the same person', async () => {
    const first = await check('items', 'Code,Name\nP-1,One\n');
    await server.signIn(2);
    for (let n = 0; n < 5; n += 1) await check('items', `Code,Name\nQ-${n},Other\n`);
    await server.signIn(1);
    expect(await settled(first)).toMatchObject({ state: 'ready' });
    for (let n = 0; n < 3; n += 1) await check('items', `Code,Name\nR-${n},Newer\n`);
    expect((await server.refused(api.importJob, { params: { id: first.id } })).code).toBe('import-gone');
  });

  it('are served in turn, never more than so many at once', async () => {
    const slots = new Slots(2, 3);
    const order: string[] = [];
    let [running, most] = [0, 0];
    const ends: (() => void)[] = [];
    const work = (name: string) => async () => {
      running += 1;
      most = Math.max(most, running);
      order.push(name);
      await new Promise<void>((resolve) => ends.push(resolve));
      running -= 1;
    };
    const all = [
      ...['a1', 'a2', 'a3', 'a4', 'a5'].map((name) => slots.run(1, work(name))),
      ...['b1', 'b2'].map((name) => slots.run(2, work(name))),
    ];
    await expect(slots.run(1, work('a6'))).rejects.toMatchObject({ code: 'too-much-waiting' });
    while (order.length < 7 || running > 0) {
      ends.shift()?.();
      await new Promise((resolve) => setImmediate(resolve));
    }
    await Promise.all(all);
    expect(most).toBe(2);
    expect(order).toEqual(['a1', 'a2', 'a3', 'b1', 'a4', 'b2', 'a5']);
    // Failed work gives its place back.
    await expect(slots.run(1, () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await slots.run(1, async () => 'yes')).toBe('yes');
  });

  it('come down side by side with labels, all of them', async () => {
    const item = await shop.item('LBL');
    const job = await server.did('labelJob', api.createLabelJob, { body: { of: { itemId: item.id, copies: 20 } } });
    const paths = [...Array(6).fill(`${EXPORTS_PATH}?kind=items&format=csv`), labelPdfPath(job.id)];
    const answers = await Promise.all(paths.map((path) => server.fetch(path)));
    expect(answers.map(({ status }) => status)).toEqual(paths.map(() => 200));
    expect(Buffer.from((await answers.at(-1)?.arrayBuffer()) ?? new ArrayBuffer(0)).toString('latin1')).toMatch(
      /^%PDF/,
    );
  });
});

describe('a file is judged by the rules of the form', () => {
  const faults = async (kind: FileKindName, content: string) => {
    const job = await check(kind, content);
    const { rows } = await server.call(api.importRows, { params: { id: job.id }, query: {} });
    return rows.flatMap((row) => row.faults.map(({ column, reason }) => `${column}: ${reason}`)).join(' ');
  };
  const body = (code: string, more: object) => ({
    code,
    name: `The ${code}`,
    unitId: 2,
    source: 'bought' as const,
    homeBinId: null,
    sellPrice: null,
    reorderPoint: null,
    standardCost: null,
    note: '',
    ...more,
  });

  it('for items: serials in kilograms, archived while promised, another unit with a history', async () => {
    const serial = await server.refused(api.createItem, { body: body('KGS', { tracking: 'serial' }) });
    expect(await faults('items', 'Code,Name,Unit,Tracking\nKGS,Kilos,kg,serial\n')).toContain(serial.detail);
    const part = await shop.item('PROM');
    const product = await shop.item('PROD', { source: 'made' });
    await shop.define(product, [[part, '1']]);
    await shop.plan(product, '1');
    const archived = await server.refused(api.archiveItem, {
      params: { id: part.id },
      body: { archived: true, version: part.version },
    });
    expect(archived.code).toBe('archive-is-promised');
    expect(await faults('items', 'Code,Archived\nPROM,yes\n')).toContain(archived.detail);
    const other = await shop.item('ONLY-ORDERED');
    const supplier = await server.call(api.createSupplier, { body: { code: 'S', name: 'S' } });
    const lines = [{ itemId: other.id, quantity: '1', price: '1' }];
    await server.call(api.createPurchases, { body: { orders: [{ supplierId: supplier.id, lines }] } });
    const unit = await server.refused(api.updateItem, {
      params: { id: other.id },
      body: { ...body('ONLY-ORDERED', { unitId: 2 }), version: other.version },
    });
    expect(unit).toMatchObject({ code: 'unit-in-use', field: 'unitId' });
    expect(await faults('items', 'Code,Unit\nONLY-ORDERED,kg\n')).toContain(unit.detail);
    const codes = await faults('items', 'Code,Name\nWA\u200bX,Hidden\n\u0007,Bell\n');
    expect(codes).toMatch(/is not a code.*can’t be seen or printed/s);
  });

  it('for definitions: no draft is thrown away, and nothing stands in for its own product', async () => {
    const part = await shop.item('D-PART');
    const unit = await shop.item('D-UNIT', { source: 'made' });
    await shop.define(unit, [[part, '1']]);
    const rework = await server.did('definition', api.createDefinition, {
      body: { itemId: unit.id, purpose: 'rework' },
    });
    const draft = rework.revisions[0];
    await server.call(api.saveRevision, {
      params: { id: draft?.id ?? 0 },
      body: { version: draft?.version ?? 0, outputQuantity: '1', lines: [partLine(unit, '1'), partLine(part, '2')] },
    });
    await server.call(api.putInUse, { params: { id: draft?.id ?? 0 }, body: { version: (draft?.version ?? 0) + 1 } });
    const second = await server.did('definition', api.startRevision, { params: { id: rework.id }, body: {} });
    const file = (purpose: string, more = '') =>
      `Product,Purpose,Kind,Component,Quantity,Alternates\nD-UNIT,${purpose},part,D-UNIT,1,\nD-UNIT,${purpose},part,D-PART,7,${more}\n`;
    expect(await faults('definitions', file('rework'))).toContain('A draft exists already');
    expect((await server.call(api.definition, { params: { id: rework.id } })).revisions[0]?.id).toBe(
      second.revisions[0]?.id,
    );
    await server.call(api.discardRevision, { params: { id: second.revisions[0]?.id ?? 0 } });
    expect(await faults('definitions', file('rework', 'D-UNIT'))).toContain('A product can’t replace its own part');
    const typed = [partLine(part, '1', { alternates: [{ itemId: unit.id, ratio: '1' }] })];
    const fresh = await server.did('definition', api.startRevision, {
      params: { id: unit.definitionId ?? (0 || (await shop.stockOf(unit)).definitionId || 0) },
      body: {},
    });
    expect(
      await server.refused(api.saveRevision, {
        params: { id: fresh.revisions[0]?.id ?? 0 },
        body: { version: fresh.revisions[0]?.version ?? 0, outputQuantity: '1', lines: typed },
      }),
    ).toMatchObject({ code: 'alternate-is-product', field: 'lines.0.alternates.0.itemId' });
    const copied = await server.did('definition', api.createDefinition, { body: { itemId: part.id, copyOf: null } });
    expect(copied.revisions).toHaveLength(1);
  });

  it('for definitions: a draft that is all there is keeps its number when a file fills it', async () => {
    const part = await shop.item('E-PART');
    const unit = await shop.item('E-UNIT', { source: 'made' });
    const { id, revisions } = await server.did('definition', api.createDefinition, { body: { itemId: unit.id } });
    const job = await check('definitions', 'Product,State,Component,Quantity\nE-UNIT,draft,E-PART,4\n');
    expect(job.counts).toMatchObject({ refused: 0 });
    await server.call(api.applyImport, apply(job));
    const after = await server.call(api.definition, { params: { id } });
    expect(after.revisions).toMatchObject([
      { id: revisions[0]?.id, number: 1, state: 'draft', lines: [{ quantity: '4' }] },
    ]);
    expect(part.id).toBeGreaterThan(0);
  });

  it('for opening stock: nothing that is archived or packed per order', async () => {
    const gone = await shop.item('G-1');
    await server.call(api.archiveItem, { params: { id: gone.id }, body: { archived: true, version: gone.version } });
    expect(await faults('stock', 'Item,Bin,Quantity,Unit cost\nG-1,A1,3,1\n')).toContain('is archived');
  });
});
