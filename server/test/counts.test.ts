import { api, type CountDetail, type Item, type Numbered } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('counting serials', () => {
  let server: TestServer;
  let shop: Workshop;
  let bell: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    bell = await shop.item('BELL', { tracking: 'serial' });
    await shop.receive(bell, '3', '10', 0, { serials: ['B1', 'B2', 'B3'] });
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });
  const begin = () => server.did('count', api.beginCount, { body: { binIds: [shop.bin(0)] } });
  const see = ({ sheet }: CountDetail, serials: string[]) => ({
    params: { id: sheet[0]?.id ?? 0 },
    body: { counted: String(serials.length), serials },
  });
  const approve = ({ id, version }: CountDetail) => ({ params: { id }, body: { version } });
  const shelf = async () =>
    (await server.call(api.serials, { params: { id: bell.id } })).rows
      .filter((row) => row.inStock)
      .map((row) => row.code);

  it('refuses one that is typed twice, whatever its case', async () => {
    const count = await begin();
    expect(await server.refused(api.countLine, see(count, ['B1', 'B2', 'b1']))).toMatchObject({
      code: 'serial-twice',
      field: 'serials',
    });
    await server.call(api.cancelCount, approve(count));
  });

  it('does not take one from a bench, and says whose', async () => {
    const door = await shop.item('DOOR', { source: 'made' });
    await shop.define(door, [[bell, '1']]);
    const build = await shop.start(door, '1');
    const lines = [{ lineId: build.lines[0]?.id ?? 0, binId: shop.bin(0), quantity: '1', serials: ['B1'] }];
    await server.call(api.pick, { params: { id: build.id }, body: { lines } });
    const count = await begin();
    const said = await server.did('count', api.countLine, see(count, ['B1', 'B2', 'B3']));
    expect(await server.refused(api.approveCount, approve(said))).toMatchObject({
      code: 'serial-on-bench',
      facts: { code: 'B1', build: build.number },
    });
    const right = await server.did('count', api.countLine, see(count, ['B2', 'B3']));
    expect(await server.did('count', api.approveCount, approve(right))).toMatchObject({ documentId: null });
    await server.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
    expect(await shelf()).toEqual(['B1', 'B2', 'B3']);
  });

  it('leaves alone what is gone since it was seen', async () => {
    const count = await begin();
    const said = await server.did('count', api.countLine, see(count, ['B1', 'B2', 'B3', 'NEW']));
    const gone = { itemId: bell.id, binId: shop.bin(0), change: '-1', serials: ['B2'] };
    await server.posted(api.adjust, { body: { reasonId: 1, lines: [gone] } });
    await server.call(api.approveCount, approve(said));
    expect(await shelf()).toEqual(['B1', 'B3', 'NEW']);
    expect(await shop.stockOf(bell)).toMatchObject({ onHand: '3', value: '30' });
  });
});

