import { api, type Item } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

/** The day of an order, a build, a purchase: one answer, on screens, papers, messages and lists. */
describe('the day of', () => {
  let server: TestServer;
  let shop: Workshop;
  let near: number;
  let far: number;
  const now = new Date('2026-11-23T09:00:00');

  beforeAll(async () => {
    server = await TestServer.start(undefined, { now: () => new Date(now) });
    shop = await Workshop.open(server);
    near = await shop.customer('NEAR');
    far = await shop.customer('FAR', { transportDays: 4 });
  });
  afterAll(() => server.close());

  const line = (item: Item, quantity: string, more: object = {}) => ({
    itemId: item.id,
    quantity,
    price: '5',
    ...more,
  });
  const read = (id: number) => server.call(api.order, { params: { id } });
  const bought = async (item: Item, quantity: string, on: string) => {
    const { id: supplierId } = await server.call(api.createSupplier, {
      body: { code: `S-${item.code}`, name: 'Sawmill' },
    });
    const lines = [{ itemId: item.id, quantity, price: '1', wantedOn: on, needs: [] }];
    return shop.order({ supplierId, lines } as never, 'print');
  };
  /** What the answer to the customer promises of each line. */
  async function promised(id: number): Promise<(string | null)[]> {
    const xml = await (await server.fetch(`/api/orders/${id}/response.xml`)).text();
    return [...xml.matchAll(/<cac:LineItem>.*?<\/cac:LineItem>/gs)].map(
      ([own]) => /<cbc:EndDate>([^<]*)</.exec(own)?.[1] ?? null,
    );
  }

  it('an order counts how long goods are on their way, on every list and paper', async () => {
    const jar = await shop.item('JAR');
    await shop.receive(jar, '10', '1');
    const { id } = await shop.sell(far, [line(jar, '3')], { wantedOn: '2026-11-25' });
    const order = await read(id);
    expect(order).toMatchObject({ outlook: 'late', canLeave: true, completeOn: '2026-11-27' });
    expect(order.lines).toMatchObject([{ completeOn: '', arrivesOn: '2026-11-27' }]);
    expect(await promised(id)).toEqual(['2026-11-27']);
    const today = await server.call(api.today, {});
    expect(today.canLeave.map((row) => row.id)).toContain(id);
    // One that is fetched, or arrives in time, is only ready.
    const fetched = await shop.sell(near, [line(jar, '3')], { wantedOn: '2026-11-25' });
    expect(await read(fetched.id)).toMatchObject({ outlook: 'ready', canLeave: true, completeOn: '' });
    const early = await shop.sell(far, [line(jar, '3')], { wantedOn: '2026-12-25' });
    expect(await read(early.id)).toMatchObject({ outlook: 'ready', completeOn: '2026-11-27' });
    // A build for it is due in time to be sent.
    const hive = await shop.item('HIVE', { source: 'made' });
    await shop.define(hive, [[jar, '1']]);
    const sold = await shop.sell(far, [line(hive, '1')], { wantedOn: '2026-12-24' });
    const chosen = [{ partId: sold.lines[0]?.parts[0]?.id ?? 0, quantity: '1' }];
    const { builds } = await server.call(api.buildForOrders, { body: { chosen } });
    expect(await server.call(api.build, { params: { id: builds[0]?.id ?? 0 } })).toMatchObject({ due: '2026-12-20' });
  });

  it('a line nobody knows of is none, and one of its own is looked at', async () => {
    const [lid, cap] = [await shop.item('LID'), await shop.item('CAP')];
    await shop.receive(cap, '9', '1');
    await bought(lid, '5', '2026-12-07');
    const order = await shop.sell(far, [line(lid, '5'), line(cap, '1', { wantedOn: '2026-11-24' }), line(lid, '1')], {
      wantedOn: '2026-12-31',
      delivery: 'as-ready',
    });
    expect((await read(order.id)).lines.map(({ arrivesOn }) => arrivesOn)).toEqual(['2026-12-11', '2026-11-27', null]);
    expect(await promised(order.id)).toEqual(['2026-12-11', '2026-11-27', null]);
    expect(await read(order.id)).toMatchObject({ outlook: 'unknown', completeOn: null });
    const some = await shop.sell(far, [line(cap, '1', { wantedOn: '2026-11-24' })], { wantedOn: '2026-12-31' });
    expect(await read(some.id)).toMatchObject({ outlook: 'late' });
    // In one delivery every line comes with the last.
    const whole = await shop.sell(far, [line(cap, '1'), line(lid, '1')], { delivery: 'whole' });
    expect((await read(whole.id)).lines.map(({ arrivesOn }) => arrivesOn)).toEqual([null, null]);
  });

  it('a build is that of its worst part, which is named', async () => {
    const [side, roof, wire, nail] = [
      await shop.item('SIDE'),
      await shop.item('ROOF'),
      await shop.item('WIRE'),
      await shop.item('NAIL'),
    ];
    const box = await shop.item('BOX', { source: 'made' });
    await shop.define(box, [
      [side, '1'],
      [roof, '1'],
      [wire, '1'],
      [nail, '1'],
    ]);
    for (const [item, on] of [
      [side, '2026-12-01'],
      [roof, '2026-12-24'],
      [wire, '2026-12-08'],
    ] as const)
      await bought(item, '1', on);
    const build = await shop.plan(box, '1');
    const waiting = async () =>
      (await server.call(api.build, { params: { id: build.id } })).waiting.map(({ code, comesOn }) => [code, comesOn]);
    expect(await waiting()).toEqual([
      ['NAIL', null],
      ['ROOF', '2026-12-24'],
      ['WIRE', '2026-12-08'],
      ['SIDE', '2026-12-01'],
    ]);
    const refused = await server.refused(api.startBuild, {
      params: { id: build.id },
      body: { version: build.version },
    });
    expect(refused.facts).toMatchObject({
      lines: [{ code: 'NAIL' }, { code: 'ROOF' }, { code: 'WIRE' }, { code: 'SIDE' }],
    });
    await bought(nail, '1', '2026-12-02');
    expect((await waiting())[0]).toEqual(['ROOF', '2026-12-24']);
  });

  it('whom is served follows when it was promised, not its number', async () => {
    const post = await shop.item('POST');
    const fence = await shop.item('FENCE', { source: 'made' });
    await shop.define(fence, [[post, '4']]);
    await shop.receive(post, '4', '1');
    const quote = await shop.sell(near, [line(post, '4')], { confirm: false, wantedOn: '2026-12-01' });
    now.setMinutes(now.getMinutes() + 1);
    const first = await shop.sell(near, [line(post, '4')], { wantedOn: '2026-12-01' });
    now.setMinutes(now.getMinutes() + 1);
    await server.call(api.confirmOrder, { params: { id: quote.id }, body: { version: quote.version } });
    expect([(await read(first.id)).lines[0]?.canShip, (await read(quote.id)).lines[0]?.canShip]).toEqual(['4', '0']);
    // A build that was planned later comes later, though the number of the order is larger than its own.
    const build = await shop.plan(fence, '1', '2026-12-01');
    expect((await read(first.id)).lines[0]?.canShip).toBe('4');
    expect(build).toMatchObject({ canStart: '0' });
  });

  it('a delivery is reckoned by what was learnt where that is longer, on a day on which both work', async () => {
    const wax = await shop.item('WAX');
    const { id: supplierId, version } = await server.call(api.createSupplier, {
      body: { code: 'SLOW', name: 'Slow', deliveryDays: [2, 4] },
    });
    const item = await shop.stockOf(wax);
    const offers = [{ supplierId, code: '', price: '1', pack: '1', minimum: '0', leadDays: 12, breaks: [] }];
    const input = { ...item, suppliers: offers, packs: [], fields: [], standardCost: null } as never;
    await server.call(api.updateItem, { params: { id: wax.id }, body: input });
    const order = (more: object = {}) =>
      shop.order(
        { supplierId, lines: [{ itemId: wax.id, quantity: '1', price: '1', needs: [] }], ...more } as never,
        'print',
      );
    const first = await order();
    // Stated: twelve days after a Monday is a Saturday; they deliver on Tuesdays and Thursdays.
    expect(first.lines).toMatchObject([{ expectedOn: '2026-12-08', lead: { days: 12, from: 'stated' } }]);
    now.setDate(now.getDate() + 17);
    const received = { lineId: first.lines[0]?.id ?? 0, quantity: '1', binId: shop.bin(0), unitCost: '1' };
    await server.call(api.receivePurchase, {
      params: { id: first.id },
      body: { lines: [received] },
    });
    const next = await order();
    expect(next.lines).toMatchObject([
      { statedLeadDays: 12, learntLead: { usual: 17, onTime: 0, withDay: 1 }, lead: { days: 17, from: 'learnt' } },
    ]);
    // Thursday 10 December and seventeen days is a Sunday.
    expect(next.lines[0]?.expectedOn).toBe('2026-12-29');
    // Wanting it sooner brings it no sooner.
    expect((await order({ wantedOn: '2026-12-11' })).lines[0]?.expectedOn).toBe('2026-12-29');
    expect((await order({ wantedOn: '2027-02-01' })).lines[0]?.expectedOn).toBe('2027-02-01');
    await shop.sell(near, [line(wax, '9')]);
    const [row] = (await server.call(api.buyList, { query: {} })).filter(({ itemId }) => itemId === wax.id);
    expect(row?.offers).toMatchObject([{ leadDays: 12, lead: { days: 17, from: 'learnt' }, expectedOn: '2026-12-29' }]);
    const named = await server.call(api.coverItems, { query: { ids: String(wax.id) } as never });
    expect(named).toMatchObject([{ supplier: 'Slow', buyOn: '2026-12-29' }]);
    const off = { code: 'SLOW', name: 'Slow', deliveryDays: [2, 4], learnLeads: false, version };
    await server.signIn(2);
    expect(await server.refused(api.updateSupplier, { params: { id: supplierId }, body: off })).toMatchObject({
      code: 'owner-only',
    });
    await server.signIn(1);
    await server.call(api.updateSupplier, { params: { id: supplierId }, body: off });
    expect((await order()).lines).toMatchObject([{ expectedOn: '2026-12-22', lead: { days: 12, from: 'stated' } }]);
  });
});
