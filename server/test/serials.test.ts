import { api, type BuildDetail, type Item } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, standing, TestServer, Workshop } from './harness.ts';

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
      detail: 'SE-002 is in stock: Main store, A1. SE-004 is free. A serial number belongs to one piece, for good.',
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
    const pieces = async () => (await server.call(api.serialUnits, { query: { itemId: sensor.id } as never })).rows;
    expect((await pieces()).map(({ serial }) => serial)).not.toContain('SE-020');
    const found = (await server.call(api.find, { query: { q: 'SE-020' } })).find(({ kind }) => kind === 'serial');
    const unit = await server.call(api.serialUnit, { params: { id: found?.id ?? 0 } });
    expect(unit).toMatchObject({ state: 'never ours', history: [{ undoneBy: expect.any(String) }, {}] });
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
      'SE-001 true 10 stands ready for B-0001',
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
