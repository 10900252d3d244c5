import { api } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let now = new Date('2026-03-01T09:00:00');
let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start(undefined, { now: () => now });
  shop = await Workshop.open(server);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

describe('where stock stands', () => {
  it('says at every place what is promised, held and free', async () => {
    const wood = await shop.item('WOOD');
    const wax = await shop.item('WAX', { tracking: 'lot', unitId: 2 });
    const scale = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
    await shop.receive(wood, '6', '1', 0);
    await shop.receive(wood, '9', '1', 1);
    await shop.receive(wax, '4', '8', 0, { lot: 'B', bestBefore: '2028-01-31' });
    await shop.receive(wax, '3', '8', 0, { lot: 'A', bestBefore: '2027-01-31' });
    await shop.receive(scale, '3', '30', 1, { serials: ['S-1', 'S-2', 'S-3'] });
    const { rows: lots } = await server.call(api.lots, { query: { itemId: wax.id } });
    await server.call(api.hold, { body: { reasonId: 5, lotIds: [lots[0]?.id ?? 0] } });
    const box = await shop.item('BOX', { source: 'made' });
    await shop.define(box, [
      [wood, '2'],
      [wax, '0.5'],
    ]);
    await shop.plan(box, '4');
    const { rows } = await server.call(api.stockPlaces, { query: {} });
    const of = (code: string) =>
      rows
        .find(({ item }) => item.code === code)
        ?.places.map(({ bin, lot, serials, held, quantity, promised, free }) => [
          bin,
          lot ?? serials,
          held !== null,
          quantity,
          promised,
          free,
        ]);
    expect(of('WOOD')).toEqual([
      ['A1', '', false, '6', '6', '0'],
      ['A2', '', false, '9', '2', '7'],
    ]);
    expect(of('WAX')).toEqual([
      ['A1', 'A', true, '3', '0', '0'],
      ['A1', 'B', false, '4', '2', '2'],
    ]);
    expect(of('SCALE')).toEqual([['A2', 'S-1..3', false, '3', '0', '3']]);
    expect(rows.find(({ item }) => item.code === 'WAX')?.item).toMatchObject({
      onHand: '7',
      held: '3',
      promised: '2',
      free: '2',
    });
    // A filter shows less, but changes nothing of what is promised where.
    const inA2 = await server.call(api.stockPlaces, { query: { binId: shop.bin(1) } });
    expect(inA2.rows.map(({ item, places }) => [item.code, places.map((place) => place.promised)])).toEqual([
      ['SCALE', ['0']],
      ['WOOD', ['2']],
    ]);
    const held = await server.call(api.stockPlaces, { query: { held: 'true' } });
    expect(held.rows.map(({ item, places }) => [item.code, places.length])).toEqual([['WAX', 1]]);
    const found = await server.call(api.stockPlaces, { query: { q: 'S-2' } });
    expect(found.rows.map(({ item }) => item.code)).toEqual(['SCALE']);
    const first = await server.call(api.stockPlaces, { query: { limit: 2 } });
    const second = await server.call(api.stockPlaces, { query: { limit: 2, cursor: first.next ?? '' } });
    expect([...first.rows, ...second.rows].map(({ item }) => item.code)).toEqual(['SCALE', 'WAX', 'WOOD']);
  });
});

describe('stock on a past day', () => {
  it('is the same whichever way it is added up: until then, or back from now', async () => {
    const item = await shop.item('PAST');
    const start = now;
    const worth = [0];
    for (let day = 1; day <= 12; day += 1) {
      now = new Date(start.getTime() + day * 86_400_000);
      await shop.receive(item, '2', String(day));
      worth.push((worth.at(-1) ?? 0) + 2 * day);
    }
    for (let day = 0; day <= 12; day += 1) {
      const asked = dayOf(new Date(start.getTime() + day * 86_400_000));
      const then = await server.call(api.stockOn, { query: { day: asked, q: 'PAST' } });
      const expected = day === 0 ? [] : [{ quantity: String(2 * day), value: String(worth[day]) }];
      expect(then.rows).toMatchObject(expected);
      const total = await server.database.reader.one<{ value: number }>(
        `SELECT sum(m.value) AS value FROM movement m JOIN document d ON d.id = m.document_id WHERE date(d.at) <= '${asked}'`,
      );
      expect(Number(then.value)).toBe((total?.value ?? 0) / 1e6);
    }
    const line = await server.call(api.stockValue, { query: { itemId: item.id } });
    expect(line.map((point) => Number(point.value))).toEqual(worth.slice(1));
  });
});

describe('a count', () => {
  it('can be of a group of items, or of what one supplier sells', async () => {
    const supplier = await server.call(api.createSupplier, { body: { code: 'CNT', name: 'Counted & Co' } });
    const sold = await shop.item('SOLD', { suppliers: [{ supplierId: supplier.id, code: '', price: '1' }] });
    await shop.receive(sold, '5', '1', 2);
    const made = await shop.item('MADE', { source: 'made' });
    await shop.receive(made, '5', '1', 2);
    const begin = async (more: object) => {
      const body = { binIds: [...shop.bins], ...more };
      const begun = await server.did('count', api.beginCount, { body });
      await server.call(api.cancelCount, { params: { id: begun.id }, body: { version: begun.version } });
      return [begun.scope, begun.sheet.map((line) => line.code)];
    };
    expect(await begin({ supplierId: supplier.id })).toEqual(['Main store · what Counted & Co sells', ['SOLD']]);
    expect(await begin({ group: 'made' })).toEqual(['Main store · made items', ['MADE']]);
    expect((await begin({ group: 'lot' }))[1]).toEqual(['WAX', 'WAX']);
    expect((await begin({ group: 'serial' }))[1]).toEqual(['SCALE']);
  });
});

it('the company’s papers say what the owner entered', async () => {
  const { company } = await server.call(api.session, {});
  const body = { name: 'Papers Ltd', address: 'Lane 1\nTown', email: 'a@papers.example', version: company.version };
  expect(await server.call(api.updateCompany, { body })).toMatchObject({
    name: 'Papers Ltd',
    version: company.version + 1,
  });
  expect(await server.refused(api.updateCompany, { body })).toMatchObject({
    code: 'stale-save',
    facts: { current: { address: 'Lane 1\nTown' } },
  });
  expect(await server.refused(api.updateCompany, { body: { ...body, email: 'nobody' } })).toMatchObject({
    field: 'email',
  });
});
