import { api, type Item, type Snapshot, type Supplier } from '@yosegi/contract';
import { CoverageRows, worldOf } from '@yosegi/contract/coverage-input';
import { cover } from '@yosegi/core/coverage';
import { parseDecimal, type Quantity } from '@yosegi/core/number';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** A Wednesday. */
const clock = { at: '2026-11-25T09:00:00', now: () => new Date(clock.at) };
let server: TestServer;
let shop: Workshop;
let supplier: Supplier;
let [screw, frame, hive]: Item[] = [];
beforeAll(async () => {
  server = await TestServer.start(undefined, clock);
  shop = await Workshop.open(server);
  supplier = await server.call(api.createSupplier, {
    body: { code: 'IRON', name: 'Ironbridge', email: 'sales@iron.example' },
  });
  screw = await shop.item('C-SCREW');
  frame = await shop.item('C-FRAME', { source: 'made' });
  hive = await shop.item('C-HIVE', { source: 'made' });
  await shop.receive(screw, '10', '1');
  await shop.define(frame, [[screw, '4']]);
  await shop.define(hive, [[frame, '2']]);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const q = (text: string) => parseDecimal(text) as Quantity;
const idOf = (item: Item | undefined) => item?.id ?? 0;
const bought = (quantity: string, wantedOn: string) =>
  shop.order(
    { supplierId: supplier.id, lines: [{ itemId: idOf(screw), quantity, price: '1', wantedOn }] } as never,
    'mailbox',
  );

describe('what Cover loads', () => {
  const load = (since?: string) => server.call(api.snapshot, { query: since === undefined ? {} : { since } });
  const sizes = ({ items, definitions, demands, supplies, gone }: Snapshot) =>
    [items, definitions, demands, supplies, gone].map(({ length }) => length);

  it('is everything once, then what changed since, and the same as everything', async () => {
    const first = await load();
    expect(first.since).toBeNull();
    let rows = CoverageRows.of(first, null);
    const none = await load(rows.version);
    expect([none.version, none.since, ...sizes(none)]).toEqual([first.version, first.version, 0, 0, 0, 0, 0]);
    const build = await shop.plan(frame as Item, '2');
    await shop.receive(screw as Item, '1', '1');
    const changed = await load(rows.version);
    // One shelf, the line of the build, and what it makes.
    expect(sizes(changed)).toEqual([1, 0, 1, 1, 0]);
    rows = CoverageRows.of(changed, rows);
    await server.call(api.cancelBuild, { params: { id: build.id }, body: { version: build.version } });
    const after = await load(rows.version);
    expect(sizes(after)).toEqual([0, 0, 0, 0, 2]);
    rows = CoverageRows.of(after, rows);
    const wanted = [{ itemId: idOf(hive), quantity: q('3') }];
    expect(cover(rows.world(), { wanted })).toEqual(cover(worldOf(await load('no such moment')), { wanted }));
  });
});

describe('who goes first and who waits', () => {
  it('is followed by everybody, says who and why, is taken back in one step, and tells of somebody quicker', async () => {
    const [early, late] = [
      await shop.plan(frame as Item, '2', '2026-12-01'),
      await shop.plan(frame as Item, '2', '2026-12-02'),
    ];
    const lacks = async ({ id }: { id: number }) =>
      (await server.call(api.pegs, { params: { kind: 'build', id } })).needs.map(({ short }) => short);
    expect([await lacks(early), await lacks(late)]).toEqual([['0'], ['5']]);
    const line = { kind: 'build' as const, id: early.id, was: null, rank: 1 as const, reason: 'The other is paid for' };
    const { before } = await server.call(api.setPriorities, { body: { lines: [line] } });
    expect([await lacks(early), await lacks(late)]).toEqual([['5'], ['0']]);
    expect(await server.call(api.priorities, {})).toMatchObject([
      {
        kind: 'build',
        id: early.id,
        number: early.number,
        who: 'The C-FRAME',
        rank: 1,
        reason: 'The other is paid for',
        by: 'Mo Owner',
      },
    ]);
    const refused = (lines: object[]) => server.refused(api.setPriorities, { body: { lines } } as never);
    expect(await refused([{ ...line, rank: -1 }])).toMatchObject({
      status: 409,
      code: 'priority-changed',
      detail: expect.stringContaining(`Mo Owner set when ${early.number} gets its parts`),
      field: 'lines.0.was',
    });
    // None of several where one cannot be.
    expect(
      await refused([
        { ...line, id: late.id },
        { ...line, id: 99_999 },
      ]),
    ).toMatchObject({ field: 'lines.1.id' });
    expect(await server.call(api.priorities, {})).toHaveLength(1);
    expect(await refused([{ ...line, was: 1, reason: ' ' }])).toMatchObject({ status: 422, field: 'lines.0.reason' });
    expect(await refused([{ ...line, rank: 2 }])).toMatchObject({ status: 422 });
    await server.call(api.setPriorities, { body: { lines: before } });
    expect([await lacks(early), await lacks(late)]).toEqual([['0'], ['5']]);
    expect(await server.call(api.priorities, {})).toEqual([]);
    for (const { id, version } of [early, late])
      await server.call(api.cancelBuild, { params: { id }, body: { version } });
    expect(await refused([line])).toMatchObject({ code: 'unknown-line' });
  });
});

describe('pegging, seen', () => {
  it('says what feeds a build and whom it feeds, and whom an order of ours feeds', async () => {
    const purchase = await bought('20', '2026-12-03');
    const frames = await shop.plan(frame as Item, '6', '2026-12-01');
    const hives = await shop.plan(hive as Item, '4', '2026-12-02');
    const of = (kind: 'build' | 'purchase' | 'order', id: number) => server.call(api.pegs, { params: { kind, id } });
    expect(await of('build', frames.id)).toMatchObject({
      needs: [
        {
          item: { id: screw?.id },
          quantity: '24',
          by: [
            { kind: 'shelf', quantity: '11', on: '' },
            { kind: 'purchase', id: purchase.id, number: purchase.number, quantity: '13', on: '2026-12-03' },
          ],
          short: '0',
          completeOn: '2026-12-03',
        },
      ],
      feeds: [{ kind: 'build', id: hives.id, number: hives.number, quantity: '6' }],
    });
    expect((await of('build', hives.id)).needs).toMatchObject([
      { quantity: '8', by: [{ kind: 'build', id: frames.id, on: '2026-12-03' }], short: '2', completeOn: null },
    ]);
    const lines = await server
      .call(api.snapshot, { query: {} })
      .then(({ supplies }) => supplies.filter(({ kind }) => kind === 'purchase'));
    expect(lines.map((one) => one.supplier)).toEqual([supplier.id]);
    const named = await server.call(api.coverSources, {
      query: { orders: '', builds: `${frames.id}`, lines: `${lines[0]?.id}` } as never,
    });
    expect(named.map(({ kind, number, who }) => [kind, number, who])).toEqual([
      ['build', frames.number, 'The C-FRAME'],
      ['purchase', purchase.number, 'Ironbridge'],
    ]);
    expect((await of('purchase', purchase.id)).feeds).toMatchObject([{ id: frames.id, quantity: '13' }]);
    expect(await of('order', 99_999)).toEqual({ needs: [], feeds: [] });
    // Its benches take longer by the definition, and so does everybody after it.
    const { definitionId } = await shop.stockOf(frame as Item);
    const definition = await server.call(api.definition, { params: { id: definitionId ?? 0 } });
    const { benchDays: _, ...behaviour } = definition.behaviour;
    await server.call(api.setBehaviour, {
      params: { id: definition.id },
      body: { ...behaviour, benchDays: 3, version: definition.version },
    });
    expect((await of('build', hives.id)).needs[0]?.by).toMatchObject([{ on: '2026-12-07' }]);
    // What is left out stays as it is.
    const again = await server.call(api.definition, { params: { id: definition.id } });
    await server.call(api.setBehaviour, {
      params: { id: definition.id },
      body: { ...behaviour, version: again.version },
    });
    expect((await server.call(api.definition, { params: { id: definition.id } })).behaviour.benchDays).toBe(3);
  });
});

describe('another day for what is ordered', () => {
  it('moves what waits for it, says the day before, and is taken back', async () => {
    const purchase = await bought('5', '2026-12-10');
    const line = purchase.lines[0]?.id ?? 0;
    const { before } = await server.call(api.expectOn, { body: { lines: [{ lineId: line, on: '2026-12-21' }] } });
    expect(before).toEqual([{ lineId: line, on: '2026-12-10' }]);
    const read = async () => (await server.call(api.purchase, { params: { id: purchase.id } })).lines[0]?.expectedOn;
    expect(await read()).toBe('2026-12-21');
    await server.call(api.expectOn, { body: { lines: before } });
    expect(await read()).toBe('2026-12-10');
    const refused = (lines: { lineId: number; on: string }[]) => server.refused(api.expectOn, { body: { lines } });
    expect(await refused([{ lineId: line, on: '2026-11-24' }])).toMatchObject({
      code: 'day-passed',
      field: 'lines.0.on',
    });
    expect(await refused([{ lineId: 99_999, on: '2026-12-24' }])).toMatchObject({
      code: 'unknown-line',
      field: 'lines.0.lineId',
    });
    // Whoever has the order open has not seen the day.
    expect(
      await server.refused(api.closePurchase, {
        params: { id: purchase.id },
        body: { version: purchase.version, lineIds: [line] },
      }),
    ).toMatchObject({ code: 'stale-save' });
  });
});

describe('what a question lacks', () => {
  it('is bought from the cheapest, the fastest or the usual supplier, in whole packs', async () => {
    const other = await server.call(api.createSupplier, { body: { code: 'MILL', name: 'Low Mill', email: '' } });
    const offer = { code: '', minimum: '0' };
    const glass = await shop.item('C-GLASS', {
      suppliers: [
        { ...offer, supplierId: supplier.id, price: '2', pack: '6', leadDays: 20 },
        { ...offer, supplierId: other.id, price: '3', pack: '1', leadDays: 3 },
      ],
    });
    const need = `${glass.id}x7`;
    const first = async (by: 'cheapest' | 'fastest' | 'usual') => {
      const [row, ...more] = await server.call(api.buyList, { query: { by, need } });
      expect(more).toEqual([]);
      return [row?.offers[0]?.supplier, row?.quantity, row?.needed];
    };
    // Two packs of six cost more than seven single ones.
    expect(await first('cheapest')).toEqual(['Low Mill', '7', '7']);
    expect(await first('fastest')).toEqual(['Low Mill', '7', '7']);
    expect(await first('usual')).toEqual(['Low Mill', '7', '7']);
    const line = { itemId: glass.id, quantity: '6', price: '2' };
    await shop.order({ supplierId: supplier.id, lines: [line] }, 'mailbox');
    expect(await first('usual')).toEqual(['Ironbridge', '12', '7']);
    expect(await server.refused(api.buyList, { query: { need: 'twelve' } })).toMatchObject({ field: 'need' });
  });
});

describe('reorder points', () => {
  it('are proposed by use and deliveries, taken, and taken back', async () => {
    const felt = await shop.item('C-FELT', {
      suppliers: [{ supplierId: supplier.id, code: '', minimum: '0', price: '1', pack: '1', leadDays: 14 }],
    });
    const pad = await shop.item('C-PAD', { source: 'made' });
    await shop.receive(felt, '50', '1');
    await shop.define(pad, [[felt, '2']]);
    const use = async (day: string, good: string) => {
      clock.at = `${day}T09:00:00`;
      const { id } = await shop.start(pad, good);
      await shop.pickAll(id);
      const { version } = await server.call(api.build, { params: { id } });
      const body = { version, good, outputBinId: shop.bin(2), lines: [] };
      return server.posted(api.finish, { params: { id }, body });
    };
    const before = clock.at;
    await use('2026-10-01', '3');
    await use('2026-10-13', '4');
    const undone = await use('2026-10-14', '5');
    await server.posted(api.undoDocument, { params: { id: undone.id }, body: {} });
    await use('2026-10-15', '1');
    clock.at = before;
    const row = async () => (await server.call(api.reorderProposals, {})).rows.find(({ itemId }) => itemId === felt.id);
    const proposed = await row();
    // Six and eight within fourteen days; the fifteenth day is beyond them.
    expect(proposed).toMatchObject({ point: null, proposed: '14', from: '2026-10-01', days: 14, learnt: null });
    expect(proposed?.perWeek).toBe('0.615385');
    const version = proposed?.version ?? 0;
    const points = [{ itemId: felt.id, point: '14', version }];
    const { before: was } = await server.call(api.setReorderPoints, { body: { points } });
    expect(await row()).toMatchObject({ point: '14', proposed: '14' });
    expect(await server.refused(api.setReorderPoints, { body: { points } })).toMatchObject({ code: 'stale-save' });
    await server.call(api.setReorderPoints, { body: { points: was } });
    expect(await row()).toMatchObject({ point: null });
    const late = [{ itemId: felt.id, point: '1.5', version: (await row())?.version ?? 0 }];
    expect(await server.refused(api.setReorderPoints, { body: { points: late } })).toMatchObject({
      code: 'too-many-decimals',
      field: 'points.0.point',
    });
  });
});

describe('questions', () => {
  it('are kept for everybody under a name, over the one of the same name, and forgotten', async () => {
    const keep = (name: string, address: string) => server.call(api.keepQuestion, { body: { name, address } });
    const kept = await keep('Before the fair', 'want=3x9');
    expect((await keep('before the FAIR', 'want=3x12')).id).toBe(kept.id);
    expect(await server.call(api.coverQuestions, {})).toMatchObject([{ id: kept.id, address: 'want=3x12' }]);
    await server.call(api.forgetQuestion, { params: { id: kept.id } });
    expect(await server.call(api.coverQuestions, {})).toEqual([]);
    expect(await server.refused(api.forgetQuestion, { params: { id: kept.id } })).toMatchObject({ status: 404 });
  });

  it('begin from open orders, planned builds and reorder points', async () => {
    const { builds, orders } = await server.call(api.fillings, {});
    expect(builds).toEqual({
      wanted: [
        { itemId: idOf(frame), quantity: '6' },
        { itemId: idOf(hive), quantity: '4' },
      ],
      sources: 2,
    });
    expect(orders).toEqual({ wanted: [], sources: 0 });
    const items = await server.call(api.coverItems, { query: { ids: `${idOf(hive)},${idOf(screw)},99999` } });
    expect(items.map(({ code, supplier: who }) => [code, who])).toEqual([
      ['C-SCREW', 'Ironbridge'],
      ['C-HIVE', null],
    ]);
    expect(await server.refused(api.coverItems, { query: { ids: '1,x' } })).toMatchObject({ field: 'ids' });
    expect(await server.call(api.coverSources, { query: { builds: '1,99999' } })).toHaveLength(1);
  });
});
