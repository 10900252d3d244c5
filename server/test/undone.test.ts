import { api, type Item, type StockDocument } from '@yosegi/contract';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const undo = ({ id }: Pick<StockDocument, 'id'>) => server.posted(api.undoDocument, { params: { id }, body: {} });
const refusedUndo = ({ id }: Pick<StockDocument, 'id'>) =>
  server.refused(api.undoDocument, { params: { id }, body: {} });
const adjust = (item: Item, change: string, more: object = {}, bin = 0) =>
  server.posted(api.adjust, {
    body: {
      reasonId: 1,
      lines: [{ itemId: item.id, binId: shop.bin(bin), change, ...more }],
      override: { reason: 'the owner said so' },
    },
  });
const price = async (document: StockDocument, unitCost: string) => {
  const { lines } = await server.call(api.receiptPrices, { params: { id: document.id } });
  const body = { lines: lines.map(({ lineId }) => ({ lineId, unitCost })) };
  return server.posted(api.postPrices, { params: { id: document.id }, body });
};
const stock = async (item: Item) => {
  const { onHand, value, averageCost, latestCost } = await shop.stockOf(item);
  return { onHand, value, averageCost, latestCost };
};

describe('below zero', () => {
  it('the second taking is costed at the last known cost like the first, and the next receipt settles both', async () => {
    const item = await shop.item('Z-1');
    await shop.receive(item, '2', '3');
    const first = await adjust(item, '-5');
    const second = await adjust(item, '-4');
    expect([first, second].map(({ movements }) => movements[0]?.value)).toEqual(['-15', '-12']);
    expect(await stock(item)).toMatchObject({ onHand: '-7', value: '-21' });
    // 7 were taken at 3 that cost 4: 7.00 more; 3 stay at 4.
    const receipt = await shop.receive(item, '10', '4');
    expect(receipt.values.map(({ kind, amount }) => `${kind} ${amount}`)).toEqual([
      'supplier 40',
      'cost-difference -7',
    ]);
    expect(await stock(item)).toMatchObject({ onHand: '3', value: '12', averageCost: '4' });
  });

  it('a taking can be undone while more is owed than there is, and leaves what is owed at its own worth', async () => {
    const item = await shop.item('Z-2');
    await shop.receive(item, '2', '3');
    const first = await adjust(item, '-5');
    const second = await adjust(item, '-4');
    await undo(first);
    expect(await stock(item)).toMatchObject({ onHand: '-2', value: '-6' });
    await undo(second);
    expect(await stock(item)).toMatchObject({ onHand: '2', value: '6', averageCost: '3' });
    const entries = (await server.call(api.putRight, {})).filter(({ itemId }) => itemId === item.id);
    expect(entries).toEqual([]);
  });

  it('stays on the list until the very lot that is owed is there again', async () => {
    const item = await shop.item('Z-3', { tracking: 'lot' });
    await shop.receive(item, '2', '3', 0, { lot: 'L1' });
    await adjust(item, '-5', { lot: 'L1' });
    const listed = async () =>
      (await server.call(api.putRight, {})).filter(({ itemId }) => itemId === item.id).map(({ quantity }) => quantity);
    expect(await listed()).toEqual(['-3']);
    await shop.receive(item, '9', '3', 0, { lot: 'L2' });
    expect(await listed()).toEqual(['-3']);
    await shop.receive(item, '3', '3', 0, { lot: 'L1' });
    expect(await listed()).toEqual([]);
  });
});

