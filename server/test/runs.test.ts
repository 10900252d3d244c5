import { api, type Item, type RunDetail } from '@yosegi/contract';
import { offered } from '@yosegi/core/picking';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

const now = new Date('2026-11-23T09:00:00');
let server: TestServer;
let shop: Workshop;
let [frame, wax, scale, hive, box]: Item[] = [];
beforeAll(async () => {
  server = await TestServer.start(undefined, { now: () => new Date(now) });
  shop = await Workshop.open(server);
  frame = await shop.item('FRAME');
  wax = await shop.item('WAX', { tracking: 'lot', bin: 2 });
  scale = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
  hive = await shop.item('HIVE', { source: 'made' });
  box = await shop.item('BOX', { source: 'made' });
  await shop.receive(frame, '40', '2', 1);
  await shop.receive(wax, '6', '3', 2, { lot: 'EARLY', bestBefore: '2027-01-01' });
  await shop.receive(wax, '20', '3', 0, { lot: 'LATE', bestBefore: '2027-06-01' });
  await shop.receive(scale, '3', '80', 1, { serials: ['S1', 'S2', 'S3'] });
  await shop.define(hive, [
    [frame, '2'],
    [wax, '1'],
  ]);
  await shop.define(box, [[frame, '1']]);
});
afterAll(async () => {
  expect(await server.verify()).toEqual([]);
  await server.close();
});

type Goal = RunDetail['goals'][number];
const read = (id: number) => server.call(api.pickRun, { params: { id } });
const build = (id: number) => ({ kind: 'build' as const, id });
const order = (id: number) => ({ kind: 'order' as const, id });
const make = async (goals: Pick<Goal, 'kind' | 'id'>[]) =>
  read((await server.call(api.makeRun, { body: { goals } })).id);
const claim = (run: RunDetail, stop: string | null) => ({ params: { id: run.id }, body: { stop } });
/** A whole stop as it is asked for; of serials those that are named. */
const taking = (stop: RunDetail['stops'][number] | undefined, serials: string[] = []) => ({
  lines: (stop?.lines ?? []).map(({ kind, id, lineId, quantity }) => ({
    kind,
    id,
    lineId,
    quantity,
    binId: stop?.binId ?? 0,
    lot: stop?.lot ?? null,
    serials,
  })),
});
const pick = (run: RunDetail, body: ReturnType<typeof taking>) => ({ params: { id: run.id }, body });
const end = async (run: RunDetail) => {
  const { version } = await read(run.id);
  return server.call(api.endRun, { params: { id: run.id }, body: { version } });
};

