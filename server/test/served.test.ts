import { api, type Item } from '@yosegi/contract';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Ground } from './ground.ts';
import { partLine, TestServer } from './harness.ts';

/** Who is served, in which turn and from where, in the second place too. */
let now: Date;
let server: TestServer;
let at: Ground;
beforeEach(async () => {
  now = new Date('2026-11-23T09:00:00');
  server = await TestServer.start(undefined, { now: () => new Date(now) });
  at = await Ground.of(server);
});
afterEach(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

const sell = (lines: { item: Item; quantity: string; wantedOn?: string | null }[], more: object = {}) =>
  at.shop.sell(
    at.customerId,
    lines.map(({ item, ...line }) => ({ itemId: item.id, price: '9', wantedOn: null, ...line })),
    more,
  );
const partOf = (order: Awaited<ReturnType<typeof sell>>, line = 0) => order.lines[line]?.parts[0]?.id ?? 0;
const buildFor = async (...chosen: { partId: number; quantity: string }[]) => {
  const { builds } = await server.call(api.buildForOrders, { body: { chosen } });
  return at.read('build', builds[0]?.id ?? 0);
};
const finish = async (id: number, good: string, more: object = {}) => {
  const { version, outputBinId, state } = await at.read('build', id);
  if (state === 'planned') {
    await server.call(api.startBuild, { params: { id }, body: { version } });
    await at.shop.pickAll(id);
  }
  const body = { version: (await at.read('build', id)).version, good, outputBinId, lines: [], ...more };
  return server.call(api.finish, { params: { id }, body });
};

describe('what a build is making for an order', () => {
  it('is picked from no shelf meanwhile, and the rest of the order is', async () => {
    await at.shop.receive(at.box, '9', '5');
    const order = await sell([{ item: at.box, quantity: '5' }]);
    await buildFor({ partId: partOf(order), quantity: '5' });
    expect((await server.call(api.pickPlan, {})).goals).toEqual([]);
    const more = await sell([{ item: at.box, quantity: '5' }]);
    await buildFor({ partId: partOf(more), quantity: '3' });
    const { goals } = await server.call(api.pickPlan, {});
    expect(goals).toMatchObject([{ kind: 'order', id: more.id }]);
    const { id } = await server.call(api.makeRun, { body: { goals: [{ kind: 'order', id: more.id }] } });
    expect((await server.call(api.pickRun, { params: { id } })).stops).toMatchObject([{ quantity: '2' }]);
  });

  it('is no more than the order still needs when a finish is undone', async () => {
    const order = await sell([{ item: at.box, quantity: '5' }]);
    const build = await buildFor({ partId: partOf(order), quantity: '5' });
    const { id: finishId } = await finish(build.id, '5');
    const params = { id: order.id };
    await server.call(api.unpackOrder, { params, body: { lines: [{ partId: partOf(order), quantity: '3' }] } });
    const { version, lines, customerId } = await at.read('order', order.id);
    const fewer = [{ id: lines[0]?.id ?? 0, itemId: at.box.id, quantity: '2', price: '9' }];
    await server.call(api.saveOrder, { params, body: { customerId, lines: fewer, version } });
    await server.call(api.undoDocument, { params: { id: finishId }, body: {} });
    expect((await at.read('build', build.id)).orders).toMatchObject([{ quantity: '2', kept: '0' }]);
  });
});

describe('two takings of one part', () => {
  it('are refused together where one of them is too many, and take what there is otherwise', async () => {
    const { id, lines } = await at.onBench('3');
    const part = lines.find(({ item }) => item?.id === at.pin.id);
    await at.shop.receive(at.pin, '2', '1', 1);
    const pick = (first: string, second: string) => ({
      params: { id },
      body: {
        lines: [
          { lineId: part?.id ?? 0, binId: at.bin(), quantity: first },
          { lineId: part?.id ?? 0, binId: at.bin(1), quantity: second },
        ],
      },
    });
    expect(await server.refused(api.pick, pick('5', '2'))).toMatchObject({
      code: 'more-than-open',
      field: 'lines.1.quantity',
    });
    // Each is there for itself, both together are not.
    expect(
      await server.refused(api.pick, {
        params: { id },
        body: {
          lines: [
            { lineId: part?.id ?? 0, binId: at.bin(1), quantity: '2' },
            { lineId: part?.id ?? 0, binId: at.bin(1), quantity: '1' },
          ],
        },
      }),
    ).toMatchObject({ code: 'stock-short' });
    await server.call(api.pick, pick('4', '2'));
    expect((await at.read('build', id)).lines.find(({ item }) => item?.id === at.pin.id)).toMatchObject({ open: '0' });
  });
});

describe('a lot that goes first', () => {
  it('in another store does not stand in the way of taking one here', async () => {
    const wax = await at.item({ tracking: 'lot' });
    const { id: storeId } = await server.call(api.createStore, { body: { code: 'FAR', name: 'Far store' } });
    const far = await server.call(api.createBin, { params: { id: storeId }, body: { code: 'F1', pickingOrder: 1 } });
    const line = { itemId: wax.id, quantity: '5', unitCost: '2' };
    const early = { ...line, binId: far.id, lot: 'EARLY', bestBefore: '2027-01-01' };
    const late = { ...line, binId: at.bin(), lot: 'LATE', bestBefore: '2027-06-01' };
    await server.call(api.receive, { body: { kind: 'receipt', lines: [early, late] } });
    const order = await sell([{ item: wax, quantity: '4' }]);
    const goals = [{ kind: 'order' as const, id: order.id }];
    const { id } = await server.call(api.makeRun, { body: { goals, storeId: at.shop.store.id } });
    const [stop] = (await server.call(api.pickRun, { params: { id } })).stops;
    expect(stop).toMatchObject({ lot: 'LATE', quantity: '4' });
    const [own] = stop?.lines ?? [];
    const taken = { kind: 'order' as const, id: order.id, lineId: own?.lineId ?? 0, quantity: '4', lot: 'LATE' };
    await server.call(api.pickOnRun, { params: { id }, body: { lines: [{ ...taken, binId: at.bin() }] } });
    expect((await at.read('order', order.id)).lines[0]).toMatchObject({ inParcel: '4' });
  });
});

describe('an order that gives way', () => {
  it('waits until the day it gives way to, and never comes forward by it', async () => {
    const nail = await at.stocked('5');
    const first = await sell([{ item: nail, quantity: '5' }], { wantedOn: '2026-12-04' });
    const second = await sell([{ item: nail, quantity: '5' }], { wantedOn: '2026-12-10' });
    const ready = async () =>
      Promise.all([first, second].map(async ({ id }) => (await at.read('order', id)).outlook === 'ready'));
    expect(await ready()).toEqual([true, false]);
    const giveWay = async (order: typeof first, turnOn: string | null) => {
      const { version, wantedOn, lines } = await at.read('order', order.id);
      const kept = [{ id: lines[0]?.id ?? 0, itemId: nail.id, quantity: '5', price: '9' }];
      const body = { customerId: at.customerId, version, wantedOn, turnOn, lines: kept };
      await server.call(api.saveOrder, { params: { id: order.id }, body });
    };
    // A day before the one it is wanted on would be pushing in.
    await giveWay(second, '2026-12-01');
    expect(await ready()).toEqual([true, false]);
    await giveWay(first, '2026-12-11');
    expect(await ready()).toEqual([false, true]);
  });
});

describe('a stop that somebody is at', () => {
  const walk = async () => {
    const { params, stop } = await at.run();
    const claim = () => server.call(api.claimStop, { params, body: { stop: stop?.key ?? '' } });
    const claims = async () => (await server.call(api.pickRun, { params })).claims;
    return { params, stop, claim, claims };
  };

  it.each([
    [9, 59, 'stop-taken'],
    [10, 0, null],
  ])('is theirs for ten minutes: after %s:%s', async (minutes, seconds, code) => {
    const { params, stop, claim } = await walk();
    await claim();
    now.setMinutes(now.getMinutes() + minutes, now.getSeconds() + seconds);
    await server.signIn(2);
    const again = { params, body: { stop: stop?.key ?? '' } };
    if (code) expect(await server.refused(api.claimStop, again)).toMatchObject({ code });
    else expect(await server.call(api.claimStop, again)).toEqual({ stop: stop?.key });
  });

  it('is theirs for ten minutes more when they come back to it after these ran out', async () => {
    const { params, stop, claim } = await walk();
    await claim();
    now.setMinutes(now.getMinutes() + 12);
    await claim();
    now.setMinutes(now.getMinutes() + 9);
    await server.signIn(2);
    const again = { params, body: { stop: stop?.key ?? '' } };
    expect(await server.refused(api.claimStop, again)).toMatchObject({ code: 'stop-taken' });
  });
});

describe('a bin in which nothing was found', () => {
  it('is passed with all its lots, until it is counted', async () => {
    const wax = await at.item({ tracking: 'lot' });
    for (const [lot, bin] of [
      ['A', 0],
      ['B', 0],
      ['C', 1],
    ] as const)
      await at.shop.receive(wax, '2', '2', bin, { lot });
    const order = await sell([{ item: wax, quantity: '5' }]);
    const { id } = await server.call(api.makeRun, { body: { goals: [{ kind: 'order', id: order.id }] } });
    const params = { id };
    const lots = async () => (await server.call(api.pickRun, { params })).stops.map(({ lot }) => lot);
    expect(await lots()).toEqual(['A', 'B', 'C']);
    await server.call(api.notThere, { params, body: { binId: at.bin(), itemId: wax.id, lot: 'A' } });
    expect(await lots()).toEqual(['B', 'C']);
    await server.call(api.notThere, { params, body: { binId: at.bin(), itemId: wax.id, lot: null } });
    expect(await lots()).toEqual(['C']);
  });
});

describe('two lots of one item in one bin', () => {
  it('are taken one after the other for two lines of one order, and each line says which it got', async () => {
    const wax = await at.item({ tracking: 'lot' });
    await at.shop.receive(wax, '3', '2', 0, { lot: 'A', bestBefore: '2027-01-01' });
    await at.shop.receive(wax, '3', '2', 0, { lot: 'B', bestBefore: '2027-02-01' });
    const order = await sell([
      { item: wax, quantity: '2' },
      { item: wax, quantity: '3' },
    ]);
    const { id } = await server.call(api.makeRun, { body: { goals: [{ kind: 'order', id: order.id }] } });
    const run = await server.call(api.pickRun, { params: { id } });
    expect(run.stops.map(({ lot, quantity, lines }) => [lot, quantity, lines.map((line) => line.quantity)])).toEqual([
      ['A', '3', ['2', '1']],
      ['B', '2', ['2']],
    ]);
    for (const { lines, binId, lot } of run.stops)
      await server.call(api.pickOnRun, {
        params: { id },
        body: { lines: lines.map((line) => ({ ...line, binId, lot })) },
      });
    const after = await at.read('order', order.id);
    expect(after.lines.map(({ parts }) => parts[0]?.pieces.map(({ lot, quantity }) => [lot, quantity]))).toEqual([
      [['A', '2']],
      [
        ['A', '1'],
        ['B', '2'],
      ],
    ]);
  });
});

describe('a build for two orders with different days', () => {
  it('is due for the first, and what it finishes goes to whoever wants it first, by line', async () => {
    const late = await sell([{ item: at.box, quantity: '2', wantedOn: '2026-12-03' }], { wantedOn: '2026-12-20' });
    const early = await sell([{ item: at.box, quantity: '2' }], { wantedOn: '2026-12-10' });
    const build = await buildFor({ partId: partOf(early), quantity: '2' }, { partId: partOf(late), quantity: '2' });
    // The line's own day comes before the day of its order.
    expect(build).toMatchObject({ due: '2026-12-03', quantity: '4' });
    await finish(build.id, '3');
    const inParcel = async (id: number) => (await at.read('order', id)).lines[0]?.inParcel;
    expect([await inParcel(late.id), await inParcel(early.id)]).toEqual(['2', '1']);
  });

  it('leaves with time for the way, where its customer’s goods take days to arrive', async () => {
    const far = await at.shop.customer('FAR', { transportDays: 4 });
    const line = { itemId: at.box.id, quantity: '1', price: '9' };
    const order = await at.shop.sell(far, [line], { wantedOn: '2026-12-10' });
    expect(await buildFor({ partId: partOf(order), quantity: '1' })).toMatchObject({ due: '2026-12-06' });
  });
});

describe('what was given up', () => {
  it('is owed for no more: a return that was called off', async () => {
    const { id, version } = await at.returned(false);
    expect((await at.read('return', id)).owed).toBe('2.4');
    await server.call(api.callOffReturn, { params: { id }, body: { version, because: 'They keep it' } });
    const row = (await server.call(api.returns, { query: { state: 'called-off' } })).rows.find((one) => one.id === id);
    expect([(await at.read('return', id)).owed, row?.owed]).toEqual(['0', '0']);
  });
});

it('what two builds need of one part is promised once, the bench before the plan', async () => {
  const nail = await at.stocked('5');
  const product = await at.item({ source: 'made' });
  await at.define(product, [partLine(nail, '1')]);
  const planned = await at.shop.plan(product, '4', '2026-11-24');
  const { id: begunId, version } = await at.shop.plan(product, '3', '2026-12-24');
  // It comes after the other by its day, and before it once it has begun.
  await server.call(api.startBuild, { params: { id: begunId }, body: { version, override: { reason: 'First' } } });
  const lack = async (id: number) => (await at.read('build', id)).lines[0];
  expect([(await lack(begunId))?.open, (await lack(planned.id))?.open]).toEqual(['3', '4']);
  const { rows } = await server.call(api.builds, { query: { state: 'open' } });
  const waiting = (id: number) => rows.find((row) => row.id === id)?.waiting.map(({ short }) => short);
  expect([waiting(begunId), waiting(planned.id)]).toEqual([[], ['2']]);
});

it('what feeds an order is named by itself, not by its line: a purchase order of two lines, a build, and for whom', async () => {
  const [nail, made] = [await at.item(), await at.item({ source: 'made' })];
  await at.define(made, [partLine(at.pin, '1')]);
  const lines = [at.pin, nail].map(({ id }) => ({ itemId: id, quantity: '5', price: '1', wantedOn: '2026-12-01' }));
  const bought = await at.shop.order({ supplierId: at.supplierId, lines }, 'print');
  expect(bought.lines[1]?.id).not.toBe(bought.id);
  const build = await at.shop.plan(made, '4');
  const order = await at.shop.sell(at.customerId, [
    { itemId: nail.id, quantity: '3', price: '1' },
    { itemId: made.id, quantity: '2', price: '1' },
  ]);
  const pegs = (kind: 'order' | 'build' | 'purchase', id: number) => server.call(api.pegs, { params: { kind, id } });
  const named = ({ kind, id, number }: { kind: string; id: number; number: string }) => [kind, id, number];
  expect((await pegs('order', order.id)).needs.flatMap(({ by }) => by.map(named))).toEqual([
    ['purchase', bought.id, bought.number],
    ['build', build.id, build.number],
  ]);
  for (const feeds of [(await pegs('build', build.id)).feeds, (await pegs('purchase', bought.id)).feeds])
    expect(feeds.map((one) => [...named(one), one.who])).toContainEqual(['order', order.id, order.number, 'LARK & Co']);
});

it('what is missing to build for an order is what it takes, though its shelf is below zero', async () => {
  const nail = await at.item();
  await at.shop.receive(nail, '1', '1');
  const product = await at.item({ source: 'made' });
  await at.define(product, [partLine(nail, '2')]);
  const line = { itemId: nail.id, binId: at.bin(), change: '-4', unitCost: null };
  const override = { reason: 'Counted' };
  await server.call(api.adjust, { body: { reasonId: await at.reason('adjustment'), lines: [line], override } });
  const { id } = await at.order(product, '5');
  const { missing } = await server.call(api.lookToBuild, { body: { orderIds: [id] } });
  expect(missing).toMatchObject([{ itemId: nail.id, short: '10' }]);
});
