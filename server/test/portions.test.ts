import { api, type Item, type ReturnDetail } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

/** Returns of one line that are announced, arrive in portions and conditions, are undone and come again. */
describe('portions of a line that come back', () => {
  let server: TestServer;
  let shop: Workshop;
  let [jar, scale, kit, bead]: Item[] = [];
  let customerId: number;
  let reasonId: number;

  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    jar = await shop.item('JAR');
    bead = await shop.item('BEAD');
    scale = await shop.item('SCALE', { tracking: 'serial', bin: 1 });
    kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
    await shop.receive(jar, '400', '1');
    await shop.receive(scale, '3', '80', 1, { serials: ['SQ-001', 'SQ-002', 'SQ-003'] });
    const draft = await server.call(api.createDefinition, { body: { itemId: kit.id } });
    const params = { id: draft.id };
    const lines = [partLine(jar, '2')];
    const { version } = await server.call(api.saveRevision, {
      params,
      body: { version: draft.version, outputQuantity: '1', lines },
    });
    await server.call(api.putInUse, { params, body: { version } });
    await shop.behave(kit, { made: 'packed-per-order' });
    customerId = await shop.customer('LARK');
    reasonId = (await server.call(api.reasons, {})).find(({ usedFor }) => usedFor === 'return')?.id ?? 0;
  });
  afterEach(async () => expect(await server.verify()).toEqual([]));
  afterAll(() => server.close());

  async function ship(item: Item | undefined, quantity: string, serials: string[] = []) {
    const order = await shop.sell(customerId, [{ itemId: item?.id ?? 0, quantity, price: '20' }]);
    const parts =
      serials.length > 0 ? [{ partId: order.lines[0]?.parts[0]?.id ?? 0, serials, binId: shop.bin(1) }] : [];
    const lineId = order.lines[0]?.id ?? 0;
    const body = { version: order.version, lines: [{ lineId, quantity, parts }] };
    const { id } = await server.call(api.shipOrder, { params: { id: order.id }, body });
    return { order, shipmentId: id, lineId };
  }
  type Sent = Awaited<ReturnType<typeof ship>>;
  const of = ({ shipmentId, lineId }: Sent, quantity: string, more: object = {}) => ({
    shipmentId,
    lineId,
    quantity,
    reasonId,
    condition: 'as new' as const,
    ...more,
  });
  const read = (id: number) => server.call(api.return, { params: { id } });
  const post = async (arrived: boolean, ...lines: ReturnType<typeof of>[]) =>
    read((await server.call(api.announceReturn, { body: { arrived, lines } })).id);
  const arrive = async ({ id, version }: ReturnDetail, ...lines: ReturnType<typeof of>[]) => {
    await server.call(api.arriveReturn, { params: { id }, body: { version, lines } });
    return read(id);
  };
  const undo = (id: number | undefined) => server.call(api.undoDocument, { params: { id: id ?? 0 }, body: {} });
  const pieces = ({ lines }: ReturnDetail) => lines.flatMap((line) => line.pieces);
  const cameOf = (one: ReturnDetail) => pieces(one).map(({ serial, quantity }) => serial ?? quantity);
  const settle = (...deeds: object[]) => server.call(api.settleReturns, { body: { deeds } } as never);
  const all = (one: ReturnDetail, outcome: string) =>
    settle(...pieces(one).map(({ id, waiting }) => ({ pieceId: id, quantity: waiting, outcome })));

  it('book exactly what arrived, whatever else of it is announced', async () => {
    const sent = await ship(jar, '10');
    const announced = await post(false, of(sent, '4'));
    const [row] = await server.call(api.returnable, { query: { q: sent.order.number } });
    expect(row).toMatchObject({ returned: '0', left: '10', announced: [{ id: announced.id, quantity: '4' }] });
    const here = await post(true, of(sent, '3'));
    expect(cameOf(here)).toEqual(['3']);
    // Announcements count against each other, but take nothing from what is really here.
    const tooMuch = { body: { arrived: false, lines: [of(sent, '4')] } };
    expect(await server.refused(api.announceReturn, tooMuch)).toMatchObject({
      code: 'more-than-shipped',
      facts: { left: '3' },
    });
    const more = await post(true, of(sent, '5'));
    expect(cameOf(more)).toEqual(['5']);
    const body = { version: announced.version, lines: [of(sent, '4')] };
    expect(await server.refused(api.arriveReturn, { params: { id: announced.id }, body })).toMatchObject({
      code: 'more-than-shipped',
      facts: { left: '2' },
    });
    expect(cameOf(await arrive(announced, of(sent, '2')))).toEqual(['2']);
  });

  it('book exactly what arrived after an arrival was undone, which can arrive again', async () => {
    const sent = await ship(jar, '10');
    const first = await post(true, of(sent, '4'));
    await undo(first.document?.id);
    const second = await post(true, of(sent, '3'));
    expect(cameOf(second)).toEqual(['3']);
    const again = await arrive(await read(first.id), of(sent, '4'));
    expect(again.lines).toHaveLength(1);
    expect(cameOf(again)).toEqual(['4']);
    await all(again, 'scrap');
    await undo((await read(again.id)).documents.at(-1)?.id);
    await undo(again.document?.id);
    const third = await arrive(await read(first.id), of(sent, '1'), of(sent, '5', { condition: 'used' }));
    expect(cameOf(third)).toEqual(['1', '5']);
    const figures = await server.call(api.returnable, { query: { q: sent.order.number } });
    expect(figures).toMatchObject([{ returned: '9', left: '1' }]);
  });

  it('book exactly the kits that arrived', async () => {
    const sent = await ship(kit, '10');
    await post(false, of(sent, '4'));
    expect(cameOf(await post(true, of(sent, '3')))).toEqual(['6']);
  });

  it('book the very units that arrived, whichever were announced', async () => {
    const sent = await ship(scale, '3', ['SQ-001', 'SQ-002', 'SQ-003']);
    const announced = await post(false, of(sent, '1', { serials: ['SQ-001'] }));
    expect(cameOf(await post(true, of(sent, '1', { serials: ['SQ-002'] })))).toEqual(['SQ-002']);
    const both = await arrive(
      announced,
      of(sent, '1', { serials: ['SQ-003'] }),
      of(sent, '1', { serials: ['SQ-001'], condition: 'damaged' }),
    );
    expect(cameOf(both)).toEqual(['SQ-003', 'SQ-001']);
    expect(both.lines.map(({ condition }) => condition)).toEqual(['as new', 'damaged']);
    for (const one of (await server.call(api.waitingReturns, {})).returns) await all(one, 'shelf');
  });

  it('may be of several conditions on one return, and never more than left', async () => {
    const sent = await ship(jar, '3');
    const both = await post(true, of(sent, '2'), of(sent, '1', { condition: 'damaged' }));
    expect(both.lines.map(({ quantity, condition, owed }) => [quantity, condition, owed])).toEqual([
      ['2', 'as new', '40'],
      ['1', 'damaged', '10'],
    ]);
    expect(both.value).toBe('3');
    const next = await ship(jar, '3');
    const lines = [of(next, '2'), of(next, '2', { condition: 'damaged' })];
    for (const arrived of [true, false])
      expect(await server.refused(api.announceReturn, { body: { arrived, lines } })).toMatchObject({
        code: 'more-than-shipped',
        field: 'lines.1.quantity',
        facts: { left: '1' },
      });
  });

  it('keep what they left with, apart from the average, until they are decided', async () => {
    const worth = async () => {
      const { averageCost, value, returned, returnedValue, onHand } = await shop.stockOf(bead as Item);
      return { averageCost, value, returned, returnedValue, onHand };
    };
    await shop.receive(bead as Item, '1', '20');
    const sent = await ship(bead, '1');
    await shop.receive(bead as Item, '3', '5');
    const here = await post(true, of(sent, '1'));
    expect(here.value).toBe('20');
    expect(await worth()).toEqual({ averageCost: '5', value: '35', returned: '1', returnedValue: '20', onHand: '4' });
    await shop.server.call(api.revalue, { body: { lines: [{ itemId: bead?.id ?? 0, unitCost: '6' }], remark: '' } });
    expect(await worth()).toMatchObject({ averageCost: '6', value: '38', returnedValue: '20' });
    // All of the shelf leaves: what is held keeps its own, and what is written off is what the screen said.
    await ship(bead, '3');
    expect(await worth()).toEqual({ averageCost: '6', value: '20', returned: '1', returnedValue: '20', onHand: '1' });
    const { documents } = await all(here, 'scrap');
    const { values } = await server.document(documents[0] as never);
    expect(values).toMatchObject([{ kind: 'written-off', amount: '-20' }]);
    expect(await worth()).toMatchObject({ value: '0', returned: '0', returnedValue: '0' });
    await undo(documents[0]?.id);
    await all(here, 'shelf');
    expect(await worth()).toEqual({ averageCost: '20', value: '20', returned: '0', returnedValue: '0', onHand: '1' });
    expect((await server.call(api.stockOn, { query: { day: '2026-11-23', q: 'BEAD' } })).rows).toMatchObject([
      { quantity: '1', value: '20' },
    ]);
  });

  it('cannot stay sent back no more once they have come again', async () => {
    const sent = await ship(jar, '2');
    const first = await post(true, of(sent, '2'));
    const { documents } = await settle({ pieceId: pieces(first)[0]?.id, quantity: '1', outcome: 'sent-back' });
    const again = await post(true, of(sent, '1'));
    const wayBack = { params: { id: documents[0]?.id ?? 0 }, body: {} };
    expect(await server.refused(api.undoDocument, wayBack)).toMatchObject({
      code: 'came-again',
      detail: expect.stringContaining(again.number),
    });
    await undo(again.document?.id);
    await server.call(api.undoDocument, wayBack);
    expect(pieces(await read(first.id))).toMatchObject([{ waiting: '2' }]);
  });

  it('leave a unit sold where its scrapping and its second return are undone', async () => {
    const sent = await ship(scale, '1', ['SQ-001']);
    const first = await post(true, of(sent, '1'));
    await all(first, 'sent-back');
    const second = await post(true, of(sent, '1'));
    await all(second, 'scrap');
    const state = async () =>
      (await server.call(api.serialUnits, { query: { itemId: scale?.id ?? 0, q: 'SQ-001' } })).rows[0];
    expect(await state()).toMatchObject({ state: 'scrapped' });
    await undo((await read(second.id)).documents.at(-1)?.id);
    await undo(second.document?.id);
    expect(await state()).toMatchObject({ state: 'sold', price: '20' });
    // What a unit sold for is told by the shipment that stands.
    const body = { version: (await read(second.id)).version, because: 'Not here' };
    await server.call(api.callOffReturn, { params: { id: second.id }, body });
  });

  it('tell what a unit sold for by the shipments that stand', async () => {
    const unit = await shop.item('HIVE', { tracking: 'serial', bin: 1 });
    await shop.receive(unit, '1', '50', 1, { serials: ['H-1'] });
    const first = await ship(unit, '1', ['H-1']);
    await all(await post(true, of(first, '1')), 'shelf');
    const order = await shop.sell(customerId, [{ itemId: unit.id, quantity: '1', price: '99' }]);
    const partId = order.lines[0]?.parts[0]?.id ?? 0;
    const lines = [{ lineId: order.lines[0]?.id ?? 0, quantity: '1', parts: [{ partId, serials: ['H-1'] }] }];
    const second = await server.call(api.shipOrder, {
      params: { id: order.id },
      body: { version: order.version, lines },
    });
    const sold = async () =>
      (await server.call(api.serialUnits, { query: { itemId: unit.id } })).rows.map((row) => [row.state, row.price]);
    expect(await sold()).toEqual([['sold', '99']]);
    await undo(second.id);
    expect(await sold()).toEqual([['in stock', null]]);
  });
});
