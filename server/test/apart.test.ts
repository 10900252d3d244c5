import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

describe('taking apart', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(() => server.close());

  it('splits 27.00 by 50/30/20 with the second part damaged: 13.50 + 5.40 in, 8.10 off, or spread', async () => {
    const [one, two, three] = [await shop.item('ONE'), await shop.item('TWO'), await shop.item('THREE')];
    const kit = await shop.item('KIT', { source: 'made', bin: 2 });
    for (const [part, cost] of [
      [one, '20'],
      [two, '4'],
      [three, '3'],
    ] as const)
      await shop.receive(part, '4', cost);
    const { id } = await server.did('definition', api.createDefinition, { body: { itemId: kit.id } });
    const definition = await server.call(api.definition, { params: { id } });
    const draft = definition.revisions[0]?.id ?? 0;
    const taken = 'when-finished' as const;
    const lines = [
      partLine(one, '1', { taken, share: '50' }),
      partLine(two, '1', { taken, share: '30' }),
      partLine(three, '1', { taken }),
    ];
    await server.call(api.saveRevision, { params: { id: draft }, body: { version: 0, outputQuantity: '1', lines } });
    await server.call(api.putInUse, { params: { id: draft }, body: { version: 1 } });
    const build = await shop.start(kit, '4');
    const finish = { version: build.version, good: '4', outputBinId: shop.bin(2), lines: [] };
    expect(await server.withBuild(api.finish, { params: { id: build.id }, body: finish })).toMatchObject({
      unitCost: '27',
    });

    const plan = await server.call(api.apartPlan, { params: { id: kit.id } });
    expect(plan.lines.map(({ share }) => share)).toEqual(['50', '30', '20']);
    const apart = (leftover: 'written-off' | 'spread') =>
      server.posted(api.takeApart, {
        body: {
          itemId: kit.id,
          revisionId: plan.revisionId,
          binId: shop.bin(2),
          quantity: '1',
          leftover,
          lines: plan.lines.map(({ lineId, code }) => ({
            lineId,
            good: code === 'TWO' ? '0' : '1',
            damaged: code === 'TWO' ? '1' : '0',
            binId: shop.bin(1),
          })),
        },
      });
    const worth = async (leftover: 'written-off' | 'spread') => {
      const { movements, values } = await apart(leftover);
      return [movements.map(({ code, value }) => [code, value]), values.map(({ kind, amount }) => [kind, amount])];
    };
    expect(await worth('written-off')).toEqual([
      [
        ['KIT', '-27'],
        ['ONE', '13.5'],
        ['THREE', '5.4'],
      ],
      [['written-off', '-8.1']],
    ]);
    expect(await worth('spread')).toEqual([
      [
        ['KIT', '-27'],
        ['ONE', '19.285714'],
        ['THREE', '7.714286'],
      ],
      [],
    ]);
    expect(await server.verify()).toEqual([]);
  });

  it('needs every line that comes back, in a bin that exists', async () => {
    const kit = (await server.call(api.items, { query: { q: 'KIT' } })).rows[0];
    const plan = await server.call(api.apartPlan, { params: { id: kit?.id ?? 0 } });
    const [line] = plan.lines;
    const body = {
      itemId: plan.itemId,
      revisionId: plan.revisionId,
      binId: shop.bin(2),
      quantity: '1',
      leftover: 'spread' as const,
      lines: [{ lineId: line?.lineId ?? 0, good: '1', damaged: '0', binId: shop.bin(0) }],
    };
    expect(await server.refused(api.takeApart, { body })).toMatchObject({ code: 'unknown-line', field: 'lines' });
    expect(await server.refused(api.takeApart, { body: { ...body, binId: 999 } })).toMatchObject({
      code: 'unknown-bin',
    });
    expect(await server.refused(api.takeApart, { body: { ...body, revisionId: 999 } })).toMatchObject({
      code: 'unknown-choice',
    });
  });

  it('takes no revision that was never in use, and none of another product', async () => {
    const kit = (await server.call(api.items, { query: { q: 'KIT' } })).rows[0];
    const one = (await server.call(api.items, { query: { q: 'ONE' } })).rows[0] as Item;
    const other = await shop.item('CRATE', { source: 'made', bin: 2 });
    const strange = await shop.define(other, [[one, '1']]);
    const plan = await server.call(api.apartPlan, { params: { id: kit?.id ?? 0 } });
    const drafted = await server.did('definition', api.startRevision, { params: { id: plan.definitionId }, body: {} });
    const body = (revisionId: number) => ({
      itemId: plan.itemId,
      revisionId,
      binId: shop.bin(2),
      quantity: '1',
      leftover: 'spread' as const,
      lines: plan.lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: shop.bin(0) })),
    });
    const before = await shop.stockOf(kit as Item);
    for (const revisionId of [drafted.revisions[0]?.id ?? 0, strange.revisions[0]?.id ?? 0])
      expect(await server.refused(api.takeApart, { body: body(revisionId) })).toMatchObject({
        code: 'unknown-choice',
        field: 'revisionId',
      });
    expect(await shop.stockOf(kit as Item)).toMatchObject({ onHand: before.onHand, value: before.value });
  });
});

