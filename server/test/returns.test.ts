import { api, type Item, type ReturnDetail, returnPicturePath } from '@yosegi/contract';
import sharp from 'sharp';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, standing, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let [jar, box, wax, scale, kit]: Item[] = [];
let customerId: number;
let reasonId: number;
const now = new Date('2026-11-23T09:00:00');

beforeAll(async () => {
  server = await TestServer.start(undefined, { now: () => new Date(now) });
  shop = await Workshop.open(server);
  jar = await shop.item('JAR');
  box = await shop.item('BOX');
  wax = await shop.item('WAX', { tracking: 'lot' });
  scale = await shop.item('SCALE', { tracking: 'serial', bin: 1, returnDays: 14 });
  kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
  await shop.receive(jar, '100', '1');
  await shop.receive(box, '100', '2');
  await shop.receive(wax, '4', '3', 0, { lot: 'L1', bestBefore: '2027-01-01' });
  await shop.receive(wax, '90', '3.5', 0, { lot: 'L2', bestBefore: '2027-02-01' });
  await shop.receive(scale, '1', '80', 1, { serials: ['S1'] });
  await shop.receive(scale, '1', '95', 1, { serials: ['S2'] });
  const draft = await server.call(api.createDefinition, { body: { itemId: kit.id } });
  const lines = [partLine(jar, '2', { alternates: [{ itemId: box.id, ratio: '0.5' }] }), partLine(wax, '2')];
  const params = { id: draft.id };
  const body = { version: draft.version, outputQuantity: '1', lines };
  const { version } = await server.call(api.saveRevision, { params, body });
  await server.call(api.putInUse, { params, body: { version } });
  await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'listed' });
  customerId = await shop.customer('LARK', { returnDays: 30 });
  reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

/** Sells and ships all of it. */
async function ship(lines: Parameters<Workshop['sell']>[1], serials: string[] = []) {
  const order = await shop.sell(customerId, lines);
  const sent = await server.call(api.shipOrder, {
    params: { id: order.id },
    body: {
      version: order.version,
      lines: order.lines.map(({ id, quantity, parts }) => ({
        lineId: id,
        quantity,
        parts: serials.length > 0 ? parts.map((part) => ({ partId: part.id, serials, binId: shop.bin(1) })) : [],
      })),
    },
  });
  return { order, shipmentId: sent.id, lineId: order.lines[0]?.id ?? 0 };
}
type Sent = Awaited<ReturnType<typeof ship>>;
const back = ({ shipmentId, lineId }: Sent, quantity: string, more: object = {}) => ({
  body: { arrived: true, lines: [{ shipmentId, lineId, quantity, reasonId, condition: 'used' as const, ...more }] },
});
const read = (id: number) => server.call(api.return, { params: { id } });
const arrive = async (sent: Sent, quantity: string, more: object = {}) =>
  read((await server.call(api.announceReturn, back(sent, quantity, more))).id);
const pieces = ({ lines }: ReturnDetail) => lines.flatMap((line) => line.pieces);
const settle = (deeds: object[]) => ({ body: { deeds } }) as never;
const value = async (item: Item | undefined) => (await shop.stockOf(item as Item)).value;

/** What an order comes to as a job of its own. */
async function costOf(id: number) {
  const { tag } = await server.call(api.setJobTag, { body: { kind: 'order', id, jobTag: `Job ${id}` } });
  return Number((await server.call(api.job, { query: { tag } })).cost);
}

