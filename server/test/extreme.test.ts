import { api, type Item } from '@yosegi/contract';
import { worldOf } from '@yosegi/contract/coverage-input';
import { cover as coverOf, standings } from '@yosegi/core/coverage';
import { LATER } from '@yosegi/core/days';
import type { Quantity } from '@yosegi/core/number';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { everyAnswer, unanswered } from './every-get.ts';
import { everyKind } from './every-kind.ts';
import { partLine, TestServer, Workshop } from './harness.ts';

/** The most that is taken of anything in one field. */
const MOST = '999999999';

/** Each alone is taken; together, or times one another, they are more than can be kept. Only their own rows may say so. */
describe('the largest values there are', () => {
  let server: TestServer;
  let shop: Workshop;
  let part: Item;
  let box: Item;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    part = await shop.item('PART', { sellPrice: MOST, standardCost: MOST });
    box = await shop.item('BOX', { source: 'made', sellPrice: MOST });
    await shop.define(box, [[part, MOST]]);
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  it('leave every list, Today and every record to be read', async () => {
    await shop.receive(part, '1', MOST);
    await shop.plan(box, '1', '2026-12-01');
    await shop.plan(box, '1');
    const draft = await shop.item('DRAFT', { source: 'made', sellPrice: '1' });
    const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: draft.id } });
    const lines = [
      partLine(part, MOST, { waste: '999' }),
      { kind: 'labour' as const, text: 'Long', basis: 'per-output' as const, minutes: MOST, rateId: 1 },
      { kind: 'charge' as const, text: 'Dear', basis: 'per-run' as const, amount: MOST },
    ];
    const body = { version: 0, outputQuantity: '1', lines };
    await server.call(api.saveRevision, { params: { id: revisions[0]?.id ?? 0 }, body });
    const supplier = await server.call(api.createSupplier, { body: { code: 'S', name: 'Supplier' } });
    const order = { supplierId: supplier.id, lines: [{ itemId: part.id, quantity: MOST, price: '9' }] };
    await server.call(api.createPurchases, { body: { orders: [order], send: 'print' } });
    expect(await unanswered(server)).toEqual([]);
    const today = await server.call(api.today, {});
    expect(today.holdUps.map(({ code, builds }) => [code, builds])).toEqual([['PART', 2]]);
    const faults = await server.call(api.definitionFaults, {});
    expect(faults.find(({ code }) => code === 'DRAFT')?.faults.map(({ fault }) => fault)).toContain('beyond-reckoning');
    const { rows } = await server.call(api.definitions, { query: {} });
    expect(rows.map(({ code }) => code).sort()).toEqual(['BOX', 'DRAFT']);
  });

  it('put a day that is too far away later than 2100, and leave everybody else as they are', async () => {
    const { company } = await server.call(api.session, {});
    const { name, address, email, version } = company;
    await server.call(api.updateCompany, { body: { name, address, email, version, benchMinutes: 1 } });
    const [peg, hive, crate] = [
      await shop.item('PEG', { sellPrice: '1' }),
      await shop.item('HIVE', { source: 'made', sellPrice: '9' }),
      await shop.item('CRATE', { source: 'made', sellPrice: '9' }),
    ];
    await shop.receive(peg, '100', '1');
    await shop.define(hive, [[peg, '1']], '60');
    await shop.define(crate, [[peg, '1']], MOST);
    const customerId = await shop.customer('HUGE', { transportDays: 365 });
    const nearId = await shop.customer('NEAR');
    const one = { itemId: peg.id, quantity: '1', price: '1' };
    const plain = await shop.sell(nearId, [one], { wantedOn: '2026-12-01' });
    const lines = [
      { itemId: hive.id, quantity: '100000000', price: '1' },
      { itemId: crate.id, quantity: '1', price: MOST },
      { itemId: peg.id, quantity: '1', price: '1', wantedOn: '2999-12-31' },
    ];
    const huge = await shop.sell(customerId, lines, { wantedOn: '2999-12-31' });
    for (const [index, quantity] of ['100000000', '1'].entries()) {
      const chosen = [{ partId: huge.lines[index]?.parts[0]?.id ?? 0, quantity }];
      await server.call(api.buildForOrders, { body: { chosen } });
    }
    const { id: supplierId } = await server.call(api.createSupplier, { body: { code: 'FAR', name: 'Far away' } });
    const order = {
      supplierId,
      wantedOn: '2999-12-31',
      lines: [{ itemId: peg.id, quantity: '900000000', price: '0.01' }],
    };
    await server.call(api.createPurchases, { body: { orders: [order], send: 'print' } });
    expect(await unanswered(server)).toEqual([]);
    const read = (id: number) => server.call(api.order, { params: { id } });
    const [first, second] = (await read(huge.id)).lines;
    expect([first?.arrivesOn, second?.arrivesOn]).toEqual([LATER, LATER]);
    expect((await read(huge.id)).completeOn).toBe(LATER);
    expect(await read(plain.id)).toMatchObject({ canLeave: true, outlook: 'ready' });
    const look = await server.call(api.lookAhead, {
      body: {
        orderId: null,
        customerId,
        wantedOn: null,
        turnOn: null,
        lines: [{ id: null, itemId: hive.id, quantity: '100000000', price: null }],
      } as never,
    });
    expect(look.lines).toHaveLength(1);
    const cover = worldOf(await server.call(api.snapshot, { query: {} }));
    expect(standings(cover).map(({ completeOn }) => completeOn)).toContain(LATER);
    expect(coverOf(cover, { wanted: [{ itemId: hive.id, quantity: 1e14 as Quantity }] }).completeOn).toBe(LATER);
  });

  it('are refused with the limit that holds, in its own words, where they could not be kept', async () => {
    const bins = { itemId: part.id, binId: shop.bin(0) };
    const receive = (quantity: string, unitCost: string) => ({
      body: { kind: 'receipt' as const, lines: [{ ...bins, quantity, unitCost }] },
    });
    const before = await shop.stockOf(part);
    const refused = await server.refused(api.receive, receive(MOST, MOST));
    expect(refused).toMatchObject({ status: 422, code: 'too-large' });
    const { largest } = refused.facts as { largest: string };
    expect(refused.detail).toContain(largest);
    expect(await server.refused(api.receive, receive('1000000000', '1'))).toMatchObject({ code: 'too-large' });
    expect(
      await server.refused(api.planBuilds, { body: { builds: [{ itemId: box.id, quantity: MOST, due: null }] } }),
    ).toMatchObject({
      status: 422,
    });
    expect(await shop.stockOf(part)).toEqual(before);
  });
});

