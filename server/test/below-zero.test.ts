import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('an owner overrides a shortage', () => {
  let server: TestServer;
  let shop: Workshop;
  let wax: Item;
  let candle: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    wax = await shop.item('WAX', { unitId: 2 });
    candle = await shop.item('CANDLE', { source: 'made', bin: 2, sellPrice: '8' });
    await shop.receive(wax, '2', '10');
    await shop.define(candle, [[wax, '0.5', 'when-finished']], '3');
  });
  afterAll(() => server.close());

  it('refuses with what is missing, when it comes and how many could start; some can start at once', async () => {
    const planned = await shop.plan(candle, '10', '2026-11-20');
    const problem = await server.refused(api.startBuild, {
      params: { id: planned.id },
      body: { version: planned.version },
    });
    expect(problem).toMatchObject({
      status: 409,
      code: 'parts-short',
      facts: {
        canStart: '4',
        lines: [{ itemId: wax.id, name: 'The WAX', needed: '5', got: '2', short: '3', comesOn: null }],
      },
    });
    const today = await server.call(api.today, {});
    expect(today.waiting[0]).toMatchObject({ number: planned.number, late: true, canStart: '4' });
    expect(today.holdUps).toEqual([
      expect.objectContaining({ itemId: wax.id, short: '3', salesValue: '80', builds: 1 }),
    ]);
    const started = await server.did('build', api.startBuild, {
      params: { id: planned.id },
      body: { version: planned.version, quantity: '4' },
    });
    expect(started).toMatchObject({ state: 'on-bench', quantity: '4' });
    const rest = await server.call(api.build, { params: { id: started.related[0]?.id ?? 0 } });
    expect(rest).toMatchObject({ state: 'planned', quantity: '6', canStart: '0' });
  });

  it('goes below zero at the last cost, lists it on Today, and the next receipt settles it', async () => {
    const [build] = (await server.call(api.builds, { query: { state: 'on-bench' } })).rows;
    const detail = await server.call(api.build, { params: { id: build?.id ?? 0 } });
    const lineId = detail.lines[0]?.id ?? 0;
    const finish = { version: detail.version, good: '4', outputBinId: shop.bin(2), lines: [{ lineId, actual: '2.4' }] };
    const params = { id: detail.id };
    expect(await server.refused(api.finish, { params, body: finish })).toMatchObject({
      code: 'stock-short',
      facts: { lines: [{ name: 'The WAX', bin: 'A1', wanted: '2.4', there: '2' }] },
    });
    const override = { reason: 'Weighed twice, delivery not entered yet' };
    const { unitCost, id: documentId } = await server.withBuild(api.finish, { params, body: { ...finish, override } });
    expect(unitCost).toBe('7.2');
    expect(await shop.stockOf(wax)).toMatchObject({ onHand: '-0.4', value: '-4' });
    expect((await server.call(api.document, { params: { id: documentId } })).overrideReason).toBe(override.reason);
    expect((await server.call(api.today, {})).putRight).toEqual([
      expect.objectContaining({
        itemId: wax.id,
        quantity: '-0.4',
        reason: override.reason,
        person: 'Mo Owner',
        bin: 'A1',
      }),
    ]);
    const receipt = await shop.receive(wax, '10', '12');
    expect(receipt.values).toEqual([
      expect.objectContaining({ kind: 'supplier', amount: '120' }),
      expect.objectContaining({ kind: 'cost-difference', amount: '-0.8' }),
    ]);
    expect(await shop.stockOf(wax)).toMatchObject({ onHand: '9.6', value: '115.2', averageCost: '12' });
    expect((await server.call(api.today, {})).putRight).toEqual([]);
    expect(await server.verify()).toEqual([]);
  });

  it('goes below zero of a lot that is known, and asks for one where none is', async () => {
    const override = { reason: 'Counted wrong, to inspect' };
    const short = async (code: string, received: boolean) => {
      const part = await shop.item(code, { tracking: 'lot', standardCost: '1' });
      const product = await shop.item(`OF-${code}`, { source: 'made' });
      await shop.define(product, [[part, '3', 'when-finished']]);
      if (received) await shop.receive(part, '2', '5', 1, { lot: 'L1' });
      const { id, version } = await shop.plan(product, '1');
      const started = await server.did('build', api.startBuild, { params: { id }, body: { version, override } });
      const body = { version: started.version, good: '1', outputBinId: shop.bin(2), lines: [], override };
      return { params: { id }, body, part };
    };
    const some = await short('RESIN', true);
    const done = await server.call(api.finish, { params: some.params, body: some.body });
    expect((await server.document(done)).movements).toMatchObject([
      { code: 'RESIN', lot: 'L1', quantity: '-3' },
      { code: 'OF-RESIN', quantity: '1' },
    ]);
    expect(await shop.stockOf(some.part)).toMatchObject({ onHand: '-1' });
    const none = await short('TAR', false);
    expect(await server.refused(api.finish, { params: none.params, body: none.body })).toMatchObject({
      code: 'lot-needed',
      field: 'lines',
    });
    expect(await server.verify()).toEqual([]);
    await server.call(api.undoDocument, { params: { id: done.id }, body: {} });
    for (const { id } of [some.params, none.params]) {
      const { version } = await server.call(api.build, { params: { id } });
      await server.call(api.cancelBuild, { params: { id }, body: { version } });
    }
  });

  it('sends a build short to the bench, on Today until it is over', async () => {
    const planned = await shop.plan(candle, '100');
    const body = { version: planned.version, override: { reason: 'Customer waits at the door' } };
    const started = await server.did('build', api.startBuild, { params: { id: planned.id }, body });
    expect(started).toMatchObject({ state: 'on-bench', overrideReason: 'Customer waits at the door' });
    expect((await server.call(api.today, {})).putRight).toEqual([
      expect.objectContaining({ itemId: null, buildId: planned.id }),
    ]);
    await server.call(api.cancelBuild, { params: { id: planned.id }, body: { version: started.version } });
    expect((await server.call(api.today, {})).putRight).toEqual([]);
  });
});