describe('what is taken apart', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  it('comes back by the revision that made it, not by today’s', async () => {
    const oak = await shop.item('T-OAK');
    const pine = await shop.item('T-PINE');
    const shelf = await shop.item('T-SHELF', { source: 'made', tracking: 'serial' });
    await shop.receive(oak, '9', '4');
    await shop.receive(pine, '9', '1');
    const definition = await shop.define(shelf, [[oak, '2']]);
    const finish = async (serial: string) => {
      const build = await shop.start(shelf, '1');
      const body = { version: build.version, good: '1', outputBinId: shop.bin(2), serials: [serial], lines: [] };
      await server.call(api.finish, { params: { id: build.id }, body });
      return build;
    };
    const first = await finish('X1');
    const draft = await server.did('definition', api.startRevision, { params: { id: definition.id }, body: {} });
    const next = draft.revisions[0];
    await server.call(api.saveRevision, {
      params: { id: next?.id ?? 0 },
      body: { version: next?.version ?? 0, outputQuantity: '1', lines: [partLine(pine, '3')] },
    });
    await server.call(api.putInUse, {
      params: { id: next?.id ?? 0 },
      body: { version: (next?.version ?? 0) + 1 },
    });
    await finish('X2');
    const planOf = (query: object) => server.call(api.apartPlan, { params: { id: shelf.id }, query });
    const parts = async (query: object) => (await planOf(query)).lines.map(({ code }) => code);
    expect(await parts({})).toEqual(['T-PINE']);
    expect(await parts({ serials: 'X1' })).toEqual(['T-OAK']);
    expect(await parts({ serials: 'X2' })).toEqual(['T-PINE']);
    expect(await parts({ buildId: first.id })).toEqual(['T-OAK']);
    expect(await planOf({ serials: 'X1' })).toMatchObject({ build: first.number, revision: 1 });
    const today = await planOf({});
    const then = await planOf({ serials: 'X1' });
    const apart = (plan: typeof today, serials: string[], more: object = {}) => ({
      body: {
        itemId: shelf.id,
        revisionId: plan.revisionId,
        binId: shop.bin(2),
        quantity: String(serials.length),
        serials,
        leftover: 'spread' as const,
        lines: plan.lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: shop.bin(0) })),
        ...more,
      },
    });
    expect(await server.refused(api.takeApart, apart(today, ['X1']))).toMatchObject({
      code: 'made-otherwise',
      field: 'revisionId',
    });
    expect(await server.refused(api.takeApart, apart(then, ['X1', 'X2']))).toMatchObject({
      code: 'made-differently',
      field: 'serials',
    });
    expect(await server.refused(api.takeApart, apart(today, ['X2'], { buildId: first.id }))).toMatchObject({
      code: 'not-made-by',
      field: 'buildId',
    });
    const done = await server.posted(api.takeApart, apart(then, ['X1'], { buildId: first.id }));
    expect(done.movements.map(({ code, value }) => `${code} ${value}`)).toEqual(['T-SHELF -8', 'T-OAK 8']);
  });

  it('does not give back a part that sits in another unit', async () => {
    const chip = await shop.item('T-CHIP', { tracking: 'serial' });
    const lamp = await shop.item('T-LAMP', { source: 'made', tracking: 'serial' });
    await shop.receive(chip, '2', '4', 0, { serials: ['C1', 'C2'] });
    await shop.define(lamp, [[chip, '1', 'when-finished']]);
    for (const [unit, part] of [
      ['Y1', 'C1'],
      ['Y2', 'C2'],
    ] as const) {
      const build = await shop.start(lamp, '1');
      const lines = [{ lineId: build.lines[0]?.id ?? 0, actual: '1', serials: [part] }];
      const body = { version: build.version, good: '1', outputBinId: shop.bin(2), serials: [unit], lines };
      await server.call(api.finish, { params: { id: build.id }, body });
    }
    const plan = await server.call(api.apartPlan, { params: { id: lamp.id }, query: { serials: 'Y1' } });
    const apart = (serial: string) => ({
      body: {
        itemId: lamp.id,
        revisionId: plan.revisionId,
        binId: shop.bin(2),
        quantity: '1',
        serials: ['Y1'],
        leftover: 'spread' as const,
        lines: [{ lineId: plan.lines[0]?.lineId ?? 0, good: '1', damaged: '0', binId: shop.bin(0), serials: [serial] }],
      },
    });
    expect(await server.refused(api.takeApart, apart('C2'))).toMatchObject({
      code: 'serial-elsewhere',
      field: 'lines.0.serials',
      facts: { unit: 'Y2' },
    });
    await server.posted(api.takeApart, apart('C1'));
  });

  it('is of several products in one document, and serves who waits', async () => {
    const [leg, top] = [await shop.item('LEG'), await shop.item('TOP')];
    await shop.receive(leg, '8', '1');
    await shop.receive(top, '3', '5');
    const stool = await shop.item('STOOL', { source: 'made', bin: 2 });
    const shelf = await shop.item('SHELF', { source: 'made', bin: 2 });
    await shop.define(stool, [
      [leg, '3'],
      [top, '1'],
    ]);
    await shop.define(shelf, [[top, '1']]);
    for (const [product, quantity] of [
      [stool, '2'],
      [shelf, '1'],
    ] as const) {
      const { id } = await shop.start(product, quantity);
      await shop.pickAll(id);
      const { version, outputBinId } = await server.call(api.build, { params: { id } });
      await server.call(api.finish, { params: { id }, body: { version, good: quantity, outputBinId, lines: [] } });
    }
    const desk = await shop.item('DESK', { source: 'made', bin: 2 });
    await shop.define(desk, [[top, '2']]);
    const waits = await shop.plan(desk, '1');
    const found = await server.call(api.containing, { query: { partIds: `${top.id}` } });
    expect(found.map(({ code, free, each }) => [code, free, each])).toEqual([
      ['SHELF', '1', '1'],
      ['STOOL', '2', '1'],
    ]);
    expect(await server.call(api.containing, {})).toEqual([]);
    const frees = (tops: string) =>
      server.call(api.apartFrees, {
        body: { taken: { itemId: stool.id, quantity: '1' }, parts: [{ itemId: top.id, quantity: tops }] },
      });
    expect(await frees('1')).toMatchObject([
      { number: waits.number, whole: false, parts: [{ code: 'TOP', quantity: '1' }] },
    ]);
    expect(await frees('2')).toMatchObject([{ number: waits.number, whole: true, parts: [{ quantity: '2' }] }]);
    expect(await frees('0')).toEqual([]);
    const product = async (item: Item, quantity: string) => {
      const { revisionId, lines } = await server.call(api.apartPlan, { params: { id: item.id } });
      return {
        itemId: item.id,
        revisionId,
        binId: shop.bin(2),
        quantity,
        leftover: 'written-off' as const,
        lines: lines.map(({ lineId, quantity: each }) => ({
          lineId,
          good: String(Number(each) * Number(quantity)),
          damaged: '0',
          binId: shop.bin(0),
        })),
      };
    };
    const first = await product(stool, '1');
    const short = { ...first, others: [{ ...(await product(shelf, '1')), quantity: '0.5' }] };
    expect(await server.refused(api.takeApart, { body: short })).toMatchObject({
      code: 'too-many-decimals',
      field: 'others.0.quantity',
    });
    const both = { ...first, others: [await product(shelf, '1')], remark: 'For the desk' };
    const document = await server.posted(api.takeApart, { body: both });
    expect(document.movements.map(({ code, quantity }) => `${code} ${quantity}`)).toEqual([
      'STOOL -1',
      'LEG 3',
      'TOP 1',
      'SHELF -1',
      'TOP 1',
    ]);
    expect((await server.call(api.build, { params: { id: waits.id } })).waiting).toEqual([]);
    await server.call(api.undoDocument, { params: { id: document.id }, body: {} });
    expect((await shop.stockOf(stool)).onHand).toBe('2');
    expect(await server.verify()).toEqual([]);
  });

  it('refuses what stands in a parcel or in another bin, and says where it is', async () => {
    const core = await shop.item('CORE');
    const lamp = await shop.item('LAMP', { source: 'both', tracking: 'serial', bin: 1 });
    await shop.define(lamp, [[core, '1']]);
    await shop.receive(lamp, '2', '30', 1, { serials: ['LP-1', 'LP-2'] });
    const order = await shop.sell(await shop.customer('LANE'), [{ itemId: lamp.id, quantity: '1', price: '60' }]);
    const goal = { kind: 'order' as const, id: order.id };
    const { id } = await server.call(api.makeRun, { body: { goals: [goal] } });
    const [stop] = (await server.call(api.pickRun, { params: { id } })).stops;
    const [line] = stop?.lines ?? [];
    const picked = { ...goal, lineId: line?.lineId ?? 0, binId: shop.bin(1), quantity: '1', serials: ['LP-1'] };
    await server.call(api.pickOnRun, { params: { id }, body: { lines: [picked] } });
    const plan = await server.call(api.apartPlan, { params: { id: lamp.id } });
    const apart = (serial: string, binId: number) => ({
      body: {
        itemId: lamp.id,
        revisionId: plan.revisionId,
        binId,
        quantity: '1',
        serials: [serial],
        leftover: 'written-off' as const,
        lines: plan.lines.map(({ lineId }) => ({ lineId, good: '1', damaged: '0', binId: shop.bin(0) })),
      },
    });
    expect(await server.refused(api.takeApart, apart('LP-1', shop.bin(1)))).toMatchObject({
      code: 'serial-not-there',
      detail: expect.stringMatching(/^LP-1 is not in this bin: it is in Main store, Bench, for .+ Put back/),
    });
    expect(await server.refused(api.takeApart, apart('LP-2', shop.bin(0)))).toMatchObject({
      detail: expect.stringMatching(/^LP-2 is not in this bin: it is in Main store, A2\. Take it from there/),
    });
    await server.call(api.takeApart, apart('LP-2', shop.bin(1)));
    expect(await server.verify()).toEqual([]);
  });
});
