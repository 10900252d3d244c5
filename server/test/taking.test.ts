import { api, type BuildDetail, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let holdReason = 0;
let quarantine = 0;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  holdReason = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'hold')?.id ?? 0;
  const bin = { code: 'Q1', pickingOrder: 90, kind: 'quarantine' as const };
  quarantine = (await server.call(api.createBin, { params: { id: shop.store.id }, body: bin })).id;
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

/** What stands where: "A1 L1 5", "B-0001 L1 2". */
const standing = async (item: Item) =>
  (await server.call(api.itemBins, { params: { id: item.id } })).flatMap(({ bin, build, quantity, pieces }) =>
    pieces.length === 0
      ? [`${build ?? bin} ${quantity}`]
      : pieces.map((piece) => `${build ?? bin} ${piece.lot ?? piece.serial} ${piece.quantity}`),
  );
const holdLot = async (item: Item, code: string) => {
  const { rows } = await server.call(api.lots, { query: { itemId: item.id, q: code } });
  await server.call(api.hold, { body: { reasonId: holdReason, lotIds: [rows[0]?.id ?? 0] } });
};
const holdSerial = async (item: Item, code: string) => {
  const { rows } = await server.call(api.serials, { params: { id: item.id }, query: { q: code } });
  await server.call(api.hold, { body: { reasonId: holdReason, serialIds: [rows[0]?.id ?? 0] } });
};
const move = (item: Item, from: number, to: number, quantity: string, named: object = {}) =>
  server.posted(api.transfer, {
    body: { lines: [{ itemId: item.id, fromBinId: from, toBinId: to, quantity, ...named }] },
  });
const pick = (build: BuildDetail, line: number, bin: number, quantity: string, named: object = {}) => ({
  params: { id: build.id },
  body: { lines: [{ lineId: build.lines[line]?.id ?? 0, binId: bin, quantity, ...named }] },
});
const finish = (build: BuildDetail, good: string, more: object = {}) => ({
  params: { id: build.id },
  body: { version: build.version, good, outputBinId: shop.bin(2), lines: [], ...more },
});

describe('what is held or in quarantine', () => {
  it('is not picked by name, lot or serial', async () => {
    const wax = await shop.item('H-WAX', { tracking: 'lot', lotOrder: 'free' });
    const chip = await shop.item('H-CHIP', { tracking: 'serial' });
    const lamp = await shop.item('H-LAMP', { source: 'made' });
    await shop.receive(wax, '4', '3', 0, { lot: 'L1' });
    await shop.receive(wax, '4', '3', 0, { lot: 'L2' });
    await shop.receive(chip, '2', '9', 0, { serials: ['C1', 'C2'] });
    await shop.define(lamp, [
      [wax, '1'],
      [chip, '1'],
    ]);
    const build = await shop.start(lamp, '1');
    await holdLot(wax, 'L1');
    await holdSerial(chip, 'C1');
    expect(await server.refused(api.pick, pick(build, 0, shop.bin(0), '1', { lot: 'L1' }))).toMatchObject({
      code: 'is-held',
      field: 'lines.0.lot',
    });
    expect(await server.refused(api.pick, pick(build, 1, shop.bin(0), '1', { serials: ['C1'] }))).toMatchObject({
      code: 'is-held',
      field: 'lines.0.serials',
    });
    // Nothing is lost by holding: it still moves, and without a name the other lot is taken.
    await move(wax, shop.bin(0), shop.bin(1), '1', { lot: 'L1' });
    await server.call(api.pick, pick(build, 0, shop.bin(0), '1'));
    await move(wax, shop.bin(0), quarantine, '3', { lot: 'L2' });
    expect((await server.refused(api.pick, pick(build, 0, quarantine, '1', { lot: 'L2' }))).field).toMatch(/^lines\.0/);
    expect(await standing(wax)).toEqual(['A1 L1 3', 'A2 L1 1', 'Q1 L2 3', `${build.number} L2 1`]);
  });

  it('is not used when a build is finished, named or not', async () => {
    const oil = await shop.item('H-OIL', { tracking: 'lot' });
    const tag = await shop.item('H-TAG', { tracking: 'serial' });
    const jar = await shop.item('H-JAR', { source: 'made' });
    await shop.receive(oil, '2', '3', 0, { lot: 'O1' });
    await shop.receive(oil, '2', '3', 1, { lot: 'O2' });
    await shop.receive(tag, '2', '1', 0, { serials: ['T1', 'T2'] });
    await shop.define(jar, [
      [oil, '2', 'when-finished'],
      [tag, '1', 'when-finished'],
    ]);
    const build = await shop.start(jar, '1');
    await holdLot(oil, 'O1');
    await holdSerial(tag, 'T1');
    const [oilLine, tagLine] = build.lines.map(({ id }) => id);
    const lines = (lot: string | null, serial: string) => ({
      lines: [
        { lineId: oilLine ?? 0, actual: '2', lot },
        { lineId: tagLine ?? 0, actual: '1', serials: [serial] },
      ],
    });
    expect((await server.refused(api.finish, finish(build, '1', lines('O1', 'T2')))).field).toBe('lines.0.lot');
    expect((await server.refused(api.finish, finish(build, '1', lines(null, 'T1')))).field).toBe('lines.1.serials');
    await move(oil, shop.bin(1), quarantine, '1', { lot: 'O2' });
    // One on the shelf, one in quarantine, two held: not enough for this one, and nothing is taken.
    expect((await server.refused(api.finish, finish(build, '1', lines(null, 'T2')))).code).toBe('stock-short');
    await move(oil, quarantine, shop.bin(1), '1', { lot: 'O2' });
    await server.call(api.finish, finish(build, '1', lines(null, 'T2')));
    expect([await standing(oil), await standing(tag)]).toEqual([['A1 O1 2'], ['A1 T1 1']]);
  });
});

