import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { unanswered } from './every-get.ts';
import { partLine, TestServer, Workshop } from './harness.ts';

/** The most that is taken of anything in one field. */
const MOST = '999999999';

/** Each alone is taken; together, or times one another, they are more than can be kept. Only their own rows may say so. */
describe('the largest values there are', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let box: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART', { sellPrice: MOST, standardCost: MOST });
    box = await shop.item('BOX', { source: 'made', sellPrice: MOST });
    await shop.define(box, [[part, MOST]]);
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  it('leave every list, Today and every record to be read', async () => {
    await shop.receive(part, '1', MOST);
    await shop.plan(box, '1', '2026-12-01');
    await shop.plan(box, '1');
    const draft = await shop.item('DRAFT', { source: 'made', sellPrice: '1' });
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: draft.id } });
    const lines = [
      partLine(part, MOST, { waste: '999' }),
      { kind: 'labour' as const, text: 'Long', basis: 'per-output' as const, minutes: MOST, rateId: 1 },
      { kind: 'charge' as const, text: 'Dear', basis: 'per-run' as const, amount: MOST },
    ];
    const body = { version: 0, outputQuantity: '1', lines };
    await server.call(api.saveRevision, { params: { id: revisions[0]?.id ?? 0 }, body });
    const supplier = await server.call(api.createSupplier, { body: { code: 'S', name: 'Supplier' } });
    const order = { supplierId: supplier.id, lines: [{ itemId: part.id, quantity: MOST, price: '9' }] };
    await server.call(api.createPurchases, { body: { orders: [order], send: 'print' } });
    expect(await unanswered(server)).toEqual([]);
    const today = await server.call(api.today, {});
    expect(today.holdUps.map(({ code, builds }) => [code, builds])).toEqual([['PART', 2]]);
    const faults = await server.call(api.definitionFaults, {});
    expect(faults.find(({ code }) => code === 'DRAFT')?.faults.map(({ fault }) => fault)).toContain('beyond-reckoning');
    const { rows } = await server.call(api.definitions, { query: {} });
    expect(rows.map(({ code }) => code).sort()).toEqual(['BOX', 'DRAFT']);
  });

  it('are refused with the limit that holds, in its own words, where they could not be kept', async () => {
    const bins = { itemId: part.id, binId: shop.bin(0) };
    const receive = (quantity: string, unitCost: string) => ({
      body: { kind: 'receipt' as const, lines: [{ ...bins, quantity, unitCost }] },
    });
    const before = await shop.stockOf(part);
    const refused = await server.refused(api.receive, receive(MOST, MOST));
    expect(refused).toMatchObject({ status: 422, code: 'too-large' });
    const { largest } = refused.facts as { largest: string };
    expect(refused.detail).toContain(largest);
    expect(await server.refused(api.receive, receive('1000000000', '1'))).toMatchObject({ code: 'too-large' });
    expect(
      await server.refused(api.planBuilds, { body: { builds: [{ itemId: box.id, quantity: MOST, due: null }] } }),
    ).toMatchObject({
      status: 422,
    });
    expect(await shop.stockOf(part)).toEqual(before);
  });
});
