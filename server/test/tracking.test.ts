import { api, type BuildDetail, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/** What stands where, as a person would read it from the shelves. */
const standing = async (server: TestServer, item: Item) =>
  (await server.call(api.itemBins, { params: { id: item.id } })).flatMap(({ bin, build, pieces }) =>
    pieces.map((piece) => `${build ?? bin} ${piece.lot ?? piece.serial} ${piece.quantity}${piece.held ? ' held' : ''}`),
  );

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
    await server.signIn(2);
    expect(await server.refused(api.release, { body: { lotIds: [lot] } })).toMatchObject({ code: 'owner-only' });
    await server.signIn(1);
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
      body: { code: 'Q1', walkOrder: 90, kind: 'quarantine' },
    });
    const before = await shop.stockOf(wax);
    const line = { itemId: wax.id, fromBinId: shop.bin(0), toBinId: id, quantity: '1', lot: 'W-3' };
    await server.posted(api.transfer, { body: { lines: [line] } });
    const after = await shop.stockOf(wax);
    expect([after.onHand, Number(after.free)]).toEqual([before.onHand, Number(before.free) - 1]);
    expect(await standing(server, wax)).toContain('Q1 W-3 1 held');
    const bins = (await server.call(api.snapshot, {})).items.find(({ id: itemId }) => itemId === wax.id);
    expect(Number(bins?.onHand)).toBe(Number(after.onHand) - Number(after.held));
  });
});