describe('which place goods come from', () => {
  it('the lot that expires first, also when it stands in another bin', async () => {
    const dough = await shop.item('W-DOUGH', { tracking: 'lot' });
    const bread = await shop.item('W-BREAD', { source: 'made' });
    await shop.receive(dough, '5', '2', 0, { lot: 'LATE', bestBefore: '2028-01-01' });
    await shop.receive(dough, '1', '2', 2, { lot: 'SOON', bestBefore: '2027-01-01' });
    await shop.define(bread, [[dough, '1', 'when-finished']]);
    const build = await shop.start(bread, '3');
    const { id: documentId } = await server.withBuild(api.finish, finish(build, '2'));
    const { movements } = await server.call(api.document, { params: { id: documentId } });
    expect(movements.filter(({ code }) => code === 'W-DOUGH').map((row) => `${row.lot} ${row.quantity}`)).toEqual([
      'SOON -1',
      'LATE -1',
    ]);
  });

  it('the home bin first, and what it cannot give from the next in walking order', async () => {
    const nail = await shop.item('W-NAIL', { bin: 1 });
    const box = await shop.item('W-BOX', { source: 'made' });
    await shop.receive(nail, '4', '1', 0);
    await shop.receive(nail, '3', '1', 1);
    await shop.receive(nail, '5', '1', 2);
    await shop.define(box, [[nail, '4', 'when-finished']]);
    const build = await shop.start(box, '2');
    const first = await server.withBuild(api.finish, finish(build, '1'));
    expect(await standing(nail)).toEqual(['A1 3', 'B1 5']);
    await server.call(api.finish, finish(first.build, '1'));
    expect(await standing(nail)).toEqual(['B1 4']);
  });

  it('the bin that the bill of materials names before the item’s own', async () => {
    const glue = await shop.item('W-GLUE', { bin: 0 });
    const tray = await shop.item('W-TRAY', { source: 'made' });
    await shop.receive(glue, '5', '1', 0);
    await shop.receive(glue, '5', '1', 2);
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: tray.id } });
    const id = revisions[0]?.id ?? 0;
    const lines = [partLine(glue, '1', { taken: 'when-finished', fromBinId: shop.bin(2) })];
    await server.call(api.saveRevision, { params: { id }, body: { version: 0, outputQuantity: '1', lines } });
    await server.call(api.putInUse, { params: { id }, body: { version: 1 } });
    await server.call(api.finish, finish(await shop.start(tray, '2'), '2'));
    expect(await standing(glue)).toEqual(['A1 5', 'B1 3']);
  });
});

