import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('moving and adjusting', () => {
  let server: TestServer;
  let shop: Workshop;
  let pin: Item;
  let wax: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    pin = await shop.item('PIN');
    wax = await shop.item('WAX', { unitId: 2 });
    await shop.receive(pin, '10', '2');
    await shop.receive(pin, '10', '3');
    await shop.receive(wax, '4', '9.8', 1);
  });
  afterAll(() => server.close());
  const binsOf = async (item: Item) =>
    (await server.call(api.itemBins, { params: { id: item.id } })).map(({ bin, quantity }) => `${bin} ${quantity}`);
  const line = (item: Item, from: number, to: number, quantity: string) => ({
    itemId: item.id,
    fromBinId: shop.bin(from),
    toBinId: shop.bin(to),
    quantity,
  });

  it('several lines move in one document, and nothing changes its worth', async () => {
    const lines = [line(pin, 0, 2, '6'), line(wax, 1, 2, '1.25'), line(pin, 2, 1, '2')];
    const moved = await server.posted(api.transfer, { body: { lines, remark: 'to the bench side' } });
    expect(moved).toMatchObject({ number: 'TR-0001', kind: 'transfer', values: [], remark: 'to the bench side' });
    expect(await binsOf(pin)).toEqual(['A1 14', 'A2 2', 'B1 4']);
    expect(await shop.stockOf(pin)).toMatchObject({ onHand: '20', value: '50', averageCost: '2.5' });
    const undone = await server.posted(api.undoDocument, { params: { id: moved.id }, body: {} });
    expect(undone.reverses).toEqual({ id: moved.id, number: 'TR-0001' });
    expect(await binsOf(pin)).toEqual(['A1 20']);
  });

  it('refuse what cannot be, at its line, and move nothing of it', async () => {
    const refusals = [
      [[line(pin, 0, 0, '1')], { code: 'same-bin', field: 'lines.0.toBinId' }],
      [[line(pin, 0, 1, '1'), line(pin, 0, 1, '0.5')], { code: 'too-many-decimals', field: 'lines.1.quantity' }],
      [
        [line(pin, 0, 1, '3'), line(wax, 0, 1, '1')],
        { code: 'stock-short', facts: { lines: [{ code: 'WAX', bin: 'A1', wanted: '1', there: '0' }] } },
      ],
      [[{ ...line(pin, 0, 1, '1'), toBinId: 999 }], { code: 'unknown-bin', field: 'lines.0.toBinId' }],
    ] as const;
    for (const [lines, problem] of refusals)
      expect(await server.refused(api.transfer, { body: { lines: [...lines] } })).toMatchObject(problem);
    expect(await binsOf(pin)).toEqual(['A1 20']);
  });

  it('adjust to what is there: gone at the average, found at it or at what it is worth, with a reason', async () => {
    const reason = await server.call(api.createReason, { body: { name: 'Mice' } });
    expect(await server.refused(api.createReason, { body: { name: 'mice' } })).toMatchObject({ code: 'code-taken' });
    const change = (item: Item, bin: number, amount: string, unitCost: string | null = null) => ({
      itemId: item.id,
      binId: shop.bin(bin),
      change: amount,
      unitCost,
    });
    const gone = await server.posted(api.adjust, {
      body: { reasonId: reason.id, lines: [change(pin, 0, '-4'), change(wax, 1, '0.2', '5')] },
    });
    expect(gone).toMatchObject({
      number: 'AD-0001',
      reason: 'Mice',
      values: [
        { kind: 'adjusted', amount: '-10', item: 'The PIN' },
        { kind: 'adjusted', amount: '1', item: 'The WAX' },
      ],
    });
    expect(await shop.stockOf(pin)).toMatchObject({ onHand: '16', averageCost: '2.5' });
    expect(await shop.stockOf(wax)).toMatchObject({ onHand: '4.2', value: '40.2' });
    const never = await shop.item('NEVER');
    const adjust = (lines: ReturnType<typeof change>[]) => ({ body: { reasonId: 1, lines } });
    expect(await server.refused(api.adjust, adjust([change(never, 0, '1')]))).toMatchObject({
      code: 'cost-unknown',
      field: 'lines.0.unitCost',
      detail: expect.stringContaining('The NEVER'),
    });
    expect(await server.refused(api.adjust, adjust([change(pin, 0, '0')]))).toMatchObject({
      code: 'no-change',
      field: 'lines.0.change',
    });
    const beyond = adjust([change(pin, 0, '-17')]);
    expect(await server.refused(api.adjust, beyond)).toMatchObject({ code: 'stock-short' });
    await server.signIn(2);
    const forced = { body: { ...beyond.body, override: { reason: 'count is coming' } } };
    expect(await server.refused(api.adjust, forced)).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
    await server.posted(api.adjust, forced);
    expect(await shop.stockOf(pin)).toMatchObject({ onHand: '-1' });
    expect((await server.call(api.today, {})).putRight).toHaveLength(1);
    expect(await server.refused(api.adjust, { body: { ...beyond.body, reasonId: 99 } })).toMatchObject({
      field: 'reasonId',
    });
    await server.posted(api.adjust, adjust([change(pin, 0, '3')]));
    expect((await server.call(api.today, {})).putRight).toEqual([]);
    expect(await server.verify()).toEqual([]);
  });
});

