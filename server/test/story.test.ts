import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

describe('the whole way of a product', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  it('is defined, covered, built, picked, finished, taken apart and read back, exactly', async () => {
    const wax = await shop.item('WAX', { unitId: 2 });
    const frame = await shop.item('FRAME', { bin: 1 });
    const product = await shop.item('WAXED', { source: 'made', bin: 2, sellPrice: '5' });
    await shop.receive(wax, '20', '3');
    await shop.receive(frame, '30', '1.2', 1);
    await shop.define(product, [
      [wax, '0.4', 'when-finished'],
      [frame, '1'],
    ]);

    const planned = await shop.plan(product, '12', '2026-12-04');
    expect(planned).toMatchObject({ number: 'B-0001', state: 'planned', waiting: [], canStart: '12' });
    expect(await shop.stockOf(wax)).toMatchObject({ onHand: '20', promised: '4.8', free: '15.2' });

    await server.call(api.startBuild, { params: { id: planned.id }, body: { version: planned.version } });
    const part = planned.lines.find((line) => line.item?.code === 'FRAME');
    const pick = (quantity: string) =>
      server.withBuild(api.pick, {
        params: { id: planned.id },
        body: { lines: [{ lineId: part?.id ?? 0, binId: shop.bin(1), quantity }] },
      });
    const part5 = await pick('5');
    expect(part5.build.lines[1]).toMatchObject({ onBench: '5', open: '7' });
    // What is only taken when finished is nobody's to pick.
    const { build, openLines } = await pick('7');
    expect([part5.openLines, openLines]).toEqual([1, 0]);
    expect(await shop.stockOf(frame)).toMatchObject({ onHand: '18', onBench: '12', promised: '0' });

    const waxLine = planned.lines.find((line) => line.item?.code === 'WAX')?.id ?? 0;
    const finished = await server.withBuild(api.finish, {
      params: { id: planned.id },
      body: {
        version: build.version,
        good: '12',
        outputBinId: shop.bin(2),
        lines: [{ lineId: waxLine, actual: '5.1' }],
      },
    });
    expect(finished).toMatchObject({ unitCost: '2.475', build: { state: 'finished', finished: '12' } });
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '12', value: '29.7', averageCost: '2.475' });
    const document = await server.call(api.document, { params: { id: finished.id } });
    expect(document.uses).toContainEqual({
      text: 'The WAX',
      unit: 'kg',
      planned: '4.8',
      actual: '5.1',
      cost: '15.3',
      plannedCost: '14.4',
      because: null,
    });

    const plan = await server.call(api.apartPlan, { params: { id: product.id } });
    const apart = await server.posted(api.takeApart, {
      body: {
        itemId: product.id,
        revisionId: plan.revisionId,
        binId: shop.bin(2),
        quantity: '2',
        leftover: 'written-off',
        lines: plan.lines.map((line) => ({
          lineId: line.lineId,
          good: line.code === 'FRAME' ? '1' : '0.8',
          damaged: '0',
          binId: line.homeBinId ?? 0,
        })),
      },
    });
    expect(apart.movements.reduce((sum, { value }) => sum + Number(value), 0)).toBeCloseTo(
      -Number(apart.values[0]?.amount ?? 0) * -1,
      9,
    );
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '10', value: '24.75' });

    const history = await server.call(api.movements, { query: { itemId: product.id } });
    expect(history.rows.map((row) => [row.kind, row.quantity])).toEqual([
      ['take-apart', '-2'],
      ['finish', '12'],
    ]);
    await server.posted(api.undoDocument, { params: { id: apart.id }, body: {} });
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '12', value: '29.7' });
    await server.posted(api.undoDocument, { params: { id: finished.id }, body: {} });
    expect(await server.call(api.build, { params: { id: planned.id } })).toMatchObject({
      state: 'on-bench',
      finished: '0',
    });
    expect(await shop.stockOf(product)).toMatchObject({ onHand: '0', value: '0' });
    expect(await shop.stockOf(frame)).toMatchObject({ onHand: '18', onBench: '12', promised: '0', value: '36' });
    expect(await server.verify()).toEqual([]);
  });
});