/** What ordinary records are called in the business of {@link everyKind}; extreme ones have HUGE in their names. */
const ORDINARY = /"(PIN|BOX|WAX|SCALE|LARK|N)"/;

/** Every row of a list that is about ordinary records only, as it is told, by where it stands. */
function ordinaryRows(value: unknown, rows: Set<string>, at: string): void {
  if (Array.isArray(value)) {
    for (const one of value) {
      const text = JSON.stringify(one);
      if (ORDINARY.test(text) && !text.includes('HUGE')) rows.add(`${at} ${text}`);
      else ordinaryRows(one, rows, at);
    }
  } else if (value !== null && typeof value === 'object')
    for (const [key, one] of Object.entries(value)) ordinaryRows(one, rows, `${at}.${key}`);
}

describe('one extreme record', () => {
  let server: TestServer;
  let shop: Workshop;
  let huge: Item;
  let made: Item;
  let customerId: number;
  let supplierId: number;
  /** What was told before there was any. */
  let before: ReadonlySet<string> | undefined;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await everyKind(server);
    huge = await shop.item('HUGE', { sellPrice: '1' });
    made = await shop.item('HUGE-MADE', { source: 'made', sellPrice: '1' });
    await shop.define(made, [[huge, '1']], '60');
    customerId = await shop.customer('HUGE-CO', { transportDays: 365 });
    supplierId = (await server.call(api.createSupplier, { body: { code: 'HUGE-S', name: 'HUGE supplier' } })).id;
  });
  afterAll(async () => {
    expect(await server.verify()).toEqual([]);
    await server.close();
  });

  const sell = (line: { quantity: string; price: string; wantedOn?: string }, item = huge) =>
    shop.sell(customerId, [{ itemId: item.id, ...line }], { wantedOn: line.wantedOn ?? null });
  const buy = (line: { quantity: string; price: string }, wantedOn: string | null = null) =>
    shop.order({ supplierId, wantedOn, lines: [{ itemId: huge.id, ...line }] }, 'print');
  const kinds: readonly (readonly [string, () => Promise<unknown>])[] = [
    ['an order of the most there can be', () => sell({ quantity: MOST, price: '1' })],
    ['an order at the highest price', () => sell({ quantity: '1', price: MOST })],
    ['an order wanted at the end of days', () => sell({ quantity: '1', price: '1', wantedOn: '2999-12-31' })],
    ['an order wanted long ago', () => sell({ quantity: '1', price: '1', wantedOn: '1900-01-01' })],
    ['an order of what takes ages to make', () => sell({ quantity: '900000000', price: '1' }, made)],
    ['a purchase of the most there can be', () => buy({ quantity: MOST, price: '0.000001' })],
    ['a purchase at the highest price', () => buy({ quantity: '1', price: MOST })],
    ['a purchase that comes at the end of days', () => buy({ quantity: '1', price: '1' }, '2999-12-31')],
    ['a build of the most there can be', () => shop.plan(made, '100000000', '2026-12-01')],
    ['a build that is due at the end of days', () => shop.plan(made, '1', '2999-12-31')],
    ['a build that was due long ago', () => shop.plan(made, '1', '1900-01-01')],
    [
      'a task that takes for ever, at a price beyond all others',
      async () => {
        const { id } = await shop.plan(made, '1');
        const task = { text: 'HUGE task', because: 'HUGE', personId: 1 };
        const labour = { ...task, kind: 'labour' as const, rateId: 1, amount: MOST };
        await server.call(api.addTask, { params: { id }, body: labour });
        await server.call(api.addTask, { params: { id }, body: { ...task, kind: 'charge', amount: MOST } });
      },
    ],
    ['stock worth as much as can be', () => shop.receive(huge, '9000', '900000')],
    ['the most stock there can be', () => shop.receive(huge, '900000000', '0.000001')],
    [
      'a lot that keeps for ever',
      async () => {
        const lots = await shop.item('HUGE-LOT', { tracking: 'lot', reorderPoint: MOST, standardCost: MOST });
        await shop.receive(lots, '1', MOST, 0, { lot: 'HUGE-1', bestBefore: '2999-12-31' });
        await shop.receive(lots, '1', '0.01', 0, { lot: 'HUGE-2', bestBefore: '1900-01-01' });
      },
    ],
    [
      'a repair at the highest price',
      () =>
        server.call(api.takeIn, {
          body: { customerId, itemId: huge.id, fault: 'HUGE', accessories: '', price: MOST, wantedOn: '2999-12-31' },
        }),
    ],
    [
      'a bill of materials of the most of everything',
      async () => {
        const part = await shop.item('HUGE-PART', { standardCost: MOST, reorderPoint: MOST });
        const dear = await shop.item('HUGE-DEAR', { source: 'made', sellPrice: MOST });
        const { revisions } = await server.did('definition', api.createDefinition, { body: { itemId: dear.id } });
        const lines = [
          partLine(part, MOST, { waste: '50', alternates: [{ itemId: made.id, ratio: MOST }] }),
          { kind: 'labour' as const, text: 'HUGE', basis: 'per-run' as const, minutes: MOST, rateId: 1 },
          { kind: 'charge' as const, text: 'HUGE', basis: 'per-output' as const, amount: MOST },
        ];
        const [draft] = revisions;
        const params = { id: draft?.id ?? 0 };
        const body = { version: draft?.version ?? 0, outputQuantity: '1', lines };
        await server.call(api.saveRevision, { params, body });
        await server.call(api.putInUse, { params, body: { version: (draft?.version ?? 0) + 1 } });
        await shop.plan(dear, '1', '2026-12-24');
      },
    ],
  ];

  async function rows(): Promise<ReadonlySet<string>> {
    const told = new Set<string>();
    const faults: string[] = [];
    for (const [url, { status, text }] of await everyAnswer(server))
      if (status === 200) ordinaryRows(JSON.parse(text), told, url);
      else faults.push(`${url}: ${status} ${text}`);
    expect(faults).toEqual([]);
    return told;
  }

  it.each(kinds)('changes nothing but its own row, on any list: %s', async (_, make) => {
    before ??= await rows();
    await make();
    const after = await rows();
    expect(before.size).toBeGreaterThan(100);
    expect([...before].filter((row) => !after.has(row))).toEqual([]);
  });
});