describe('undo', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  it('says plainly why it is too late, and does it once', async () => {
    const part = await shop.item('PART');
    const product = await shop.item('PRODUCT', { source: 'made', bin: 2 });
    const receipt = await shop.receive(part, '10', '1');
    await shop.define(product, [[part, '1']]);
    const build = await shop.start(product, '4');
    const picked = await shop.pickAll(build.id);
    const undo = (id: number) => ({ params: { id }, body: {} });
    expect(await server.refused(api.undoDocument, undo(receipt.id))).toMatchObject({
      status: 409,
      code: 'undo-goods-gone',
      facts: { lines: [{ name: 'The PART', wanted: '10', there: '6', bin: 'A1' }] },
    });
    const counter = await server.posted(api.undoDocument, undo(picked.id));
    expect(counter).toMatchObject({ kind: 'undo', reverses: { number: picked.number } });
    expect((await server.call(api.build, { params: { id: build.id } })).lines[0]).toMatchObject({
      onBench: '0',
      open: '4',
    });
    expect(await server.refused(api.undoDocument, undo(picked.id))).toMatchObject({ code: 'already-undone' });
    expect(await server.refused(api.undoDocument, undo(counter.id))).toMatchObject({ code: 'undo-final' });
    await server.posted(api.undoDocument, undo(receipt.id));
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '0', value: '0' });
    expect(await server.verify()).toEqual([]);
  });

  it('brings leftovers back to the bench with the finish that put them away', async () => {
    const part = await shop.item('ROPE', { unitId: 4 });
    const product = await shop.item('LADDER', { source: 'made', bin: 2 });
    await shop.receive(part, '30', '1.5', 1);
    await shop.define(product, [[part, '2.5']]);
    const build = await shop.start(product, '6');
    const { build: picked } = await shop.pickAll(build.id);
    const finish = {
      version: picked.version,
      good: '4',
      outputBinId: shop.bin(2),
      lines: [{ lineId: build.lines[0]?.id ?? 0, actual: '9.5' }],
      close: true,
    };
    const done = await server.withBuild(api.finish, { params: { id: build.id }, body: finish });
    expect(done.build).toMatchObject({ state: 'finished', finished: '4' });
    expect(await shop.stockOf(part)).toMatchObject({ onHand: '20.5', onBench: '0', promised: '0' });
    await server.posted(api.undoDocument, { params: { id: done.id }, body: {} });
    const after = await server.call(api.build, { params: { id: build.id } });
    expect(after).toMatchObject({ state: 'on-bench', finished: '0' });
    expect(after.lines[0]).toMatchObject({ onBench: '15', used: '0', open: '0' });
    expect(await server.verify()).toEqual([]);
  });

  it('finishes in parts: what is fixed per run falls to the first, the cost to the portion that used it', async () => {
    const part = await shop.item('BOLT');
    const product = await shop.item('BENCH', { source: 'made', bin: 2 });
    await shop.receive(part, '20', '1');
    await shop.define(product, [[part, '2']], '6');
    const build = await shop.start(product, '5');
    const finish = (good: string, version: number) =>
      server.withBuild(api.finish, {
        params: { id: build.id },
        body: { version, good, outputBinId: shop.bin(2), lines: [] },
      });
    const first = await finish('2', build.version);
    expect(first).toMatchObject({ unitCost: '4.4', build: { state: 'on-bench', finished: '2' } });
    const second = await finish('3', first.build.version);
    expect(second.build.state).toBe('finished');
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '5', value: '22' });
    expect(await server.verify()).toEqual([]);
  });
});
