import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { api, labelPdfPath } from '@yosegi/contract';
import { checkDigit } from '@yosegi/core/items';
import { readGs1, scanOf } from '@yosegi/core/scan';
import { printLabels } from '@yosegi/devices/labels';
import { toBuffer } from 'bwip-js/node';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let made = 0;
const gtin = `400638133393${checkDigit('400638133393')}`;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
});
afterAll(() => server.close());

const ask = (of: Parameters<typeof server.call<typeof api.createLabelJob>>[1]['body']['of']) =>
  server.did('labelJob', api.createLabelJob, { body: { of } });

describe('the label printer', () => {
  it('labels what a document brought: lots with their day, each serial on its own', async () => {
    const wax = await shop.item('WAX', { tracking: 'lot', barcode: gtin, unitId: 2 });
    const scale = await shop.item('SCALE', { tracking: 'serial' });
    const line = { binId: shop.bin(0), unitCost: '1' };
    const receipt = await server.posted(api.receive, {
      body: {
        kind: 'receipt',
        lines: [
          { ...line, itemId: wax.id, quantity: '4.5', lot: 'W-7', bestBefore: '2028-01-31' },
          { ...line, itemId: scale.id, quantity: '2', serials: ['S-1', 'S-2'] },
        ],
      },
    });
    const job = await ask({ documentId: receipt.id });
    expect(job).toMatchObject({ state: 'waiting', count: 3, title: `What ${receipt.number} brought` });
    expect(job.labels).toMatchObject([
      {
        code: 'WAX',
        lines: ['WAX · 4.5 kg', 'Lot W-7', 'Best before 2028-01-31'],
        symbol: 'gs1datamatrix',
        text: `(01)0${gtin}(17)280131(10)W-7`,
      },
      { lines: ['SCALE', 'Serial S-1'], symbol: 'gs1-128', text: '(21)S-1' },
      { text: '(21)S-2' },
    ]);
    const pdf = await server.fetch(labelPdfPath(job.id));
    expect(pdf.headers.get('content-type')).toBe('application/pdf');
    const content = Buffer.from(await pdf.arrayBuffer()).toString('latin1');
    expect(content.startsWith('%PDF-')).toBe(true);
    expect(content.match(/\/Type \/Page\b(?!s)/g)).toHaveLength(3);
    const printed = await server.did('labelJob', api.endLabelJob, { params: { id: job.id }, body: { as: 'printed' } });
    expect(printed).toMatchObject({ state: 'printed', printedAt: expect.any(String) });
    // What is over stays over.
    expect(
      await server.did('labelJob', api.endLabelJob, { params: { id: job.id }, body: { as: 'cancelled' } }),
    ).toEqual(printed);
    expect((await server.call(api.labelJobs, { query: {} })).rows).toMatchObject([{ id: job.id, state: 'printed' }]);
    expect((await fetch(server.address + labelPdfPath(job.id))).status).toBe(401);
  });

  it('labels items, lots, serials and bins, and what no symbol can carry as text alone', async () => {
    const plain = await shop.item('PLAIN');
    expect((await ask({ itemId: plain.id, copies: 2 })).labels).toEqual([
      { title: 'The PLAIN', code: 'PLAIN', lines: ['PLAIN'], symbol: 'code128', text: 'PLAIN' },
      { title: 'The PLAIN', code: 'PLAIN', lines: ['PLAIN'], symbol: 'code128', text: 'PLAIN' },
    ]);
    const bins = await ask({ storeId: shop.store.id });
    expect(bins.labels.map((label) => label.text)).toEqual(['MAIN/A1', 'MAIN/A2', 'MAIN/B1']);
    const odd = await shop.item('ÄÖ', { tracking: 'lot' });
    await shop.receive(odd, '1', '1', 0, { lot: 'Ü(1)' });
    const { rows } = await server.call(api.lots, { query: { itemId: odd.id } });
    const job = await ask({ lotId: rows[0]?.id ?? 0 });
    expect(job.labels).toMatchObject([{ symbol: 'code128', text: '' }]);
    expect((await server.fetch(labelPdfPath(job.id))).status).toBe(200);
    const none = await server.refused(api.createLabelJob, { body: { of: { serialIds: [9999] } } });
    expect(none).toMatchObject({ code: 'no-labels' });
    const missing = await server.refused(api.createLabelJob, { body: { of: { documentId: 9999 } } });
    expect(missing).toMatchObject({ code: 'not-found' });
  });

  it('draws thirty characters in bars, and one more as a square', async () => {
    const valve = await shop.item('VALVE', { tracking: 'serial', barcode: `5901234123457` });
    const serials = ['12345678', '123456789'];
    await shop.receive(valve, '2', '1', 0, { serials });
    const { rows } = await server.call(api.serials, { params: { id: valve.id }, query: {} });
    const job = await ask({ serialIds: rows.map(({ id }) => id) });
    expect(job.labels.map(({ text, symbol }) => [text.length, symbol]).sort()).toEqual([
      [30, 'gs1-128'],
      [31, 'gs1datamatrix'],
    ]);
  });

  it('says when it was printed, and of what was cancelled that it never was', async () => {
    const item = await shop.item('ENDED');
    const ended = async (as: 'printed' | 'cancelled') => {
      const { id } = await ask({ itemId: item.id });
      return server.did('labelJob', api.endLabelJob, { params: { id }, body: { as } });
    };
    expect(await ended('printed')).toMatchObject({
      state: 'printed',
      printedAt: expect.stringContaining('2026-11-23'),
    });
    expect(await ended('cancelled')).toMatchObject({ state: 'cancelled', printedAt: null });
  });

  it.each([
    ['Mill Lane 2\nLeeds', ['Mill Lane 2', 'Leeds']],
    ['Mill Lane 2\n\nYard\nLeeds', ['Mill Lane 2', 'Yard', 'Leeds']],
    ['Mill Lane 2\nYard\nGate 4\n \nLeeds', ['Mill Lane 2', 'Yard', 'Gate 4, Leeds']],
  ])('has room for three lines of an address: %j', async (address, lines) => {
    made += 1;
    const customerId = await shop.customer(`TO${made}`, { delivery: address });
    const item = await shop.item(`GOES${made}`);
    await shop.receive(item, '1', '1');
    const order = await shop.sell(customerId, [{ itemId: item.id, quantity: '1', price: '3' }]);
    const body = { version: order.version, lines: [{ lineId: order.lines[0]?.id ?? 0, quantity: '1' }] };
    const { id: shipmentId } = await server.call(api.shipOrder, { params: { id: order.id }, body });
    expect((await ask({ shipmentId })).labels).toMatchObject([{ title: `TO${made} & Co`, lines }]);
  });
});