describe('undoing', () => {
  it('a document of several items takes back each at what it brought, or nothing of it', async () => {
    const [one, two] = [await shop.item('M-1'), await shop.item('M-2')];
    await shop.receive(one, '4', '1');
    const line = { binId: shop.bin(0), unitCost: '3' };
    const receipt = await server.posted(api.receive, {
      body: {
        kind: 'receipt',
        lines: [
          { ...line, itemId: one.id, quantity: '4' },
          { ...line, itemId: two.id, quantity: '5' },
        ],
      },
    });
    const moved = await server.posted(api.transfer, {
      body: { lines: [{ itemId: two.id, fromBinId: shop.bin(0), toBinId: shop.bin(1), quantity: '1' }] },
    });
    expect(await refusedUndo(receipt)).toMatchObject({
      code: 'undo-goods-gone',
      facts: { lines: [{ code: 'M-2', wanted: '5', there: '4' }] },
    });
    expect(await stock(one)).toMatchObject({ onHand: '8', value: '16' });
    await undo(moved);
    await undo(receipt);
    expect(await stock(one)).toMatchObject({ onHand: '4', value: '4', latestCost: '1' });
    expect(await stock(two)).toMatchObject({ onHand: '0', value: '0', latestCost: null });
    expect(await refusedUndo(receipt)).toMatchObject({ code: 'already-undone' });
  });

  it('a price that was put right once more comes after that one', async () => {
    const item = await shop.item('M-5');
    const receipt = await shop.receive(item, '2', '2');
    const [first, second] = [await price(receipt, '9'), await price(receipt, '8')];
    expect(await refusedUndo(first)).toMatchObject({ code: 'undo-later-first', facts: { number: second.number } });
    await undo(second);
    await undo(first);
    const third = await price(receipt, '3');
    expect(third.values.map(({ kind, amount }) => `${kind} ${amount}`)).toEqual(['supplier 2']);
    expect(await stock(item)).toMatchObject({ onHand: '2', value: '6', latestCost: '3' });
  });

  it('a price of goods that are all gone is forgotten with it too', async () => {
    const item = await shop.item('M-6');
    const receipt = await shop.receive(item, '2', '2');
    await adjust(item, '-2');
    const later = await price(receipt, '9');
    expect(later.movements).toEqual([]);
    expect((await stock(item)).latestCost).toBe('9');
    await undo(later);
    expect((await stock(item)).latestCost).toBe('2');
  });

  it('a price difference frees the receipt, which can then be undone itself', async () => {
    const item = await shop.item('M-3');
    const receipt = await shop.receive(item, '5', '2');
    const later = await price(receipt, '3');
    expect(await refusedUndo(receipt)).toMatchObject({ code: 'undo-later-first', facts: { number: later.number } });
    await undo(later);
    await undo(receipt);
    expect(await stock(item)).toMatchObject({ onHand: '0', value: '0', latestCost: null });
  });

  it('is refused when the worth that came has been used up since', async () => {
    const item = await shop.item('M-4');
    await shop.receive(item, '10', '1');
    const dear = await shop.receive(item, '10', '9');
    // At the average of 5 these 15 took 75 of the 100: the 90 that came are not all here any more.
    await adjust(item, '-9');
    expect(await refusedUndo(dear)).toMatchObject({ code: 'undo-value-gone' });
    expect(await stock(item)).toMatchObject({ onHand: '11', value: '55' });
  });
});

describe('the worth of a serial', () => {
  const costs = async (item: Item) =>
    (await server.call(api.serials, { params: { id: item.id } })).rows.map(({ code, cost }) => `${code} ${cost}`);

  it('is never less than nothing, however much less the goods turn out to cost', async () => {
    const item = await shop.item('S-1', { tracking: 'serial' });
    const receipt = await shop.receive(item, '2', '10', 0, { serials: ['A', 'B'] });
    await server.posted(api.revalue, { body: { lines: [{ itemId: item.id, unitCost: '4' }] } });
    // 2 × 10 said to be 2 × 1: 18 less, of which each serial can give 4.
    const posted = await price(receipt, '1');
    expect(await costs(item)).toEqual(['A 0', 'B 0']);
    expect(posted.values.map(({ kind, amount }) => `${kind} ${amount}`)).toEqual([
      'supplier -18',
      'cost-difference 10',
    ]);
    expect(await stock(item)).toMatchObject({ onHand: '2', value: '0' });
  });

  it('is gone with it: a price known later is a difference in cost for one that left', async () => {
    const item = await shop.item('S-2', { tracking: 'serial' });
    const receipt = await shop.receive(item, '2', '10', 0, { serials: ['C', 'D'] });
    await adjust(item, '-1', { serials: ['C'] });
    await price(receipt, '14');
    expect(await costs(item)).toEqual(['C null', 'D 14']);
    expect(await stock(item)).toMatchObject({ onHand: '1', value: '14' });
    await adjust(item, '-1', { serials: ['D'] });
    expect(await stock(item)).toMatchObject({ onHand: '0', value: '0' });
  });

  it('cannot be taken below zero, whoever allows it', async () => {
    const item = await shop.item('S-3', { tracking: 'serial' });
    await shop.receive(item, '1', '10', 0, { serials: ['E'] });
    const lines = [{ itemId: item.id, binId: shop.bin(1), change: '-1', serials: ['E'] }];
    const body = { reasonId: 1, lines, override: { reason: 'the owner said so' } };
    expect(await server.refused(api.adjust, { body })).toMatchObject({ code: 'serial-not-there' });
    expect(await costs(item)).toEqual(['E 10']);
  });
});

describe('a revaluation', () => {
  it('leaves the standard cost alone unless it is asked to set it', async () => {
    const item = await shop.item('R-1', { standardCost: '2' });
    await shop.receive(item, '3', '1');
    const revalue = (unitCost: string, more: object = {}) =>
      server.posted(api.revalue, { body: { lines: [{ itemId: item.id, unitCost }], ...more } });
    await revalue('5');
    expect((await shop.stockOf(item)).standardCost).toBe('2');
    const first = await revalue('6', { asStandard: true });
    expect(await shop.stockOf(item)).toMatchObject({ standardCost: '6', value: '18', latestCost: '1' });
    const second = await revalue('7', { asStandard: true });
    await undo(second);
    expect(await shop.stockOf(item)).toMatchObject({ standardCost: '6', value: '18' });
    await server.call(api.setPrices, {
      params: { id: item.id },
      body: { version: (await shop.stockOf(item)).version, standardCost: '8' },
    });
    // Somebody has said otherwise since: that stays.
    await undo(first);
    expect(await shop.stockOf(item)).toMatchObject({ standardCost: '8', value: '15' });
  });
});
