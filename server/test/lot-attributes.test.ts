import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let honey: Item;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  honey = await shop.item('HONEY', { tracking: 'lot', lotOrder: 'free', lotFields: ['colour', 'moisture'] });
});
afterAll(() => server.close());

const receive = (lot: string, attributes: Record<string, string>, bestBefore?: string) => {
  const line = { itemId: honey.id, binId: shop.bin(0), quantity: '5', unitCost: '4', lot, attributes, bestBefore };
  return { body: { kind: 'receipt' as const, lines: [line] } };
};
const lots = async (q?: string) => (await server.call(api.lots, { query: q ? { q } : {} })).rows;

describe('what is written down of a lot', () => {
  it('is typed on receipt, seen where it is chosen, searched, printed and corrected', async () => {
    await server.call(api.receive, receive('L1', { moisture: ' 17.5 % ', colour: 'amber' }));
    await server.call(api.receive, receive('L2', { colour: 'dark' }));
    expect((await lots('amber')).map(({ code, attributes }) => [code, attributes])).toEqual([
      ['L1', { colour: 'amber', moisture: '17.5 %' }],
    ]);
    const [bin] = await server.call(api.itemBins, { params: { id: honey.id } });
    expect(bin?.pieces.map(({ lot, says }) => [lot, says])).toEqual([
      ['L1', 'colour amber, moisture 17.5 %'],
      ['L2', 'colour dark'],
    ]);
    // More of the same lot leaves what is known, unless something else is written.
    await server.call(api.receive, receive('L1', { colour: '', moisture: '18 %' }));
    const [first] = await lots('L1');
    expect(first?.attributes).toEqual({ colour: 'amber', moisture: '18 %' });
    const job = await server.did('labelJob', api.createLabelJob, {
      body: { of: { lotId: first?.id ?? 0, copies: 1 } },
    });
    expect(job.labels[0]?.lines).toContain('colour amber, moisture 18 %');
    // With its day all of it still has room, also where the label says how much came.
    const brought = await server.call(api.receive, receive('L4', { colour: 'pale' }, '2027-05-01'));
    const labels = await server.did('labelJob', api.createLabelJob, { body: { of: { documentId: brought.id } } });
    expect(labels.labels[0]?.lines.slice(1)).toEqual(['Lot L4 · Best before 2027-05-01', 'colour pale']);
    const describe = (attributes: Record<string, string>) => ({ params: { id: first?.id ?? 0 }, body: { attributes } });
    await server.call(api.describeLot, describe({ colour: '' }));
    expect((await lots('L1'))[0]?.attributes).toEqual({ moisture: '18 %' });
    const unknown = { code: 'unknown-choice', field: 'attributes' };
    expect(await server.refused(api.describeLot, describe({ taste: 'sweet' }))).toMatchObject(unknown);
    expect(await server.refused(api.receive, receive('L3', { taste: 'sweet' }))).toMatchObject({
      ...unknown,
      field: 'lines.0.attributes',
    });
    const body = { code: 'X', name: 'X', unitId: 1, source: 'bought' as const, lotFields: ['a', 'A'] };
    const rest = { homeBinId: null, sellPrice: null, reorderPoint: null, standardCost: null, note: '' };
    expect(await server.refused(api.createItem, { body: { ...body, ...rest } })).toMatchObject({ field: 'lotFields' });
  });
});