describe('a pick run', () => {
  it('is proposed, walked in order with its goods told apart, undone and ended', async () => {
    const { id: hives } = await shop.start(hive as Item, '8');
    const customer = await shop.customer('MILL');
    const sold = await shop.sell(customer, [
      { itemId: frame?.id ?? 0, quantity: '3', price: '5' },
      { itemId: scale?.id ?? 0, quantity: '1', price: '120' },
    ]);
    const plan = await server.call(api.pickPlan, {});
    expect(plan.goals.map(({ number, name, there, lines, whole }) => [number, name, there, lines, whole])).toEqual([
      ['B-0001', '8 × The HIVE', 2, 2, true],
      [sold.number, 'MILL & Co', 2, 2, true],
    ]);
    expect(plan.proposed).toMatchObject([{ store: 'Main store', goals: [build(hives), order(sold.id)], shared: 1 }]);
    const run = await make([build(hives), order(sold.id)]);
    // The early lot stands last on the way and has to go first all the same.
    expect(run.stops.map(({ bin, lot, quantity, lines, after }) => [bin, lot, quantity, lines.length, after])).toEqual([
      ['B1', 'EARLY', '6', 1, null],
      ['A1', 'LATE', '2', 1, run.stops[0]?.key],
      ['A2', null, '19', 2, null],
      ['A2', null, '1', 1, null],
    ]);
    expect(run.goals.map(({ slot, number, place, openLines }) => [slot, number, place, openLines])).toEqual([
      ['A', 'B-0001', 'on the bench', 2],
      ['B', sold.number, 'in a new parcel', 2],
    ]);
    const labels = await server.did('labelJob', api.createLabelJob, { body: { of: { runId: run.id } } });
    expect(labels).toMatchObject({ title: `Benches and parcels of ${run.number}`, count: 2 });
    expect(labels.labels.map(({ title, lines, text }) => [title, lines, text])).toEqual([
      ['A · B-0001', ['8 × The HIVE'], 'B-0001'],
      [`B · ${sold.number}`, ['MILL & Co'], sold.number],
    ]);
    expect((await server.call(api.pickPlan, {})).proposed).toEqual([]);
    const frames = run.stops[2];
    const done = await server.call(api.pickOnRun, pick(run, taking(frames)));
    expect(done.stops).toBe(3);
    const after = await read(run.id);
    expect(after.stops.map(({ item }) => item.code)).toEqual(['WAX', 'WAX', 'SCALE']);
    expect(after.brought.map(({ quantity, item, kind }) => [kind, item.code, quantity])).toEqual([
      ['build', 'FRAME', '16'],
      ['order', 'FRAME', '3'],
    ]);
    expect(after.picks).toMatchObject([{ act: done.id, says: `The FRAME for B-0001, ${sold.number}`, undone: false }]);
    expect(after.walked).toEqual({ stops: 1, lines: 2, minutes: 0, linesPerHour: null });
    // Undone in one step, though it became two documents.
    await server.call(api.undoDocument, { params: { id: done.id }, body: {} });
    expect(await read(run.id)).toMatchObject({
      stops: run.stops,
      brought: [],
      picks: [{ undone: true }],
      walked: { stops: 0 },
    });
    const wrong = await server.refused(api.pickOnRun, pick(run, taking(run.stops[3], ['S9'])));
    expect(wrong).toMatchObject({ code: 'serial-unknown', field: 'lines.0.serials' });
    await server.call(api.pickOnRun, pick(run, taking(run.stops[3], ['S2'])));
    expect(await server.refused(api.pickOnRun, pick(run, taking(run.stops[1])))).toMatchObject({ code: 'lot-order' });
    for (const stop of run.stops.slice(0, 3)) await server.call(api.pickOnRun, pick(run, taking(stop)));
    expect(await read(run.id)).toMatchObject({ stops: [], missing: [], walked: { stops: 4, lines: 5 } });
    await end(run);
    expect(await server.refused(api.pickOnRun, pick(run, taking(run.stops[0])))).toMatchObject({ code: 'run-ended' });
    const past = await server.call(api.pickRuns, {});
    expect(past.rows).toMatchObject([{ number: 'RUN-0001', goals: [{ number: 'B-0001' }, {}], walked: { lines: 5 } }]);
  });

  it('refuses what does not exist, what is over, what is on another run, and picks for others', async () => {
    const { id } = await shop.start(box as Item, '4');
    const run = await make([build(id)]);
    const again = await server.refused(api.makeRun, { body: { goals: [build(id)] } });
    expect(again).toMatchObject({ code: 'on-another-run', field: 'goals.0.id', facts: { run: run.number } });
    const goals = (own: Pick<Goal, 'kind' | 'id'>[]) => ({ body: { goals: own } });
    expect(await server.refused(api.makeRun, goals([order(999)]))).toMatchObject({ code: 'unknown-choice' });
    const planned = await shop.plan(box as Item, '1');
    expect(await server.refused(api.makeRun, goals([build(planned.id)]))).toMatchObject({ code: 'wrong-state' });
    expect(await server.refused(api.makeRun, goals([build(id), build(id)]))).toMatchObject({ field: 'goals.1.id' });
    expect(await server.refused(api.makeRun, { body: { storeId: 99, goals: [build(id)] } })).toMatchObject({
      field: 'storeId',
    });
    const { id: other } = await shop.start(box as Item, '1');
    const stop = taking(run.stops[0]);
    const foreign = { lines: stop.lines.map((line) => ({ ...line, id: other })) };
    expect(await server.refused(api.pickOnRun, pick(run, foreign))).toMatchObject({
      code: 'not-on-run',
      facts: { number: 'B-0004' },
    });
    const tooMuch = { lines: stop.lines.map((line) => ({ ...line, quantity: '5' })) };
    expect(await server.refused(api.pickOnRun, pick(run, tooMuch))).toMatchObject({
      code: 'more-than-open',
      field: 'lines.0.quantity',
    });
    const change = { version: run.version, goals: [build(other)], confirms: true };
    await server.call(api.changeRun, { params: { id: run.id }, body: change });
    expect(await read(run.id)).toMatchObject({ confirms: true, goals: [{ number: 'B-0004' }] });
    expect(await server.refused(api.changeRun, { params: { id: run.id }, body: change })).toMatchObject({
      code: 'stale-save',
    });
    await end(run);
  });

  it('sends nobody where somebody is, and offers a stop again that was left for ten minutes', async () => {
    const { id } = await shop.start(hive as Item, '1');
    const run = await make([build(id)]);
    const [first, second] = run.stops;
    await server.call(api.claimStop, claim(run, first?.key ?? ''));
    await server.signIn(2);
    const taken = { code: 'stop-taken', detail: expect.stringContaining('Mo Owner is picking this at ') };
    expect(await server.refused(api.claimStop, claim(run, first?.key ?? ''))).toMatchObject(taken);
    expect(await server.refused(api.pickOnRun, pick(run, taking(first)))).toMatchObject(taken);
    await server.call(api.claimStop, claim(run, second?.key ?? ''));
    expect((await read(run.id)).claims.map(({ person, key }) => [person, key])).toEqual([
      ['Mo Owner', first?.key],
      ['Bo Bench', second?.key],
    ]);
    now.setMinutes(now.getMinutes() + 11);
    await server.call(api.pickOnRun, pick(run, taking(first)));
    await server.signIn(1);
    await server.call(api.claimStop, claim(run, second?.key ?? ''));
    now.setMinutes(now.getMinutes() + 3);
    await server.call(api.pickOnRun, pick(run, taking(second)));
    expect((await read(run.id)).walked).toEqual({ stops: 2, lines: 2, minutes: 3, linesPerHour: 20 });
    await end(run);
  });

  it('keeps a stop from when one first set out, and anew once ten minutes have gone', async () => {
    const { id } = await shop.start(hive as Item, '1');
    const run = await make([build(id)]);
    const key = run.stops[0]?.key ?? '';
    const sinces: (string | undefined)[] = [];
    const begun = now.getTime();
    for (const minutes of [0, 9, 1, 9]) {
      now.setMinutes(now.getMinutes() + minutes);
      await server.call(api.claimStop, claim(run, key));
      sinces.push((await read(run.id)).claims[0]?.at);
    }
    const at = (minutes: number) => new Date(begun + minutes * 60_000).toISOString();
    expect(sinces).toEqual([at(0), at(0), at(10), at(10)]);
    await end(run);
  });

  it('goes to the next bin where nothing is found, and the bin is on the list to count until it is counted', async () => {
    const nail = await shop.item('NAIL');
    await shop.receive(nail, '5', '1', 0);
    await shop.receive(nail, '9', '1', 1);
    const kit = await shop.item('KIT', { source: 'made' });
    await shop.define(kit, [[nail, '1']]);
    const { id } = await shop.start(kit, '6');
    const run = await make([build(id)]);
    expect(run.stops.map(({ bin, quantity }) => [bin, quantity])).toEqual([
      ['A1', '5'],
      ['A2', '1'],
    ]);
    const notThere = { params: { id: run.id }, body: { binId: shop.bin(0), itemId: nail.id } };
    await server.call(api.notThere, notThere);
    await server.call(api.notThere, notThere);
    const after = await read(run.id);
    expect(after.stops.map(({ bin, quantity }) => [bin, quantity])).toEqual([['A2', '6']]);
    expect(after.passed).toMatchObject([{ bin: 'A1', item: 'The NAIL', by: 'Mo Owner' }]);
    const wishes = await server.call(api.countWishes, {});
    expect(wishes).toMatchObject([{ bin: 'A1', code: 'NAIL', booked: '5', by: 'Mo Owner' }]);
    const bad = { params: { id: run.id }, body: { binId: shop.bin(2), itemId: nail.id } };
    expect(await server.refused(api.notThere, bad)).toMatchObject({ code: 'nothing-booked' });
    const count = await server.call(api.beginCount, { body: { wishes: true } });
    const { sheet, version } = await server.call(api.count, { params: { id: count.id } });
    expect(sheet.map(({ bin, code }) => [bin, code])).toEqual([['A1', 'NAIL']]);
    await server.call(api.countLine, { params: { id: sheet[0]?.id ?? 0 }, body: { counted: '4' } });
    await server.call(api.approveCount, { params: { id: count.id }, body: { version } });
    expect(await server.call(api.countWishes, {})).toEqual([]);
    expect((await read(run.id)).stops.map(({ bin, quantity }) => [bin, quantity])).toEqual([
      ['A1', '4'],
      ['A2', '2'],
    ]);
    await server.call(api.notThere, notThere);
    const wish = (await server.call(api.countWishes, {}))[0];
    await server.call(api.settleWish, { params: { id: wish?.id ?? 0 }, body: {} });
    expect((await read(run.id)).passed).toEqual([]);
    await end(run);
  });

  it('lets a listed alternate stand in for what is nowhere, counted by its ratio, and given back with it', async () => {
    const [oak, pine, elm] = [await shop.item('OAK'), await shop.item('PINE'), await shop.item('ELM')];
    await shop.receive(oak, '3', '4', 0);
    await shop.receive(pine, '30', '1', 1);
    const table = await shop.item('TABLE', { source: 'made' });
    const definition = await server.did('definition', api.createDefinition, { body: { itemId: table.id } });
    const params = { id: definition.revisions[0]?.id ?? 0 };
    const line = partLine(oak, '2', { alternates: [{ itemId: pine.id, ratio: '2' }] });
    const saved = await server.did('definition', api.saveRevision, {
      params,
      body: { version: definition.revisions[0]?.version ?? 0, outputQuantity: '1', lines: [line] },
    });
    await server.call(api.putInUse, { params, body: { version: saved.revisions[0]?.version ?? 0 } });
    const { id, version } = await shop.plan(table, '4');
    const override = { reason: 'Pine will do for the rest' };
    await server.call(api.startBuild, { params: { id }, body: { version, override } });
    const run = await make([build(id)]);
    expect(run.missing).toMatchObject([
      { quantity: '5', item: { code: 'OAK' }, standIns: [{ code: 'PINE', quantity: '30', ratio: '2' }] },
    ]);
    const lineId = run.missing[0]?.lineId ?? 0;
    const standIn = (itemId: number, quantity: string) => ({ params: { id }, body: { lineId, itemId, quantity } });
    expect(await server.refused(api.standIn, standIn(elm.id, '1'))).toMatchObject({ code: 'not-an-alternate' });
    expect(await server.refused(api.standIn, standIn(pine.id, '9'))).toMatchObject({ code: 'more-than-open' });
    const { lineId: added } = await server.call(api.standIn, standIn(pine.id, '5'));
    const after = await read(run.id);
    expect(after.missing).toEqual([]);
    expect(after.stops.map(({ item, quantity }) => [item.code, quantity])).toEqual([
      ['OAK', '3'],
      ['PINE', '10'],
    ]);
    for (const stop of after.stops) await server.call(api.pickOnRun, pick(run, taking(stop)));
    // Two of them back: one more oak is wanted again.
    await server.call(api.takeBack, { params: { id }, body: { lineId: added, quantity: '2' } });
    expect((await read(run.id)).missing).toMatchObject([{ quantity: '1', item: { code: 'OAK' } }]);
    await server.call(api.standIn, standIn(pine.id, '1'));
    const [last] = (await read(run.id)).stops;
    await server.call(api.pickOnRun, pick(run, taking(last)));
    const bench = await server.call(api.build, { params: { id } });
    const finish = { version: bench.version, good: '4', outputBinId: bench.outputBinId, lines: [] };
    await server.call(api.finish, { params: { id }, body: finish });
    const done = await server.call(api.build, { params: { id } });
    expect(done.lines.map(({ item, used, required }) => [item?.code, used, required])).toEqual([
      ['OAK', '3', '3'],
      ['PINE', '8', '8'],
      ['PINE', '2', '2'],
    ]);
    await end(run);
  });

  it('puts what the kit allows into it where its own part is nowhere, at the price that was agreed', async () => {
    const [ribbon, cord] = [await shop.item('RIBBON'), await shop.item('CORD', { bin: 2 })];
    const gift = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
    const { id: definitionId, version } = await server.call(api.createDefinition, { body: { itemId: gift.id } });
    const lines = [
      partLine(ribbon, '1', { alternates: [{ itemId: cord.id, ratio: '2' }] }),
      partLine(frame as Item, '1'),
    ];
    const params = { id: definitionId };
    const saved = await server.call(api.saveRevision, { params, body: { version, outputQuantity: '1', lines } });
    await server.call(api.putInUse, { params, body: { version: saved.version } });
    await shop.behave(gift, { made: 'packed-per-order', onOrder: 'locked', swapFor: 'listed' });
    await shop.receive(cord, '20', '0.5', 2);
    const sold = await shop.sell(await shop.customer('FENN'), [{ itemId: gift.id, quantity: '3', price: '18' }]);
    const run = await make([order(sold.id)]);
    expect(run.missing).toMatchObject([{ quantity: '3', item: { code: 'RIBBON' }, standIns: [] }]);
    const partId = run.missing[0]?.lineId ?? 0;
    const swap = (itemId: number) => ({ params: { id: sold.id }, body: { partId, itemId } });
    expect(await server.refused(api.swapPart, swap(cord.id))).toMatchObject({ code: 'kit-locked' });
    await shop.behave(gift, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'listed' });
    expect((await read(run.id)).missing).toMatchObject([{ standIns: [{ code: 'CORD', quantity: '20', ratio: '2' }] }]);
    expect(await server.refused(api.swapPart, swap(box?.id ?? 0))).toMatchObject({ code: 'not-an-alternate' });
    await server.call(api.swapPart, swap(cord.id));
    const after = await read(run.id);
    expect(after.missing).toEqual([]);
    expect(after.stops.map(({ item, quantity }) => [item.code, quantity])).toContainEqual(['CORD', '6']);
    for (const stop of after.stops) await server.call(api.pickOnRun, pick(run, taking(stop)));
    expect(await server.refused(api.swapPart, swap(ribbon.id))).toMatchObject({ code: 'not-an-alternate' });
    const left = await server.call(api.order, { params: { id: sold.id } });
    expect(left.lines[0]).toMatchObject({ price: '18' });
    await end(run);
  });

  it('brings more than is asked for only to a build that allows it', async () => {
    const { id, version } = await shop.start(box as Item, '2');
    const run = await make([build(id)]);
    const three = { lines: taking(run.stops[0]).lines.map((line) => ({ ...line, quantity: '3' })) };
    expect(await server.refused(api.pickOnRun, pick(run, three))).toMatchObject({ code: 'more-than-open' });
    await server.call(api.allowSpare, { params: { id }, body: { version, spare: true } });
    await server.call(api.pickOnRun, pick(run, three));
    expect((await server.call(api.build, { params: { id } })).lines[0]).toMatchObject({ onBench: '3', open: '0' });
    await end(run);
  });

  it('walks through all of 60 stops once, whoever of 20 is quicker', async () => {
    const parts: Item[] = [];
    for (let n = 0; n < 30; n += 1) {
      const part = await shop.item(`P${n}`);
      await shop.receive(part, '5', '1', 0);
      await shop.receive(part, '5', '1', 1);
      parts.push(part);
    }
    const cart = await shop.item('CART', { source: 'made' });
    await shop.define(
      cart,
      parts.map((part) => [part, '8'] as const),
    );
    const { id } = await shop.start(cart, '1');
    const run = await make([build(id)]);
    expect(run.stops.length).toBe(60);
    for (let n = 3; n <= 22; n += 1)
      await server.call(api.createWorker, { body: { name: `Picker ${n}`, initials: 'PI', role: 'bench' } });
    const cookies: string[] = [];
    for (let n = 3; n <= 22; n += 1) {
      await server.signIn(n);
      cookies.push(server.cookie);
    }
    const refusals = new Map<string, number>();
    const walk = async (cookie: string, personId: number) => {
      const own = Object.assign(Object.create(Object.getPrototypeOf(server)), server, { cookie }) as TestServer;
      own.fetch = (url, init = {}) => fetch(server.address + url, { ...init, headers: { ...init.headers, cookie } });
      for (;;) {
        const seen = await own.call(api.pickRun, { params: { id: run.id } });
        if (seen.stops.length === 0) return;
        const me = { personId, now, later: new Set<string>(), last: null };
        const [next] = offered(seen.stops, seen.claims, me);
        if (!next) {
          await new Promise((resolve) => setImmediate(resolve));
          continue;
        }
        try {
          await own.call(api.claimStop, claim(run, next.key), { key: crypto.randomUUID() });
          await own.call(api.pickOnRun, pick(run, taking(next)), { key: crypto.randomUUID() });
        } catch (error) {
          const code = (error as { problem?: { code: string } }).problem?.code ?? String(error);
          refusals.set(code, (refusals.get(code) ?? 0) + 1);
        }
      }
    };
    await Promise.all(cookies.map((cookie, index) => walk(cookie, index + 3)));
    await server.signIn(1);
    expect([...refusals.keys()].filter((code) => !['stop-taken', 'more-than-open'].includes(code))).toEqual([]);
    const done = await server.call(api.build, { params: { id } });
    expect(done.lines.map(({ onBench, open }) => `${onBench} ${open}`)).toEqual(parts.map(() => '8 0'));
    expect((await read(run.id)).walked).toMatchObject({ stops: 60, lines: 60 });
  });
});