describe('counting', () => {
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
    await shop.receive(pin, '6', '2', 1);
    await shop.receive(wax, '2.5', '8', 1);
  });
  afterAll(() => server.close());
  const begin = (bins: number[], more: { q?: string; notSince?: string } = {}) =>
    server.did('count', api.beginCount, { body: { binIds: bins.map((index) => shop.bin(index)), ...more } });
  const lineOf = (count: CountDetail, code: string, bin: string) => {
    const line = count.sheet.find((one) => one.code === code && one.bin === bin);
    if (!line) throw new Error('no such line');
    return line.id;
  };
  const say = (id: number, counted: string | null) =>
    server.did('count', api.countLine, { params: { id }, body: { counted } });
  const approve = ({ id, version }: Numbered) => ({ params: { id }, body: { version } });

  it('is blind, and right while goods move on', async () => {
    const count = await begin([0, 1]);
    expect(count).toMatchObject({ number: 'CT-0001', scope: 'Main store A1, A2', state: 'open', lines: 3, counted: 0 });
    expect(count.sheet.map(({ code, bin, expected }) => [code, bin, expected])).toEqual([
      ['PIN', 'A1', null],
      ['PIN', 'A2', null],
      ['WAX', 'A2', null],
    ]);
    const first = lineOf(count, 'PIN', 'A1');
    expect(await server.refused(api.approveCount, approve(count))).toMatchObject({ code: 'nothing-counted' });
    expect(await server.refused(api.countLine, { params: { id: first }, body: { counted: '8.5' } })).toMatchObject({
      code: 'too-many-decimals',
      field: 'counted',
    });
    const said = await say(first, '8');
    expect(said.sheet[0]).toMatchObject({
      counted: '8',
      expected: '10',
      difference: '-2',
      value: '-4',
      countedBy: 'Mo Owner',
    });
    // After A1 was counted, three go over to A2, which is counted with them.
    const line = { itemId: pin.id, fromBinId: shop.bin(0), toBinId: shop.bin(1), quantity: '3' };
    await server.posted(api.transfer, { body: { lines: [line] } });
    const second = await say(lineOf(count, 'PIN', 'A2'), '10');
    expect(second.sheet[1]).toMatchObject({ counted: '10', expected: '9', difference: '1' });
    await say(lineOf(count, 'WAX', 'A2'), '9');
    await say(lineOf(count, 'WAX', 'A2'), null);
    const again = await say(lineOf(count, 'WAX', 'A2'), '2.25');
    const done = await server.did('count', api.approveCount, approve(again));
    expect(done.state).toBe('approved');
    const bins = async (item: Item) =>
      (await server.call(api.itemBins, { params: { id: item.id } })).map(({ bin, quantity }) => `${bin} ${quantity}`);
    expect(await bins(pin)).toEqual(['A1 5', 'A2 10']);
    expect(await shop.stockOf(wax)).toMatchObject({ onHand: '2.25', value: '18' });
    const document = await server.call(api.document, { params: { id: done.documentId ?? 0 } });
    expect(document).toMatchObject({ kind: 'count', number: 'CD-0001', remark: 'CT-0001: Main store A1, A2' });
    expect(document.movements).toHaveLength(3);
    expect(await server.refused(api.countLine, { params: { id: first }, body: { counted: '1' } })).toMatchObject({
      code: 'wrong-state',
    });
    expect(await server.verify()).toEqual([]);
  });

  it('is chosen by text and by what was not counted since, and takes what was found besides', async () => {
    clock.at = '2026-11-20T08:00:00';
    await shop.receive(wax, '1', '8', 2);
    const fresh = await begin([0, 1, 2], { notSince: '2026-11-01' });
    expect(fresh.sheet.map(({ code, bin }) => [code, bin])).toEqual([['WAX', 'B1']]);
    expect(fresh.scope).toBe('Main store · not counted since 2026-11-01');
    expect(await server.refused(api.beginCount, { body: { binIds: [shop.bin(0)], q: 'wax' } })).toMatchObject({
      code: 'nothing-to-count',
      field: 'binIds',
    });
    const added = await server.did('count', api.addCountLine, {
      params: { id: fresh.id },
      body: { itemId: pin.id, binId: shop.bin(2) },
    });
    await say(lineOf(added, 'PIN', 'B1'), '2');
    const same = await say(lineOf(added, 'WAX', 'B1'), '1');
    await server.call(api.approveCount, approve(same));
    expect(await shop.stockOf(pin)).toMatchObject({ onHand: '17', averageCost: '2' });
    const given = await begin([0]);
    expect(await server.did('count', api.cancelCount, approve(given))).toMatchObject({
      state: 'cancelled',
      documentId: null,
    });
    expect((await server.call(api.counts, {})).map(({ number, state }) => `${number} ${state}`)).toEqual([
      'CT-0003 cancelled',
      'CT-0002 approved',
      'CT-0001 approved',
    ]);
    expect(await server.verify()).toEqual([]);
  });

  it('refuses to take away what has gone since, and stays open to be counted again', async () => {
    const count = await begin([0]);
    const said = await say(lineOf(count, 'PIN', 'A1'), '1');
    const gone = { itemId: pin.id, binId: shop.bin(0), change: '-3' };
    await server.posted(api.adjust, { body: { reasonId: 1, lines: [gone] } });
    expect(await server.refused(api.approveCount, approve(said))).toMatchObject({
      code: 'stock-short',
      facts: { lines: [{ code: 'PIN', wanted: '4', there: '2' }] },
    });
    const again = await say(lineOf(count, 'PIN', 'A1'), '2');
    expect(await server.did('count', api.approveCount, approve(again))).toMatchObject({
      state: 'approved',
      documentId: null,
    });
  });

  it('is approved once, also when it is pressed twice or by two people at a time', async () => {
    const count = await begin([0, 1]);
    const before = await shop.stockOf(pin);
    const said = await say(lineOf(count, 'PIN', 'A1'), '12');
    const key = crypto.randomUUID();
    const [one, two, three] = await Promise.all([
      server.call(api.approveCount, approve(said), { key }),
      server.call(api.approveCount, approve(said), { key }),
      server.refused(api.approveCount, approve(said)),
    ]);
    expect(two).toEqual(one);
    expect(three).toMatchObject({ code: 'wrong-state', facts: { state: 'approved' } });
    expect(await server.refused(api.cancelCount, approve(one))).toMatchObject({ code: 'wrong-state' });
    expect(Number((await shop.stockOf(pin)).onHand)).toBe(Number(before.onHand) + 10);
  });

  it('takes what was found at the cost that is typed, and at the average where none is', async () => {
    const cup = await shop.item('CUP');
    await shop.receive(cup, '2', '3', 2);
    const count = await begin([2], { q: 'CUP' });
    const line = lineOf(count, 'CUP', 'B1');
    expect((await say(line, '4')).sheet[0]).toMatchObject({ difference: '2', value: '6', needsCost: false });
    const told = await server.did('count', api.countCost, { params: { id: line }, body: { unitCost: '4.5' } });
    expect(told.sheet[0]).toMatchObject({ unitCost: '4.5', value: '9' });
    await server.call(api.approveCount, approve(told));
    expect(await shop.stockOf(cup)).toMatchObject({ onHand: '4', value: '15' });
    // A cost that was typed for one counting is not that of another.
    const next = await begin([2], { q: 'CUP' });
    const again = lineOf(next, 'CUP', 'B1');
    await say(again, '5');
    await server.call(api.countCost, { params: { id: again }, body: { unitCost: '9' } });
    const anew = await say(again, '6');
    expect(anew.sheet[0]).toMatchObject({ unitCost: null, value: '7.5' });
    await server.call(api.approveCount, approve(anew));
    expect(await shop.stockOf(cup)).toMatchObject({ onHand: '6', value: '22.5' });
  });
});