describe('serials', () => {
  let server: TestServer;
  let shop: Workshop;
  let sensor: Item;
  let scale: Item;
  let build: BuildDetail;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    sensor = await shop.item('SENSOR', { tracking: 'serial', serialPattern: 'SE-###' });
    scale = await shop.item('SCALE', { source: 'made', tracking: 'serial', serialPattern: 'SC-####', bin: 2 });
    await shop.define(scale, [[sensor, '2']], '5');
    await shop.receive(sensor, '3', '10', 0, { serials: ['SE-001', 'SE-002', 'SE-003'] });
    await shop.receive(sensor, '2', '14', 0, { serials: ['SE-010', 'SE-011'] });
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());
  const check = (item: Item, codes: string[], count: number) =>
    server.call(api.checkSerials, { params: { id: item.id }, body: { codes, count } });

  it('clash with what has them, and the next free block is known', async () => {
    expect(await check(sensor, ['se-002', 'SE-004'], 3)).toEqual({
      clashes: [{ code: 'SE-002', says: 'is in stock: Main store, A1' }],
      nextFree: 'SE-004..006',
    });
    expect((await check(sensor, [], 7)).nextFree).toBe('SE-012..018');
    const again = {
      itemId: sensor.id,
      binId: shop.bin(1),
      quantity: '2',
      unitCost: '1',
      serials: ['SE-002', 'SE-004'],
    };
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [again] } })).toMatchObject({
      code: 'serial-clash',
      field: 'lines.0.serials',
      detail: 'SE-002 is in stock: Main store, A1. Free are SE-004. A serial number belongs to one thing for ever.',
    });
    const few = { ...again, serials: ['SE-004'] };
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: [few] } })).toMatchObject({
      code: 'serials-needed',
      field: 'lines.0.serials',
    });
    const twice = [
      { ...again, quantity: '1', serials: ['SE-020'] },
      { ...again, quantity: '1', serials: ['SE-020'] },
    ];
    expect(await server.refused(api.receive, { body: { kind: 'receipt', lines: twice } })).toMatchObject({
      code: 'serial-in-stock',
    });
    // A receipt that was undone never really had them.
    const fresh = { ...again, quantity: '1', serials: ['SE-020'] };
    const slip = await server.posted(api.receive, { body: { kind: 'receipt', lines: [fresh] } });
    await server.posted(api.undoDocument, { params: { id: slip.id }, body: {} });
    expect((await check(sensor, ['SE-020'], 1)).clashes).toEqual([]);
    await server.posted(api.receive, { body: { kind: 'receipt', lines: [fresh] } });
  });

  it('move one by one and keep their own cost', async () => {
    const move = (serials: string[], from: number) => ({
      body: {
        lines: [
          {
            itemId: sensor.id,
            fromBinId: shop.bin(from),
            toBinId: shop.bin(2),
            quantity: String(serials.length),
            serials,
          },
        ],
      },
    });
    const { movements } = await server.posted(api.transfer, move(['SE-003', 'SE-011'], 0));
    expect(movements.map((row) => `${row.serial} ${row.value}`)).toEqual([
      'SE-003 -10',
      'SE-003 10',
      'SE-011 -14',
      'SE-011 14',
    ]);
    expect(await server.refused(api.transfer, move(['SE-003'], 0))).toMatchObject({
      code: 'serial-not-there',
      detail: expect.stringContaining('SE-003 is not in this bin: it is in Main store, B1.'),
    });
    const forced = move(['SE-003'], 0);
    const override = { reason: 'it must be there' };
    expect(
      await server.refused(api.transfer, { body: { ...forced.body, override } }),
      'a serial never goes below zero',
    ).toMatchObject({ code: 'serial-not-there' });
    expect(await server.refused(api.transfer, move(['SE-999'], 0))).toMatchObject({ code: 'serial-unknown' });
  });

  it('go into a product that carries its own, at their own cost', async () => {
    build = await shop.start(scale, '2');
    const line = build.lines[0]?.id ?? 0;
    const pick = (bin: number, serials: string[]) =>
      server.call(api.pick, {
        params: { id: build.id },
        body: { lines: [{ lineId: line, binId: shop.bin(bin), quantity: String(serials.length), serials }] },
      });
    await pick(0, ['SE-001', 'SE-010']);
    await pick(2, ['SE-011']);
    build = await server.call(api.build, { params: { id: build.id } });
    expect(build.lines[0]?.pieces.map(({ serial }) => serial)).toEqual(['SE-001', 'SE-010', 'SE-011']);
    const finish = (more: object) => ({
      params: { id: build.id },
      body: { version: build.version, good: '1', outputBinId: shop.bin(2), lines: [], ...more },
    });
    expect(await server.refused(api.finish, finish({}))).toMatchObject({ code: 'serials-needed', field: 'serials' });
    const done = await server.withBuild(
      api.finish,
      finish({ serials: ['SC-0001'], lines: [{ lineId: line, actual: '2', serials: ['SE-010', 'SE-011'] }] }),
    );
    expect(done.unitCost).toBe('30');
    const { rows } = await server.call(api.serials, { params: { id: sensor.id } });
    expect(rows.map((row) => `${row.code} ${row.inStock} ${row.cost} ${row.where}`)).toEqual([
      'SE-001 true 10 stands on the bench for B-0001',
      'SE-002 true 10 is in stock: Main store, A1',
      'SE-003 true 10 is in stock: Main store, B1',
      'SE-010 false null left with FN-0001',
      'SE-011 false null left with FN-0001',
      'SE-020 true 1 is in stock: Main store, A2',
    ]);
    build = done.build;
    const shelf = { lines: [{ lineId: line, actual: '2', serials: ['SE-003', 'SE-001'] }], serials: ['SC-0002'] };
    const second = await server.withBuild(api.finish, finish(shelf));
    expect(second.unitCost).toBe('22');
    expect((await shop.stockOf(scale)).value).toBe('52');
    expect((await check(scale, ['SC-0002'], 1)).nextFree).toBe('SC-0003');
  });

  it('come back from what is taken apart, as they went in, and leave at its own cost', async () => {
    const plan = await server.call(api.apartPlan, { params: { id: scale.id }, query: { serials: 'SC-0001' } });
    expect(plan.lines[0]?.wentIn.map(({ serial }) => serial)).toEqual(['SE-010', 'SE-011']);
    const body = {
      itemId: scale.id,
      revisionId: plan.revisionId,
      binId: shop.bin(2),
      quantity: '1',
      serials: ['SC-0001'],
      leftover: 'written-off' as const,
      lines: [{ lineId: plan.lines[0]?.lineId ?? 0, good: '1', damaged: '1', binId: shop.bin(0), serials: ['SE-010'] }],
    };
    const apart = await server.posted(api.takeApart, { body });
    expect(apart.movements.map((row) => `${row.serial} ${row.value}`)).toEqual(['SC-0001 -30', 'SE-010 15']);
    await server.posted(api.undoDocument, { params: { id: apart.id }, body: {} });
    expect(await standing(server, scale)).toEqual(['B1 SC-0001 1', 'B1 SC-0002 1']);
  });

  it('are counted by what was seen: gone, found, and found elsewhere', async () => {
    const count = await server.did('count', api.beginCount, { body: { binIds: [shop.bin(2)], q: 'SCALE' } });
    const [line] = count.sheet;
    const seen = { params: { id: line?.id ?? 0 }, body: { counted: '2', serials: ['SC-0002', 'SC-0077'] } };
    const counted = await server.did('count', api.countLine, seen);
    expect(counted.sheet[0]).toMatchObject({ missing: ['SC-0001'], found: ['SC-0077'], difference: '0', value: '-4' });
    const approve = { params: { id: count.id }, body: { version: counted.version } };
    const { documentId } = await server.did('count', api.approveCount, approve);
    expect(await standing(server, scale)).toEqual(['B1 SC-0002 1', 'B1 SC-0077 1']);
    await server.posted(api.undoDocument, { params: { id: documentId ?? 0 }, body: {} });

    // SE-002 is booked in A1 and lies in A2.
    const other = await server.did('count', api.beginCount, { body: { binIds: [shop.bin(1)], q: 'SENSOR' } });
    const found = await server.did('count', api.countLine, {
      params: { id: other.sheet[0]?.id ?? 0 },
      body: { counted: '2', serials: ['SE-020', 'SE-002'] },
    });
    await server.call(api.approveCount, { params: { id: other.id }, body: { version: found.version } });
    expect(await standing(server, sensor)).toEqual(['A2 SE-002 1', 'A2 SE-020 1']);
    expect((await shop.stockOf(sensor)).value).toBe('11');
  });

  it('can be lost and found again', async () => {
    const adjust = (change: string, serials: string[]) =>
      server.posted(api.adjust, {
        body: { reasonId: 1, lines: [{ itemId: scale.id, binId: shop.bin(2), change, serials }] },
      });
    await adjust('-1', ['SC-0001']);
    await adjust('1', ['SC-0001']);
    expect(await standing(server, scale)).toEqual(['B1 SC-0001 1', 'B1 SC-0002 1']);
  });

  it('stay the same through a rework', async () => {
    const { id } = await server.did('definition', api.createDefinition, {
      body: { itemId: scale.id, purpose: 'rework' },
    });
    const draft = (await server.call(api.definition, { params: { id } })).revisions[0];
    const bolt = await shop.item('BOLT');
    await shop.receive(bolt, '10', '1');
    const saved = await server.did('definition', api.saveRevision, {
      params: { id: draft?.id ?? 0 },
      body: { version: draft?.version ?? 0, outputQuantity: '1', lines: [partLine(scale, '1'), partLine(bolt, '3')] },
    });
    const version = saved.revisions[0]?.version ?? 0;
    await server.call(api.putInUse, { params: { id: draft?.id ?? 0 }, body: { version } });
    const { builds } = await server.call(api.planBuilds, {
      body: { builds: [{ itemId: scale.id, purpose: 'rework', quantity: '1', due: null }] },
    });
    const planned = builds[0];
    const rework = await server.did('build', api.startBuild, {
      params: { id: planned?.id ?? 0 },
      body: { version: planned?.version ?? 0 },
    });
    const [itself, bolts] = rework.lines;
    const picked = await server.withBuild(api.pick, {
      params: { id: rework.id },
      body: {
        lines: [
          { lineId: itself?.id ?? 0, binId: shop.bin(2), quantity: '1', serials: ['SC-0002'] },
          { lineId: bolts?.id ?? 0, binId: shop.bin(0), quantity: '3' },
        ],
      },
    });
    const body = { version: picked.build.version, good: '1', outputBinId: shop.bin(2), lines: [] };
    const other = { params: { id: rework.id }, body: { ...body, serials: ['SC-0001'] } };
    expect((await server.refused(api.finish, other)).code).toBe('bench-first');
    await server.call(api.finish, { params: { id: rework.id }, body: { ...body, serials: ['SC-0002'] } });
    const { rows } = await server.call(api.serials, { params: { id: scale.id }, query: { q: 'SC-0002' } });
    expect(rows[0]).toMatchObject({ cost: '25', inStock: true });
  });

  it('are told from patterns and units that cannot work', async () => {
    const item = await shop.stockOf(sensor);
    const { id: _, ...rest } = item;
    const update = (more: object) => ({ params: { id: item.id }, body: { ...rest, ...more } });
    expect(await server.refused(api.updateItem, update({ serialPattern: 'SE-' }))).toMatchObject({
      code: 'serial-pattern',
      field: 'serialPattern',
    });
    expect(await server.refused(api.updateItem, update({ tracking: 'none' }))).toMatchObject({
      code: 'tracking-in-use',
    });
    const [each] = await server.call(api.units, {});
    const finer = { params: { id: each?.id ?? 0 }, body: { ...each, decimals: 1 } };
    expect(await server.refused(api.updateUnit, finer as never)).toMatchObject({ code: 'serial-needs-whole' });
  });
});
