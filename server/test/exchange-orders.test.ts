import { api, EXPORTS_PATH, type FileKindName, IMPORTS_PATH, type ImportJob } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

vi.setConfig({ testTimeout: 180_000 });

let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  const jar = await shop.item('JAR', { sellPrice: '3' });
  await shop.item('LID', { sellPrice: '1' });
  await shop.receive(jar, '9', '1');
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

async function bring(kind: FileKindName, content: string | Uint8Array): Promise<ImportJob> {
  const response = await server.fetch(`${IMPORTS_PATH}?kind=${kind}&name=file.csv`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: typeof content === 'string' ? content : new Uint8Array(content),
  });
  let job = (await response.json()) as ImportJob;
  const params = { id: job.id };
  while (job.state === 'reading') job = await server.call(api.importJob, { params, query: { seen: job.step } });
  return job;
}
const apply = (job: ImportJob) => server.call(api.applyImport, { params: { id: job.id }, body: {} });
const download = async (kind: FileKindName, format: string) =>
  Buffer.from(await (await server.fetch(`${EXPORTS_PATH}?kind=${kind}&format=${format}`)).arrayBuffer());

describe('customers and their orders as files', () => {
  it('come in, in this order, and are what was typed', async () => {
    const customers = 'Code;Name;Discount %;Address;Field: Hives\nLARK;Larkfield;10;"Lane 1\nTown";9\nOLD;Old;;;\n';
    expect(await apply(await bring('customers', customers))).toMatchObject({ new: 2 });
    const { rows } = await server.call(api.customers, { query: { q: 'lark' } });
    const id = rows[0]?.id ?? 0;
    expect(await server.call(api.customer, { params: { id } })).toMatchObject({
      discount: '10',
      billing: 'Lane 1\nTown',
      fields: [{ name: 'Hives', value: '9' }],
    });
    const changed = 'Code,Name,Archived,Discount %\nLARK,Larkfield Ltd,no,5\nOLD,Old,yes,0\n';
    expect(await apply(await bring('customers', changed))).toMatchObject({ new: 0, changed: 2 });
    expect(await server.call(api.customer, { params: { id } })).toMatchObject({ name: 'Larkfield Ltd', discount: '5' });
    const orders =
      'Order,Customer,Wanted on,Item,Quantity,Price,State\nA-1,LARK,2026-12-24,JAR,4,,\n,,,LID,2,0.5,\nA-2,larkfield ltd,,JAR,1,,quote\n';
    expect(await apply(await bring('orders', orders))).toMatchObject({ new: 2 });
    const open = await server.call(api.orders, { query: {} });
    expect(open.rows).toMatchObject([{ reference: 'A-1', wantedOn: '2026-12-24', worth: '12.4' }]);
    expect((await server.call(api.orders, { query: { show: 'quotes' } })).rows).toMatchObject([{ reference: 'A-2' }]);
    expect(
      (await shop.stockOf((await server.call(api.items, { query: { q: 'JAR' } })).rows[0] as never)).promised,
    ).toBe('4');
  });

  it.each(['csv', 'xlsx'])('go out as %s and come in again without a change', async (format) => {
    for (const kind of ['customers', 'orders'] as const) {
      const job = await bring(kind, await download(kind, format));
      expect(job.counts).toMatchObject({ new: 0, changed: 0, refused: 0 });
      expect(job.counts.same).toBeGreaterThan(1);
    }
  });

  it('are refused row by row, and then nothing of them comes in', async () => {
    const job = await bring('orders', 'Order,Customer,Item,Quantity\nB-1,LARK,JAR,1\nB-2,OLD,JAR,1\nB-3,LARK,NONE,1\n');
    expect(job.counts).toMatchObject({ new: 1, refused: 2 });
    await expect(apply(job)).rejects.toThrow();
    expect((await server.call(api.orders, { query: { q: 'B-1' } })).rows).toEqual([]);
  });
});