describe('several counts of one bin at once', () => {
  it('put it right once: what another has put right since is counted again', async () => {
    const own = await TestServer.start();
    const bench = await Workshop.open(own);
    const peg = await bench.item('PEG');
    await bench.receive(peg, '10', '1');
    const counts = [];
    for (let n = 0; n < 3; n += 1)
      counts.push(await own.call(api.beginCount, { body: { binIds: [bench.bin(0)], group: null } as never }));
    const read = (id: number) => own.call(api.count, { params: { id } });
    for (const { id } of counts) {
      const [line] = (await read(id)).sheet;
      await own.call(api.countLine, { params: { id: line?.id ?? 0 }, body: { counted: '8' } });
    }
    const approve = async ({ id }: { id: number }) => ({ params: { id }, body: { version: (await read(id)).version } });
    const [first, second, third] = counts;
    if (!first || !second || !third) throw new Error('not begun');
    await own.call(api.approveCount, await approve(first));
    expect(await own.refused(api.approveCount, await approve(second))).toMatchObject({
      code: 'counted-since',
      facts: { number: first.number, bin: 'A1' },
    });
    const [line] = (await read(third.id)).sheet;
    await own.call(api.countLine, { params: { id: line?.id ?? 0 }, body: { counted: '8' } });
    await own.call(api.approveCount, await approve(third));
    expect((await bench.stockOf(peg)).onHand).toBe('8');
    // Undone, the first put nothing right: the second counts again.
    await own.call(api.undoDocument, { params: { id: (await read(first.id)).documentId ?? 0 }, body: {} });
    await own.call(api.approveCount, await approve(second));
    expect((await bench.stockOf(peg)).onHand).toBe('8');
    expect(await own.verify()).toEqual([]);
    await own.close();
  });
});

it('a count can be of a group of items, or of what one supplier sells', async () => {
  const own = await TestServer.start();
  const at = await Workshop.open(own);
  const supplier = await own.call(api.createSupplier, { body: { code: 'CNT', name: 'Counted & Co' } });
  await at.receive(await at.item('SOLD', { suppliers: [{ supplierId: supplier.id, code: '', price: '1' }] }), '5', '1');
  await at.receive(await at.item('MADE', { source: 'made' }), '5', '1');
  await at.receive(await at.item('WAX', { tracking: 'lot' }), '5', '1', 0, { lot: 'A' });
  await at.receive(await at.item('BELL', { tracking: 'serial' }), '1', '1', 0, { serials: ['B1'] });
  const begin = async (more: object) => {
    const begun = await own.did('count', api.beginCount, { body: { binIds: [...at.bins], ...more } });
    await own.call(api.cancelCount, { params: { id: begun.id }, body: { version: begun.version } });
    return [begun.scope, begun.sheet.map((line) => line.code)];
  };
  expect(await begin({ supplierId: supplier.id })).toEqual(['Main store · what Counted & Co sells', ['SOLD']]);
  expect(await begin({ group: 'made' })).toEqual(['Main store · made items', ['MADE']]);
  expect((await begin({ group: 'lot' }))[1]).toEqual(['WAX']);
  expect((await begin({ group: 'serial' }))[1]).toEqual(['BELL']);
  await own.close();
});