describe('benches', () => {
  it('keep apart what each build has of the same part, and give back what is left to where it came from', async () => {
    const pin = await shop.item('B-PIN');
    const hinge = await shop.item('B-HINGE', { source: 'made' });
    await shop.receive(pin, '6', '1', 0);
    await shop.receive(pin, '6', '1', 1);
    await shop.define(hinge, [[pin, '2']]);
    const [one, two] = [await shop.start(hinge, '2'), await shop.start(hinge, '2')];
    await server.call(api.pick, pick(one, 0, shop.bin(0), '4'));
    await server.call(api.pick, pick(two, 0, shop.bin(1), '4'));
    const finished = await server.withBuild(api.finish, finish(one, '1', { close: true }));
    expect(finished.build.state).toBe('finished');
    expect(await standing(pin)).toEqual(['A1 4', 'A2 2', `${two.number} 4`]);
    await server.call(api.cancelBuild, { params: { id: two.id }, body: { version: two.version } });
    expect(await standing(pin)).toEqual(['A1 4', 'A2 6']);
  });

  it('are needed to pick to: a build that is planned or over takes nothing', async () => {
    const pin = await shop.item('B-NUT');
    const hinge = await shop.item('B-CLAMP', { source: 'made' });
    await shop.receive(pin, '9', '1', 0);
    await shop.define(hinge, [[pin, '2']]);
    const planned = await shop.plan(hinge, '3');
    const refused = { code: 'wrong-state', facts: { state: 'planned' } };
    expect(await server.refused(api.pick, pick(planned, 0, shop.bin(0), '1'))).toMatchObject(refused);
    expect(await server.refused(api.finish, finish(planned, '1'))).toMatchObject(refused);
    const start = (quantity: string) => ({
      params: { id: planned.id },
      body: { version: planned.version, quantity, override: { reason: 'the owner said so' } },
    });
    expect(await server.refused(api.startBuild, start('4'))).toMatchObject({ field: 'quantity' });
    const started = await server.did('build', api.startBuild, start('2'));
    expect(started).toMatchObject({ state: 'on-bench', quantity: '2' });
    await shop.pickAll(started.id);
    const part = await server.withBuild(
      api.finish,
      finish(await server.call(api.build, { params: { id: started.id } }), '1'),
    );
    // Something was made of it: it is finished, not cancelled.
    const ended = await server.did('build', api.cancelBuild, {
      params: { id: started.id },
      body: { version: part.build.version },
    });
    expect(ended).toMatchObject({ state: 'finished', finished: '1' });
    const over = { code: 'wrong-state', facts: { state: 'finished' } };
    expect(await server.refused(api.pick, pick(started, 0, shop.bin(0), '1'))).toMatchObject(over);
    expect(await standing(pin)).toEqual(['A1 7']);
  });

  it('give two lines of one part, one for each run, what each needs', async () => {
    const screw = await shop.item('B-SCREW');
    const frame = await shop.item('B-FRAME', { source: 'made' });
    await shop.receive(screw, '20', '1', 0);
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: frame.id } });
    const id = revisions[0]?.id ?? 0;
    const lines = [
      partLine(screw, '3', { basis: 'per-run', taken: 'when-finished' }),
      partLine(screw, '2', { basis: 'per-run' }),
      partLine(screw, '1', { taken: 'when-finished' }),
    ];
    await server.call(api.saveRevision, { params: { id }, body: { version: 0, outputQuantity: '1', lines } });
    await server.call(api.putInUse, { params: { id }, body: { version: 1 } });
    const build = await shop.start(frame, '4');
    expect(build.lines.map(({ required, open }) => `${required} ${open}`)).toEqual(['3 3', '2 2', '4 4']);
    expect(await shop.stockOf(screw)).toMatchObject({ promised: '9', free: '11' });
    await shop.pickAll(build.id);
    const half = await server.withBuild(
      api.finish,
      finish(await server.call(api.build, { params: { id: build.id } }), '2'),
    );
    expect(half.build.lines.map(({ used }) => used)).toEqual(['3', '2', '2']);
    await server.call(api.finish, finish(half.build, '2'));
    expect(await standing(screw)).toEqual(['A1 11']);
  });
});
