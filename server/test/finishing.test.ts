import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let [wax, candle]: Item[] = [];
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  wax = await shop.item('WAX', { unitId: await kilo() });
  candle = await shop.item('CANDLE', { source: 'made' });
  await shop.receive(wax, '100', '10');
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const kilo = async () => (await server.call(api.units, {})).find(({ code }) => code === 'kg')?.id ?? 1;
const detail = (id: number) => server.call(api.build, { params: { id } });
const onBench = async (product: Item, quantity: string, purpose: 'build' | 'rework' = 'build') => {
  const planned = { itemId: product.id, quantity, due: null, purpose };
  const { builds } = await server.call(api.planBuilds, { body: { builds: [planned] } });
  const id = builds[0]?.id ?? 0;
  await server.call(api.startBuild, { params: { id }, body: { version: (await detail(id)).version } });
  return id;
};
const finish = async (id: number, good: string, more: object = {}) => {
  const { version, outputBinId } = await detail(id);
  return { params: { id }, body: { version, good, outputBinId, lines: [], serials: [], ...more } } as never;
};
async function define(product: Item, lines: object[], purpose: 'build' | 'rework' = 'build') {
  const definition = await server.did('definition', api.createDefinition, { body: { itemId: product.id, purpose } });
  const [draft] = definition.revisions;
  const params = { id: draft?.id ?? 0 };
  const saved = await server.did('definition', api.saveRevision, {
    params,
    body: { version: draft?.version ?? 0, outputQuantity: '1', lines },
  } as never);
  await server.call(api.putInUse, { params, body: { version: saved.revisions[0]?.version ?? 0 } });
  return definition.id;
}

describe('a finish', () => {
  it('says why where more was used than the bill of materials lets pass, either way', async () => {
    await define(candle as Item, [partLine(wax as Item, '0.2', { taken: 'when-finished', tolerance: '5' } as never)]);
    const id = await onBench(candle as Item, '20');
    const line = (await detail(id)).lines[0];
    expect(line?.tolerance).toBe('5');
    const using = (actual: string, because = '') =>
      finish(id, '10', { lines: [{ lineId: line?.id, actual, because }] });
    for (const off of ['2.101', '1.899'])
      expect(await server.refused(api.finish, await using(off)), off).toMatchObject({
        code: 'beyond-tolerance',
        field: 'lines.0.because',
        detail: expect.stringContaining('more than 5% off'),
      });
    await server.call(api.finish, await using('2.1'));
    const done = await server.posted(api.finish, await using('2.4', 'The pot boiled over'));
    expect(done.uses).toMatchObject([{ actual: '2.4', because: 'The pot boiled over' }]);
  });

  it('says why units were rejected, and keeps no reason where none were', async () => {
    const rejectReasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'reject')?.id;
    const name = (await server.call(api.reasons, {})).find(({ id }) => id === rejectReasonId)?.name;
    const id = await onBench(candle as Item, '3');
    const say = async (good: string, rejected: string) =>
      (await server.posted(api.finish, await finish(id, good, { rejected, rejectReasonId, rejectCost: 'written-off' })))
        .finished?.reason;
    expect([await say('1', '1'), await say('1', '0')]).toEqual([name, null]);
  });

  it('is dated when it was made, never ahead', async () => {
    const id = await onBench(candle as Item, '1');
    expect(await server.refused(api.finish, await finish(id, '1', { madeOn: '2026-11-24' }))).toMatchObject({
      code: 'day-ahead',
      field: 'madeOn',
    });
    const done = await server.posted(api.finish, await finish(id, '1', { madeOn: '2026-11-20' }));
    expect(done.finished).toMatchObject({ madeOn: '2026-11-20' });
  });

  it('tells what the last ones used, and offers a draft of what is always off', async () => {
    const soap = await shop.item('SOAP', { source: 'made' });
    const definitionId = await define(soap, [partLine(wax as Item, '0.1', { taken: 'when-finished' })]);
    const id = await onBench(soap, '100');
    const [line] = (await detail(id)).lines;
    const past = () => server.call(api.lastUses, { params: { id } });
    expect(await past()).toEqual([]);
    for (const actual of ['1.1', '1.2', '1.15'])
      await server.call(api.finish, await finish(id, '10', { lines: [{ lineId: line?.id, actual }] }));
    expect(await past()).toEqual([{ lineId: line?.id, count: 3, planned: '3', actual: '3.45', isDrifted: true }]);
    // What was undone tells nothing.
    const last = (await detail(id)).documents.at(-1);
    await server.call(api.undoDocument, { params: { id: last?.id ?? 0 }, body: {} });
    expect(await past()).toMatchObject([{ count: 2, planned: '2', actual: '2.3', isDrifted: false }]);
    expect(await server.refused(api.correctDefinition, { params: { id }, body: {} })).toMatchObject({
      code: 'unknown-line',
    });
    await server.call(api.finish, await finish(id, '10', { lines: [{ lineId: line?.id, actual: '1.15' }] }));
    const draft = await server.call(api.correctDefinition, { params: { id }, body: {} });
    expect(draft).toMatchObject({ definitionId, number: 2, state: 'draft' });
    const { revisions } = await server.call(api.definition, { params: { id: definitionId } });
    expect(revisions.find(({ number }) => number === 2)?.lines).toMatchObject([{ quantity: '0.115' }]);
    expect(await server.refused(api.correctDefinition, { params: { id }, body: {} })).toMatchObject({
      code: 'draft-exists',
    });
  });
});