describe('GS1 symbols', () => {
  beforeAll(() => {
    // From the package itself: left alone it would ask the network for it.
    const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm');
    const wasmBinary = new Uint8Array(readFileSync(wasm)).buffer;
    return prepareZXingModule({ overrides: { wasmBinary }, fireImmediately: true });
  });

  it.each([
    ['gs1-128', 'Code128'],
    ['gs1datamatrix', 'DataMatrix'],
  ] as const)('written as %s are read back by a reader that is not ours', async (bcid, format) => {
    const piece = { gtin: `0${gtin}`, lot: 'AB-7', expires: '2027-11-30', serial: 'S/9' };
    const text = `(01)0${gtin}(17)271130(10)AB-7(21)S/9`;
    const png = await toBuffer({
      bcid,
      text,
      scale: 4,
      padding: 12,
      backgroundcolor: 'ffffff',
      ...(bcid === 'gs1-128' ? { height: 12 } : {}),
    });
    const [read] = await readBarcodes(new Blob([new Uint8Array(png)]), { formats: [format], textMode: 'Plain' });
    expect(read?.isValid).toBe(true);
    expect(read?.text).toBe(scanOf(piece));
    expect(readGs1(read?.text ?? '', '2026-11-24')).toEqual(piece);
  });

  it('are put out as a page a label', async () => {
    const label = { title: 'A', code: 'A', lines: ['A'], symbol: 'code128' as const, text: 'A' };
    expect((await printLabels([label, label], 'two')).toString('latin1').match(/\/Type \/Page\b(?!s)/g)).toHaveLength(
      2,
    );
  });
});
