import { api, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { standing, TestServer, Workshop } from './harness.ts';

describe('lots', () => {
  const clock = { at: '2026-11-24T09:00:00', now: () => new Date(clock.at) };
  let server: TestServer;
  let shop: Workshop;
  let wax: Item;
  let honey: Item;
  beforeAll(async () => {
    server = await TestServer.start(undefined, clock);
    shop = await Workshop.open(server);
    wax = await shop.item('WAX', { unitId: 2, tracking: 'lot' });
    honey = await shop.item('HONEY', { unitId: 2, tracking: 'lot', lotOrder: 'free' });
    await shop.receive(wax, '5', '10', 0, { lot: 'W-1', bestBefore: '2027-03-01' });
    await shop.receive(wax, '4', '12', 1, { lot: 'W-2', bestBefore: '2026-12-31' });
    await shop.receive(wax, '6', '12', 0, { lot: 'W-3' });
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  const move = (item: Item, quantity: string, from: number, to: number, lot?: string) => ({
    body: {
      lines: [{ itemId: item.id, fromBinId: shop.bin(from), toBinId: shop.bin(to), quantity, ...(lot ? { lot } : {}) }],
    },
  });

  it('come in under a code and a day, and a lot that is known keeps its day', async () => {
    expect(await standing(server, wax)).toEqual(['A1 W-1 5', 'A1 W-3 6', 'A2 W-2 4']);
    const line = { itemId: wax.id, binId: shop.bin(0), quantity: '1', unitCost: '10' };
    const receive = (named: object) => ({ body: { kind: 'receipt' as const, lines: [{ ...line, ...named }] } });
    expect(await server.refused(api.receive, receive({}))).toMatchObject({ code: 'lot-needed', field: 'lines.0.lot' });
    expect(await server.refused(api.receive, receive({ lot: 'w-1', bestBefore: '2027-04-01' }))).toMatchObject({
      code: 'lot-day-differs',
      field: 'lines.0.bestBefore',
    });
    const plain = await shop.item('PLAIN');
    const wrong = { ...line, itemId: plain.id, lot: 'L' };
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [wrong] } })).toMatchObject({
      code: 'not-tracked',
      field: 'lines.0.lot',
    });
    await server.posted(api.receive, receive({ lot: 'W-1' }));
    expect((await shop.stockOf(wax)).onHand).toBe('16');
  });

  it('move as named or the first to expire, and a lot that is not there is refused', async () => {
    const moved = await server.posted(api.transfer, move(wax, '7', 0, 2));
    expect(moved.movements.map((row) => `${row.lot} ${row.quantity}`)).toEqual(['W-1 -6', 'W-1 6', 'W-3 -1', 'W-3 1']);
    await server.posted(api.transfer, move(wax, '2', 0, 2, 'W-3'));
    expect(await server.refused(api.transfer, move(wax, '9', 1, 2, 'W-2'))).toMatchObject({
      code: 'stock-short',
      facts: { lines: [expect.objectContaining({ lot: 'W-2', wanted: '9', there: '4' })] },
    });
    expect(await server.refused(api.transfer, move(wax, '1', 0, 2, 'W-9'))).toMatchObject({
      code: 'lot-unknown',
      field: 'lines.0.lot',
    });
    await server.posted(api.undoDocument, { params: { id: moved.id }, body: {} });
    expect(await standing(server, wax)).toEqual(['A1 W-1 6', 'A1 W-3 4', 'A2 W-2 4', 'B1 W-3 2']);
  });

  it('are used the first to expire first where prescribed, and freely where not; an owner may allow otherwise', async () => {
    const candle = await shop.item('CANDLE', { source: 'made' });
    await shop.define(candle, [
      [wax, '1'],
      [honey, '1'],
    ]);
    await shop.receive(honey, '5', '8', 0, { lot: 'H-1', bestBefore: '2027-01-01' });
    await shop.receive(honey, '5', '8', 0, { lot: 'H-2', bestBefore: '2028-01-01' });
    const build = await shop.start(candle, '3');
    const [waxLine, honeyLine] = build.lines;
    const pick = (lineId: number | undefined, bin: number, quantity: string, lot: string | null) => ({
      params: { id: build.id },
      body: { lines: [{ lineId: lineId ?? 0, binId: shop.bin(bin), quantity, lot }] },
    });
    const passedOver = { code: 'lot-order', field: 'lines.0.lot', detail: expect.stringContaining('W-2 in A2') };
    expect(await server.refused(api.pick, pick(waxLine?.id, 0, '1', 'W-1'))).toMatchObject(passedOver);
    expect(await server.refused(api.pick, pick(waxLine?.id, 0, '1', null))).toMatchObject(passedOver);
    await server.call(api.pick, pick(waxLine?.id, 1, '1', 'W-2'));
    const allowed = pick(waxLine?.id, 0, '1', 'W-1');
    await server.call(api.pick, {
      ...allowed,
      body: { ...allowed.body, override: { reason: 'For the dark candles' } },
    });
    await server.call(api.pick, pick(honeyLine?.id, 0, '1', 'H-2'));
    const before = await server.call(api.build, { params: { id: build.id } });
    expect(before.lines[0]?.pieces.map((piece) => `${piece.lot} ${piece.quantity}`)).toEqual(['W-2 1', 'W-1 1']);
    const done = await server.withBuild(api.finish, {
      params: { id: build.id },
      body: { version: before.version, good: '1', outputBinId: shop.bin(2), lines: [], close: true },
    });
    const used = await server.call(api.document, { params: { id: done.id } });
    // What is not used goes back under its own lot.
    expect(used.movements.map((row) => `${row.build ?? row.bin} ${row.lot} ${row.quantity}`)).toEqual([
      'B-0001 W-2 -1',
      'B-0001 H-2 -1',
      'MAIN · B1 null 1',
      'B-0001 W-1 -1',
      'MAIN · A1 W-1 1',
    ]);
    expect((await standing(server, wax))[0]).toBe('A1 W-1 6');
  });

  it('that are held stay where they are and are not free', async () => {
    const [row] = (await server.call(api.lots, { query: { q: 'W-1' } })).rows;
    const lot = row?.id ?? 0;
    const inspection = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'hold');
    const before = await shop.stockOf(wax);
    await server.call(api.hold, { body: { reasonId: inspection?.id ?? 0, remark: 'smells odd', lotIds: [lot] } });
    expect(await shop.stockOf(wax)).toMatchObject({
      onHand: before.onHand,
      held: '6',
      free: String(Number(before.free) - 6),
    });
    expect(await standing(server, wax)).toContain('A1 W-1 6 held');
    expect((await server.call(api.lots, { query: { held: 'true' } })).rows.map(({ code }) => code)).toEqual(['W-1']);
    expect(await server.refused(api.hold, { body: { reasonId: 1, lotIds: [lot] } })).toMatchObject({
      field: 'reasonId',
    });
    expect(await server.refused(api.hold, { body: { reasonId: inspection?.id ?? 0 } })).toMatchObject({
      code: 'not-found',
    });
    await server.posted(api.transfer, move(wax, '1', 0, 2, 'W-1'));
    await server.call(api.release, { body: { lotIds: [lot] } });
    expect(await shop.stockOf(wax)).toMatchObject({ held: '0', free: before.free });
  });

  it('are held by themselves once their day has passed, and once only', async () => {
    const until = async (day: string) => (await server.call(api.lots, { query: { until: day } })).rows;
    expect((await until('2026-12-31')).map(({ code, held }) => [code, held])).toEqual([['W-2', null]]);
    clock.at = '2026-12-31T23:59:00';
    expect((await until('2026-12-31'))[0]?.held).toBeNull();
    clock.at = '2027-01-01T00:00:00';
    const [passed] = await until('2026-12-31');
    expect(passed?.held).toBe('past its best-before day');
    expect((await shop.stockOf(wax)).held).toBe('3');
    await server.call(api.release, { body: { lotIds: [passed?.id ?? 0] } });
    clock.at = '2027-01-03T08:00:00';
    expect((await shop.stockOf(wax)).held).toBe('0');
    await shop.receive(wax, '1', '10', 0, { lot: 'W-0', bestBefore: '2027-01-02' });
    expect(await shop.stockOf(wax)).toMatchObject({ held: '1' });
    clock.at = '2026-11-24T09:00:00';
  });

  it('are counted one by one, also one that the books do not have', async () => {
    const count = await server.did('count', api.beginCount, { body: { binIds: [shop.bin(0)], q: 'WAX' } });
    expect(count.sheet.map((line) => line.lot)).toEqual(['W-0', 'W-1', 'W-3']);
    const [, w1] = count.sheet;
    await server.call(api.countLine, { params: { id: w1?.id ?? 0 }, body: { counted: '4.5' } });
    const place = { itemId: wax.id, binId: shop.bin(0), lot: 'W-7', bestBefore: '2027-07-01' };
    const added = await server.did('count', api.addCountLine, { params: { id: count.id }, body: place });
    const found = added.sheet.find((line) => line.lot === 'W-7');
    const done = await server.did('count', api.countLine, {
      params: { id: found?.id ?? 0 },
      body: { counted: '0.25' },
    });
    await server.call(api.approveCount, { params: { id: count.id }, body: { version: done.version } });
    expect(await standing(server, wax)).toEqual(
      expect.arrayContaining(['A1 W-1 4.5', 'A1 W-3 4', 'A1 W-7 0.25', 'A2 W-2 3']),
    );
  });

  it('wait in a quarantine bin without being free', async () => {
    const { id } = await server.call(api.createBin, {
      params: { id: shop.store.id },
      body: { code: 'Q1', pickingOrder: 90, kind: 'quarantine' },
    });
    const before = await shop.stockOf(wax);
    const line = { itemId: wax.id, fromBinId: shop.bin(0), toBinId: id, quantity: '1', lot: 'W-3' };
    await server.posted(api.transfer, { body: { lines: [line] } });
    const after = await shop.stockOf(wax);
    expect([after.onHand, Number(after.free)]).toEqual([before.onHand, Number(before.free) - 1]);
    expect(await standing(server, wax)).toContain('Q1 W-3 1 held');
    const row = (await server.call(api.snapshot, { query: {} })).items.find(([itemId]) => itemId === wax.id);
    const usable = row?.[3].reduce((sum, [, there]) => sum + Number(there), 0);
    expect(usable).toBe(Number(after.onHand) - Number(after.held));
  });
});