describe('a rework', () => {
  it('gives back the unit it took in, less what came out of it', async () => {
    const scale = await shop.item('SCALE', { tracking: 'serial', source: 'both' });
    const cell = await shop.item('CELL');
    await shop.receive(scale, '2', '50', 0, { serials: ['S-1', 'S-2'] });
    await shop.receive(cell, '4', '6');
    await define(scale, [partLine(scale, '1'), partLine(cell, '1')], 'rework');
    const id = await onBench(scale, '1', 'rework');
    const [itself, part] = (await detail(id)).lines;
    expect(
      await server.refused(api.finish, await finish(id, '1', { lines: [{ lineId: itself?.id, actual: '0' }] })),
    ).toMatchObject({
      code: 'rework-needs-unit',
    });
    const picks = [
      { lineId: itself?.id ?? 0, binId: shop.bin(0), quantity: '1', serials: ['S-1'] },
      { lineId: part?.id ?? 0, binId: shop.bin(0), quantity: '1' },
    ];
    await server.call(api.pick, { params: { id }, body: { lines: picks } });
    const out = (share: string, went: string) => ({ itemId: cell.id, quantity: '1', went, share });
    const done = (serials: string[], parts: object[]) =>
      finish(id, '1', { serials, out: parts, conditionBefore: 'worn', conditionAfter: 'as new' });
    expect(await server.refused(api.finish, await done(['S-9'], []))).toMatchObject({
      code: 'serial-unknown',
      field: 'serials',
    });
    const other = { serials: ['S-9'], lines: [{ lineId: itself?.id, actual: '1', serials: ['S-1'] }] };
    expect(await server.refused(api.finish, await finish(id, '1', other))).toMatchObject({
      code: 'rework-needs-unit',
      field: 'serials',
    });
    expect(
      await server.refused(api.finish, await done(['S-1'], [out('60', 'stock'), out('41', 'scrap')])),
    ).toMatchObject({
      code: 'shares-over',
    });
    expect(await server.refused(api.finish, await done(['S-1'], [out('101', 'stock')]))).toMatchObject({
      field: 'out.0.share',
    });
    const posted = await server.posted(
      api.finish,
      await done(['S-1'], [out('10', 'stock'), out('4', 'scrap'), out('50', 'back-in')]),
    );
    // 50 went in with a cell of 6; 5 came back to stock with the old one, 2 went to scrap.
    expect(posted.values).toMatchObject([{ kind: 'written-off', amount: '-2' }]);
    expect(posted.finished).toMatchObject({
      conditionBefore: 'worn',
      conditionAfter: 'as new',
      out: [
        { went: 'stock', value: '5' },
        { went: 'scrap', value: '2' },
        { went: 'back-in', value: '0' },
      ],
    });
    const stock = async (item: Item) => {
      const { onHand, averageCost } = await shop.stockOf(item);
      return [onHand, averageCost];
    };
    expect(await stock(cell)).toEqual(['4', '5.75']);
    expect(await stock(scale)).toEqual(['2', '49.5']);
    const { rows } = await server.call(api.serials, { params: { id: scale.id }, query: {} } as never);
    expect(rows.map(({ code, cost }) => [code, cost])).toEqual([
      ['S-1', '49'],
      ['S-2', '50'],
    ]);
    await server.call(api.undoDocument, { params: { id: posted.id }, body: {} });
    // Both stand on the bench again.
    expect([await stock(cell), await stock(scale)]).toEqual([
      ['3', '6'],
      ['1', '50'],
    ]);
    const plain = await onBench(candle as Item, '1');
    expect(await server.refused(api.finish, await finish(plain, '1', { out: [out('1', 'stock')] }))).toMatchObject({
      code: 'not-a-rework',
    });
  });

  it('may give back a unit by its serial number that has been here before, never one that is here', async () => {
    const [lamp, clock] = [
      await shop.item('LAMP', { source: 'both' }),
      await shop.item('CLOCK', { tracking: 'serial' }),
    ];
    await shop.receive(lamp, '1', '40');
    await shop.receive(clock, '2', '9', 0, { serials: ['C-1', 'C-2'] });
    const gone = { itemId: clock.id, binId: shop.bin(0), change: '-1', serials: ['C-1'] };
    await server.call(api.adjust, { body: { reasonId: 1, lines: [gone] } });
    await define(lamp, [partLine(lamp, '1'), partLine(wax as Item, '1')], 'rework');
    const id = await onBench(lamp, '1', 'rework');
    await shop.pickAll(id);
    const out = (serial: string) => [
      { itemId: clock.id, quantity: '1', went: 'stock', share: '25', serials: [serial] },
    ];
    expect(await server.refused(api.finish, await finish(id, '1', { out: out('C-2') }))).toMatchObject({
      code: 'serial-clash',
      field: 'out.0.serials',
    });
    await server.call(api.finish, await finish(id, '1', { out: out('C-1') }));
    const { rows } = await server.call(api.serials, { params: { id: clock.id }, query: {} });
    expect(rows.map(({ code, cost }) => [code, cost])).toEqual([
      ['C-1', '10'],
      ['C-2', '9'],
    ]);
  });
});