describe('goods that come back', () => {
  it('come in at exactly what they left with, are held, and undone are where they were', async () => {
    const before = await shop.stockOf(jar as Item);
    const sent = await ship([{ itemId: jar?.id ?? 0, quantity: '3', price: '5' }]);
    const [line] = await server.call(api.returnable, { query: { q: sent.order.number } });
    expect(line).toMatchObject({ shipped: '3', returned: '0', left: '3', price: '5', tooLate: null, isKit: false });
    const here = await arrive(sent, '2');
    expect(here).toMatchObject({
      state: 'waiting',
      waiting: 1,
      value: '2',
      owed: '8',
      what: '2 × The JAR',
      bin: 'Returns',
    });
    expect(await shop.stockOf(jar as Item)).toMatchObject({ onHand: '99', held: '2', free: '97', value: '99' });
    const more = await server.refused(api.announceReturn, back(sent, '2'));
    expect(more).toMatchObject({ code: 'more-than-shipped', field: 'lines.0.quantity', facts: { left: '1' } });
    // What came back has left: the shipment cannot be undone while it is here.
    const undo = (id: number) => ({ params: { id }, body: {} });
    expect(await server.refused(api.undoDocument, undo(sent.shipmentId))).toMatchObject({
      code: 'comes-back',
      detail: expect.stringContaining('has returned some of this'),
    });
    await server.call(api.undoDocument, undo(here.document?.id ?? 0));
    expect(await read(here.id)).toMatchObject({ state: 'announced', lines: [{ pieces: [] }] });
    await server.call(api.callOffReturn, {
      params: { id: here.id },
      body: { version: (await read(here.id)).version, because: 'It was another parcel' },
    });
    await server.call(api.undoDocument, undo(sent.shipmentId));
    expect(await shop.stockOf(jar as Item)).toMatchObject({ value: before.value, onHand: before.onHand });
  });

  it('are announced, taken in as many as came, and not twice', async () => {
    const sent = await ship([{ itemId: jar?.id ?? 0, quantity: '4', price: '5' }]);
    const announce = { body: { ...back(sent, '3').body, arrived: false, expectedOn: '2026-11-30' } };
    const { id, version } = await server.call(api.announceReturn, announce);
    const announced = await read(id);
    expect(announced).toMatchObject({ state: 'announced', document: null, expectedOn: '2026-11-30' });
    const label = await server.did('labelJob', api.createLabelJob, { body: { of: { returnId: id } } });
    expect(label.labels).toMatchObject([
      { text: announced.number, lines: [expect.stringContaining(`${announced.number} from LARK`)] },
    ]);
    expect(await shop.stockOf(jar as Item)).toMatchObject({ held: '0', coming: '0' });
    const twice = { body: { ...back(sent, '2').body, arrived: false } };
    expect(await server.refused(api.announceReturn, twice)).toMatchObject({ code: 'more-than-shipped' });
    const found = await server.call(api.returnable, { query: { q: sent.order.number } });
    expect(found[0]?.announced).toEqual([{ id, number: (await read(id)).number, quantity: '3' }]);
    const arrived = { params: { id }, body: { version, lines: back(sent, '4').body.lines } };
    await server.call(api.arriveReturn, arrived);
    expect(await server.refused(api.arriveReturn, arrived)).toMatchObject({ code: 'wrong-state' });
    expect(await read(id)).toMatchObject({ state: 'waiting', value: '4' });
    const [piece] = pieces(await read(id));
    const shelf = { pieceId: piece?.id, quantity: '4', outcome: 'shelf', binId: shop.bin(2) };
    await server.call(api.settleReturns, settle([shelf]));
    expect(await server.refused(api.settleReturns, settle([shelf]))).toMatchObject({
      code: 'more-than-waiting',
      field: 'deeds.0.quantity',
    });
    expect(await read(id)).toMatchObject({ state: 'settled', waiting: 0 });
    expect((await server.call(api.waitingReturns, {})).returns).toEqual([]);
  });

  it('of a kit come apart as they left on that line, swaps and lots included, and what is missing is written off', async () => {
    const contents = [{ position: 0, itemId: box?.id ?? 0, amount: '1' }];
    const sent = await ship([{ itemId: kit?.id ?? 0, quantity: '3', contents, price: '20' }]);
    const left = await costOf(sent.order.id);
    // Three boxes at 2.00, and of the wax four of the early lot and two of the late one, at the average.
    const here = await arrive(sent, '2', { condition: 'incomplete' });
    expect(pieces(here).map(({ code, lot, quantity, insteadOf }) => [code, lot, quantity, insteadOf])).toEqual([
      ['BOX', null, '2', 'The JAR'],
      ['WAX', 'L1', '4', null],
    ]);
    expect(here.lines[0]).toMatchObject({ isKit: true, owed: '28', lost: '0' });
    const [boxes, lots] = pieces(here);
    const worth = [await value(box), await value(wax)];
    const { documents } = await server.call(
      api.settleReturns,
      settle([
        { pieceId: boxes?.id, quantity: '1', outcome: 'shelf' },
        { pieceId: boxes?.id, quantity: '1', outcome: 'missing' },
        { pieceId: lots?.id, quantity: '3', outcome: 'shelf', binId: shop.bin(2) },
        { pieceId: lots?.id, quantity: '1', outcome: 'not-ours', note: 'A candle by someone else' },
      ]),
    );
    const quarter = Number(lots?.value) / 4;
    const after = await read(here.id);
    expect(after).toMatchObject({ state: 'settled', lines: [{ lost: String(Number((2 + quarter).toFixed(6))) }] });
    expect(await costOf(sent.order.id)).toBeCloseTo(left - Number(here.value) + 2 + quarter, 5);
    expect(Number(worth[0]) - Number(await value(box))).toBeCloseTo(2, 6);
    expect(await standing(server, wax as Item)).toContain('B1 L1 3');
    const figures = await server.call(api.returnFigures, {});
    expect(figures.parts.map(({ code, missing, notOurs }) => [code, missing, notOurs])).toEqual([
      ['WAX', '0', '1'],
      ['BOX', '1', '0'],
    ]);
    await server.call(api.undoDocument, { params: { id: documents[0]?.id ?? 0 }, body: {} });
    expect([await value(box), await value(wax)]).toEqual(worth);
    expect(await read(here.id)).toMatchObject({ state: 'waiting', waiting: 2, lines: [{ lost: '0' }] });
    // The rest of the line: what is left of each part, to the last millionth.
    const rest = await arrive(sent, '1');
    expect(pieces(rest).map(({ code, lot, quantity }) => [code, lot, quantity])).toEqual([
      ['BOX', null, '1'],
      ['WAX', 'L2', '2'],
    ]);
    const shipment = await server.call(api.shipment, { params: { id: sent.shipmentId } });
    expect((Number(here.value) + Number(rest.value)).toFixed(6)).toBe(Number(shipment.cost).toFixed(6));
    await server.call(
      api.settleReturns,
      settle(
        [...pieces(here), ...pieces(rest)].map(({ id, waiting }) => ({
          pieceId: id,
          quantity: waiting,
          outcome: 'shelf',
        })),
      ),
    );
  });

  it('of a kit going back to the customer as a whole, and may come again', async () => {
    const sent = await ship([{ itemId: kit?.id ?? 0, quantity: '1', price: '20' }]);
    const here = await arrive(sent, '1', { condition: 'as new' });
    const away = (own: ReturnDetail) =>
      pieces(own).map(({ id, waiting }) => ({ pieceId: id, quantity: waiting, outcome: 'sent-back' }));
    const [first, ...others] = away(here);
    const part = await server.refused(api.settleReturns, settle([first ?? {}]));
    expect(part).toMatchObject({ code: 'kit-goes-whole', field: 'deeds.0.quantity' });
    const half = settle([{ ...first, quantity: '1' }, ...others]);
    expect(await server.refused(api.settleReturns, half)).toMatchObject({ code: 'kit-goes-whole' });
    await server.call(api.settleReturns, settle(away(here)));
    expect(await read(here.id)).toMatchObject({ state: 'settled', owed: '0' });
    const again = await arrive(sent, '1', { condition: 'as new' });
    expect(again).toMatchObject({ value: here.value, owed: '20' });
    const good = (own: ReturnDetail) =>
      pieces(own).map(({ id, waiting }) => ({ pieceId: id, quantity: waiting, outcome: 'shelf' }));
    await server.call(api.settleReturns, settle(good(again)));
    // Of two kits on a line one may go back: half of every part, whatever becomes of the other halves.
    const two = await ship([{ itemId: kit?.id ?? 0, quantity: '2', price: '20' }]);
    const both = await arrive(two, '2', { condition: 'as new' });
    const halves = pieces(both).map(({ id, quantity }) => ({ pieceId: id, quantity: String(Number(quantity) / 2) }));
    const [torn, ...rest] = halves.map((deed) => ({ ...deed, outcome: 'sent-back' }));
    const notAll = settle([torn ?? {}, ...rest.map((deed) => ({ ...deed, outcome: 'shelf' }))]);
    expect(await server.refused(api.settleReturns, notAll)).toMatchObject({ code: 'kit-goes-whole' });
    await server.call(api.settleReturns, settle(halves.map((deed) => ({ ...deed, outcome: 'sent-back' }))));
    expect(await read(both.id)).toMatchObject({ state: 'waiting', owed: '20' });
    const figures = await server.call(api.returnable, { query: { q: two.order.number } });
    expect(figures).toMatchObject([{ returned: '1', left: '1' }]);
    const third = await arrive(two, '1', { condition: 'as new' });
    expect(pieces(third).map(({ code, quantity }) => [code, quantity])).toEqual(
      pieces(again).map(({ code, quantity }) => [code, quantity]),
    );
    await server.call(api.settleReturns, settle([...good(await read(both.id)), ...good(third)]));
    expect((await server.call(api.returnable, { query: { q: two.order.number } }))[0]?.left).toBe('0');
  });

  it('are found by their serial, refused where it never left or is back, scrapped and sent back at their own worth', async () => {
    const sent = await ship([{ itemId: scale?.id ?? 0, quantity: '2', price: '150' }], ['S1', 'S2']);
    const [found] = await server.call(api.returnable, { query: { q: 's2' } });
    expect(found).toMatchObject({ shipmentId: sent.shipmentId, serials: ['S1', 'S2'], left: '2' });
    const refused = (more: object, quantity = '1') => server.refused(api.announceReturn, back(sent, quantity, more));
    expect(await refused({})).toMatchObject({ code: 'serials-needed', field: 'lines.0.serials' });
    expect(await refused({ serials: ['S9'] })).toMatchObject({ code: 'never-left', field: 'lines.0.serials' });
    expect(await refused({ reasonId: 999, serials: ['S2'] })).toMatchObject({ field: 'lines.0.reasonId' });
    const here = await arrive(sent, '1', { serials: ['S2'], condition: 'damaged' });
    expect(here).toMatchObject({ value: '95', owed: '75' });
    expect(await refused({ serials: ['S2'] })).toMatchObject({
      code: 'returned-already',
      facts: { number: here.number },
    });
    const units = async () =>
      (await server.call(api.serialUnits, { query: { itemId: scale?.id ?? 0 } })).rows.map(
        ({ serial, state }) => `${serial} ${state}`,
      );
    expect((await units()).sort()).toEqual(['S1 sold', 'S2 returned']);
    const [piece] = pieces(here);
    await server.call(api.settleReturns, settle([{ pieceId: piece?.id, quantity: '1', outcome: 'sent-back' }]));
    expect((await units()).sort()).toEqual(['S1 sold', 'S2 sold']);
    expect(await read(here.id)).toMatchObject({ state: 'settled', owed: '0' });
    now.setDate(now.getDate() + 20);
    expect((await server.call(api.returnable, { query: { q: 'S2' } }))[0]).toMatchObject({ left: '2', tooLate: 6 });
    const again = await arrive(sent, '2');
    expect(again.lines[0]).toMatchObject({ tooLate: 6, value: '175' });
    const own = pieces(again).find(({ serial }) => serial === 'S1');
    await server.call(api.settleReturns, settle([{ pieceId: own?.id, quantity: '1', outcome: 'scrap' }]));
    expect((await units()).sort()).toEqual(['S1 scrapped', 'S2 returned']);
    expect((await read(again.id)).lines[0]).toMatchObject({ lost: '80' });
    const cannot = {
      params: { id: pieces(again).find(({ serial }) => serial === 'S2')?.id ?? 0 },
      body: { quantity: '1' },
    };
    expect(await server.refused(api.reworkReturn, cannot)).toMatchObject({ code: 'cannot-refresh' });
  });

  it('keep the worth they have there when what the shelf made of them is undone', async () => {
    const lamp = await shop.item('LAMP', { tracking: 'serial', bin: 1 });
    await shop.receive(lamp, '3', '10', 1, { serials: ['P1', 'P2', 'P3'] });
    const worth = (unitCost: string) =>
      server.call(api.revalue, { body: { lines: [{ itemId: lamp.id, unitCost }], remark: '' } });
    const undo = ({ id }: { id: number }) => server.call(api.undoDocument, { params: { id }, body: {} });
    const figures = async () => {
      const { value: all, returnedValue } = await shop.stockOf(lamp);
      return [all, returnedValue];
    };
    const dearer = await worth('15');
    const here = await arrive(await ship([{ itemId: lamp.id, quantity: '1', price: '40' }], ['P1']), '1');
    expect(await figures()).toEqual(['45', '15']);
    // It left with 15 and is held with that, though on the shelf it is 10 again.
    await undo(dearer);
    expect(await figures()).toEqual(['35', '15']);
    expect(await server.verify()).toEqual([]);
    const [piece] = pieces(here);
    const shelf = { pieceId: piece?.id, quantity: '1', outcome: 'shelf' };
    const { documents } = await server.call(api.settleReturns, settle([shelf]));
    const again = await worth('4');
    await undo({ id: documents[0]?.id ?? 0 });
    expect(await figures()).toEqual(['23', '15']);
    expect(await server.verify()).toEqual([]);
    await undo(again);
    expect(await figures()).toEqual(['35', '15']);
  });

  it('of a product come apart at what they came back with, by shares that are typed , this time only', async () => {
    const [shell, lid] = [await shop.item('SHELL'), await shop.item('LID')];
    const pot = await shop.item('POT', { source: 'made', bin: 2 });
    await shop.receive(shell, '9', '7');
    await shop.receive(lid, '9', '3');
    await shop.define(pot, [
      [shell, '1'],
      [lid, '1'],
    ]);
    const { id } = await shop.start(pot, '2');
    await shop.pickAll(id);
    const { version, outputBinId } = await server.call(api.build, { params: { id } });
    await server.call(api.finish, { params: { id }, body: { version, good: '2', outputBinId, lines: [] } });
    const sent = await ship([{ itemId: pot.id, quantity: '2', price: '30' }]);
    const here = await arrive(sent, '2');
    const [piece] = pieces(here);
    expect(piece).toMatchObject({ canApart: true, waitingValue: '20' });
    const plan = await server.call(api.apartPlan, { params: { id: pot.id }, query: { pieceId: piece?.id } });
    expect(plan.piece).toMatchObject({ number: here.number, bin: 'Returns', waiting: '2', value: '20' });
    const apart = (quantity: string, share: string | null, damaged = '0') => ({
      body: {
        itemId: pot.id,
        revisionId: plan.revisionId,
        binId: shop.bin(0),
        pieceId: piece?.id ?? 0,
        quantity,
        leftover: 'written-off' as const,
        lines: plan.lines.map(({ lineId, code }) => ({
          lineId,
          good: code === 'LID' && damaged !== '0' ? '0' : quantity,
          damaged: code === 'LID' ? damaged : '0',
          binId: shop.bin(0),
          share: code === 'SHELL' ? share : null,
        })),
      },
    });
    expect(await server.refused(api.takeApart, apart('3', null))).toMatchObject({ code: 'more-than-waiting' });
    expect(await server.refused(api.takeApart, apart('1', '100.01'))).toMatchObject({ field: 'lines.0.share' });
    const { movements, values } = await server.posted(api.takeApart, apart('1', '90', '1'));
    expect(movements.map(({ code, quantity, value: worth }) => [code, quantity, worth])).toEqual([
      ['POT', '-1', '-10'],
      ['SHELL', '1', '9'],
    ]);
    expect(values).toMatchObject([{ kind: 'written-off', amount: '-1' }]);
    expect(await costOf(sent.order.id)).toBe(1);
    const undone = await server.posted(api.takeApart, apart('1', null));
    expect(await read(here.id)).toMatchObject({ state: 'settled' });
    await server.call(api.undoDocument, { params: { id: undone.id }, body: {} });
    expect(await read(here.id)).toMatchObject({
      state: 'waiting',
      lines: [{ pieces: [{ waiting: '1', waitingValue: '10' }] }],
    });
    const shelf = { pieceId: piece?.id, quantity: '1', outcome: 'shelf' };
    await server.call(api.settleReturns, settle([shelf]));
  });

  it('are refreshed by a rework of their own, and wait again when that is undone', async () => {
    const begun = await server.call(api.createDefinition, { body: { itemId: scale?.id ?? 0, purpose: 'rework' } });
    const params = { id: begun.id };
    const lines = [partLine(scale as Item, '1'), partLine(jar as Item, '1')];
    const { version } = await server.call(api.saveRevision, {
      params,
      body: { version: begun.version, outputQuantity: '1', lines },
    });
    await server.call(api.putInUse, { params, body: { version } });
    const [waiting] = (await server.call(api.waitingReturns, {})).returns;
    const piece = pieces(waiting as ReturnDetail).find(({ serial }) => serial === 'S2');
    expect(piece).toMatchObject({ canRework: true, canApart: false });
    const rework = { params: { id: piece?.id ?? 0 }, body: { quantity: '1' } };
    const opened = await server.call(api.reworkReturn, rework);
    expect(await server.call(api.build, { params: { id: opened.buildId } })).toMatchObject({
      state: 'on-bench',
      lines: [
        { item: { code: 'SCALE' }, onBench: '1', open: '0', pieces: [{ serial: 'S2' }] },
        { item: { code: 'JAR' }, open: '1' },
      ],
    });
    expect(await read(waiting?.id ?? 0)).toMatchObject({ state: 'settled' });
    expect(await server.refused(api.reworkReturn, rework)).toMatchObject({ code: 'more-than-waiting' });
    await server.call(api.undoDocument, { params: { id: opened.documentId }, body: {} });
    expect(await read(waiting?.id ?? 0)).toMatchObject({ state: 'waiting' });
    expect((await server.call(api.build, { params: { id: opened.buildId } })).lines[0]).toMatchObject({
      onBench: '0',
      open: '1',
    });
  });

  it('say why they came, from whom, and what that cost; credit may be said otherwise', async () => {
    const [row] = (await server.call(api.returns, { query: { state: 'waiting' } })).rows;
    const detail = await read(row?.id ?? 0);
    const line = detail.lines[0];
    const credit = { params: { id: line?.id ?? 0 }, body: { version: detail.version, credit: '10' } };
    await server.call(api.creditReturn, credit);
    expect((await read(detail.id)).lines[0]).toMatchObject({ credit: '10', owed: '30' });
    expect(await server.refused(api.creditReturn, credit)).toMatchObject({ code: 'stale-save' });
    const figures = await server.call(api.returnFigures, {});
    const rows = (await server.call(api.returns, {})).rows.filter(({ arrivedAt }) => arrivedAt !== null);
    const sum = (of: (one: (typeof rows)[number]) => string) => rows.reduce((all, one) => all + Number(of(one)), 0);
    expect(Number(figures.all.owed)).toBeCloseTo(
      sum(({ owed }) => owed),
      6,
    );
    expect(Number(figures.all.value)).toBeCloseTo(
      sum(({ value: worth }) => worth),
      6,
    );
    expect(figures.customers).toMatchObject([{ name: 'LARK & Co', ...figures.all }]);
    const total = (group: { lost: string }[]) => group.reduce((all, { lost }) => all + Number(lost), 0);
    for (const group of [figures.reasons, figures.products, figures.parts])
      expect(total(group)).toBeCloseTo(Number(figures.all.lost), 6);
  });

  it('are worth what left whichever of them are undone or sent back and come again', async () => {
    const bead = await shop.item('BEAD');
    await shop.receive(bead, '1', '1.000001');
    await shop.receive(bead, '2', '1.000005');
    const sent = await ship([{ itemId: bead.id, quantity: '3', price: '2' }]);
    const here = await arrive(sent, '3');
    const scrap = (quantity: string, pieceId = pieces(here)[0]?.id) =>
      server.call(api.settleReturns, settle([{ pieceId, quantity, outcome: 'scrap' }]));
    const first = await scrap('1');
    await scrap('1');
    await server.call(api.undoDocument, { params: { id: first.documents[0]?.id ?? 0 }, body: {} });
    await scrap('2');
    expect((await read(here.id)).lines).toMatchObject([{ value: '3.000011', lost: '3.000011' }]);

    await shop.receive(bead, '1', '1.000001');
    await shop.receive(bead, '2', '1.000005');
    const again = await ship([{ itemId: bead.id, quantity: '3', price: '2' }]);
    const away = await arrive(again, '1');
    const ones = [await arrive(again, '1')];
    const sentBack = { pieceId: pieces(away)[0]?.id, quantity: '1', outcome: 'sent-back' };
    await server.call(api.settleReturns, settle([sentBack]));
    ones.push(await arrive(again, '2'));
    expect(ones.reduce((sum, one) => sum + Math.round(Number(one.value) * 1e6), 0)).toBe(3_000_011);
    for (const one of ones) await scrap(pieces(one)[0]?.quantity ?? '', pieces(one)[0]?.id);
    expect((await shop.stockOf(bead)).value).toBe('0');
  });

  it('are of the lot that was named when they were announced', async () => {
    await shop.receive(wax as Item, '3', '4', 0, { lot: 'L9', bestBefore: '2026-12-24' });
    const sent = await ship([{ itemId: wax?.id ?? 0, quantity: '5', price: '9' }]);
    const [row] = await server.call(api.returnable, { query: { q: 'L9' } });
    const [later = ''] = row?.lots.filter((lot) => lot !== 'L9') ?? [];
    expect(row).toMatchObject({
      shipmentId: sent.shipmentId,
      serials: [],
      lots: expect.arrayContaining(['L9', later]),
    });
    const announce = back(sent, '2', { lots: [later] });
    const { id, version } = await server.call(api.announceReturn, { body: { ...announce.body, arrived: false } });
    const [line] = (await read(id)).lines;
    expect(line).toMatchObject({ announced: { serials: [], lots: [later] }, withThem: { lots: row?.lots } });
    await server.call(api.arriveReturn, {
      params: { id },
      body: { version, lines: back(sent, '2', { lots: line?.announced.lots }).body.lines },
    });
    const here = await read(id);
    expect(pieces(here).map(({ lot, quantity }) => [lot, quantity])).toEqual([[later, '2']]);
    expect(here.lines[0]?.withThem).toEqual({ serials: [], lots: [] });
    const wrong = await server.refused(api.announceReturn, back(sent, '1', { lots: ['L0'] }));
    expect(wrong).toMatchObject({ code: 'never-left', field: 'lines.0.lots' });
    const [piece] = pieces(here);
    await server.call(api.settleReturns, settle([{ pieceId: piece?.id, quantity: '2', outcome: 'shelf' }]));
    const ofOrder = await server.call(api.returns, { query: { orderId: sent.order.id } });
    expect(ofOrder.rows.map((one) => one.id)).toEqual([id]);
  });

  it('lessen what their order cost and brought its job, until they are lost or sent back', async () => {
    const sent = await ship([{ itemId: jar?.id ?? 0, quantity: '4', price: '5' }]);
    await server.call(api.setJobTag, { body: { kind: 'order', id: sent.order.id, jobTag: 'Fair' } });
    const job = async () => {
      const { cost, income, margin, records } = await server.call(api.job, { query: { tag: 'fair' } });
      expect(records).toMatchObject([{ number: sent.order.number, cost, income, margin }]);
      return [cost, income, margin];
    };
    expect(await job()).toEqual(['4', '20', '16']);
    const here = await arrive(sent, '3');
    expect(await job()).toEqual(['1', '8', '7']);
    const pieceId = pieces(here)[0]?.id;
    const lost = await server.call(api.settleReturns, settle([{ pieceId, quantity: '1', outcome: 'scrap' }]));
    expect(await job()).toEqual(['2', '8', '6']);
    await server.call(api.settleReturns, settle([{ pieceId, quantity: '1', outcome: 'sent-back' }]));
    expect(await job()).toEqual(['3', '12', '9']);
    await server.call(api.settleReturns, settle([{ pieceId, quantity: '1', outcome: 'shelf' }]));
    expect(await job()).toEqual(['3', '12', '9']);
    await server.call(api.undoDocument, { params: { id: lost.documents[0]?.id ?? 0 }, body: {} });
    expect(await job()).toEqual(['2', '12', '10']);
  });

  it('keep a picture of what came, large enough to see a crack, from who may take them in', async () => {
    const { id } = await arrive(await ship([{ itemId: jar?.id ?? 0, quantity: '1', price: '5' }]), '1');
    const drawn = await sharp({ create: { width: 4000, height: 2000, channels: 3, background: '#d39a35' } })
      .png()
      .toBuffer();
    const put = (to: number, body: Buffer, key: string) =>
      server.fetch(returnPicturePath(to), {
        method: 'PUT',
        body: body as unknown as BodyInit,
        headers: { 'content-type': 'application/octet-stream', 'idempotency-key': key },
      });
    expect((await server.fetch(returnPicturePath(id))).status).toBe(404);
    const said = await (await put(id, drawn, 'a-crack-seen')).json();
    expect(await (await put(id, drawn, 'a-crack-seen')).json()).toEqual(said);
    expect((await put(id, Buffer.from('no picture'), 'only-a-text')).status).toBe(422);
    expect((await put(4711, drawn, 'to-nowhere')).status).toBe(404);
    const { picture } = await read(id);
    const kept = await server.fetch(returnPicturePath(id, picture ?? ''));
    expect(await sharp(Buffer.from(await kept.arrayBuffer())).metadata()).toMatchObject({ width: 1400, height: 700 });
    await server.call(
      api.settleReturns,
      settle([{ pieceId: pieces(await read(id))[0]?.id, quantity: '1', outcome: 'shelf' }]),
    );
  });
});