describe('looking back', () => {
  const clock = { at: '2026-11-02T08:00:00', now: () => new Date(clock.at) };
  let server: TestServer;
  let shop: Workshop;
  let pin: Item;
  let wax: Item;
  beforeAll(async () => {
    server = await TestServer.start(undefined, clock);
    shop = await Workshop.open(server);
    pin = await shop.item('PIN');
    wax = await shop.item('WAX', { unitId: 2 });
    await shop.receive(pin, '10', '2');
    clock.at = '2026-11-05T23:59:59';
    await shop.receive(wax, '2.5', '8', 1);
    clock.at = '2026-11-06T00:00:00';
    await server.signIn(2);
    const line = { itemId: pin.id, fromBinId: shop.bin(0), toBinId: shop.bin(2), quantity: '4' };
    await server.posted(api.transfer, { body: { remark: 'for the fair', lines: [line] } });
    await server.signIn(1);
    clock.at = '2026-11-09T12:00:00';
    const gone = { itemId: pin.id, binId: shop.bin(2), change: '-3' };
    await server.posted(api.adjust, { body: { reasonId: 1, lines: [gone] } });
  });
  afterAll(() => server.close());

  it('stock is as it was at the end of any day, with what it was worth', async () => {
    const on = async (day: string) => {
      const { rows, value } = await server.call(api.stockOn, { query: { day } });
      return [value, ...rows.map((row) => `${row.code} ${row.quantity} ${row.value}`)];
    };
    expect(await on('2026-11-01')).toEqual(['0']);
    expect(await on('2026-11-04')).toEqual(['20', 'PIN 10 20']);
    expect(await on('2026-11-05')).toEqual(['40', 'PIN 10 20', 'WAX 2.5 20']);
    expect(await on('2026-11-30')).toEqual(['34', 'PIN 7 14', 'WAX 2.5 20']);
    // A day on which goods only moved between bins changes nothing and needs no point.
    expect(await server.call(api.stockValue, {})).toEqual([
      { day: '2026-11-02', value: '20' },
      { day: '2026-11-05', value: '40' },
      { day: '2026-11-09', value: '34' },
    ]);
    expect(await server.call(api.stockValue, { query: { itemId: wax.id } })).toEqual([
      { day: '2026-11-05', value: '20' },
    ]);
    expect(await server.refused(api.stockOn, { query: { day: 'soon' } })).toMatchObject({
      code: 'invalid',
      field: 'day',
    });
  });

  it('movements are found by text, bin, person, kind and days, both ends included', async () => {
    const find = async (query: object) =>
      (await server.call(api.movements, { query })).rows.map(({ code, quantity }) => `${code} ${quantity}`);
    expect(await find({ q: 'fair' })).toEqual(['PIN 4', 'PIN -4']);
    expect(await find({ q: 'wax' })).toEqual(['WAX 2.5']);
    expect(await find({ q: 'AD-00' })).toEqual(['PIN -3']);
    expect(await find({ binId: shop.bin(2) })).toEqual(['PIN -3', 'PIN 4']);
    expect(await find({ personId: 2 })).toEqual(['PIN 4', 'PIN -4']);
    expect(await find({ from: '2026-11-05', to: '2026-11-05' })).toEqual(['WAX 2.5']);
    expect(await find({ from: '2026-11-06', kind: 'transfer' })).toEqual(['PIN 4', 'PIN -4']);
    expect(await find({ q: '100%' })).toEqual([]);
  });
});
