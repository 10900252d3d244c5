import { api, type Item } from '@yosegi/contract';
import fc from 'fast-check';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { partLine, TestServer, Workshop } from './harness.ts';

let server: TestServer;
let shop: Workshop;
let jar: Item;
let lid: Item;
let cord: Item;
let box: Item;
let kit: Item;
let customerId: number;

beforeAll(async () => {
  server = await TestServer.start();
  shop = await Workshop.open(server);
  jar = await shop.item('JAR', { sellPrice: '3' });
  lid = await shop.item('LID', { sellPrice: '1' });
  cord = await shop.item('CORD', { sellPrice: '2', unitId: 2 });
  box = await shop.item('BOX', { sellPrice: '5' });
  kit = await shop.item('GIFT', { source: 'made', sellPrice: '20' });
  for (const [item, cost] of [
    [jar, '1.1'],
    [lid, '0.3'],
    [cord, '0.7'],
    [box, '2'],
  ] as const)
    await shop.receive(item, '1000', cost);
  const draft = await server.call(api.createDefinition, { body: { itemId: kit.id } });
  const lines = [partLine(jar, '2', { alternates: [{ itemId: box.id, ratio: '0.5' }] }), partLine(lid, '2')];
  const params = { id: draft.id };
  const { version } = await server.call(api.saveRevision, {
    params,
    body: { version: draft.version, outputQuantity: '1', lines },
  });
  await server.call(api.putInUse, { params, body: { version } });
  await shop.behave(kit, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'listed' });
  customerId = await shop.customer('LARK');
});
afterEach(async () => expect(await server.verify()).toEqual([]));
afterAll(() => server.close());

const read = (id: number) => server.call(api.order, { params: { id } });
const line = (contents: object[] | null, more: object = {}) =>
  [{ itemId: kit.id, quantity: '3', contents, ...more }] as never;

describe('a kit on a line', () => {
  it('takes another amount and an alternate in place of a part, and says what it was', async () => {
    const order = await shop.sell(
      customerId,
      line([
        { position: 0, itemId: box.id, amount: '1' },
        { position: 1, itemId: lid.id, amount: '4' },
      ]),
    );
    expect(order.lines[0]?.parts).toMatchObject([
      { item: { code: 'BOX' }, instead: 'The JAR', required: '3', usual: '6' },
      { item: { code: 'LID' }, instead: null, required: '12', usual: '6' },
    ]);
    expect(order.lines[0]).toMatchObject({ price: '20', plannedCost: '9.6' });
    const back = { version: order.version, customerId, lines: line([], { id: order.lines[0]?.id }) };
    await server.call(api.saveOrder, { params: { id: order.id }, body: back });
    expect((await read(order.id)).lines[0]?.parts).toMatchObject([
      { item: { code: 'JAR' }, instead: null, required: '6' },
      { item: { code: 'LID' }, required: '6', usual: '6' },
    ]);
  });

  it('takes what stands in for a part by what the kit usually has of it, and no build makes the part for it any more', async () => {
    const bowl = await shop.item('BOWL', { source: 'made', sellPrice: '4' });
    await shop.define(bowl, [[jar, '1']]);
    const set = await shop.item('BOWLS', { source: 'made', sellPrice: '20' });
    const draft = await server.call(api.createDefinition, { body: { itemId: set.id } });
    const params = { id: draft.id };
    const lines = [partLine(bowl, '2', { alternates: [{ itemId: box.id, ratio: '0.5' }] }), partLine(lid, '2')];
    const sent = { version: draft.version, outputQuantity: '1', lines };
    const { version } = await server.call(api.saveRevision, { params, body: sent });
    await server.call(api.putInUse, { params, body: { version } });
    await shop.behave(set, { made: 'packed-per-order', onOrder: 'swaps', swapFor: 'listed' });
    const contents = [{ position: 0, itemId: bowl.id, amount: '4' }];
    const { id, lines: sold } = await shop.sell(customerId, [{ itemId: set.id, quantity: '3', contents }]);
    const partId = sold[0]?.parts[0]?.id ?? 0;
    const chosen = [{ partId, quantity: '12' }];
    const { builds } = await server.call(api.buildForOrders, { body: { chosen } });
    const buildsFor = async () =>
      (await server.call(api.build, { params: { id: builds[0]?.id ?? 0 } })).orders.map(({ quantity }) => quantity);
    expect(await buildsFor()).toEqual(['12']);
    await server.call(api.swapPart, { params: { id }, body: { partId, itemId: box.id } });
    expect((await read(id)).lines[0]?.parts).toMatchObject([{ item: { code: 'BOX' }, required: '3' }, {}]);
    expect(await buildsFor()).toEqual([]);
  });

  it('refuses what its switches do not allow, at the part', async () => {
    const refused = (contents: object[]) =>
      server.refused(api.createOrder, { body: { customerId, lines: line(contents) } });
    expect(await refused([{ position: 1, itemId: cord.id, amount: '1' }])).toMatchObject({
      code: 'kit-swap-unlisted',
      field: 'lines.0.contents.0.itemId',
    });
    expect(await refused([{ position: 1, itemId: lid.id, amount: '1.5' }])).toMatchObject({
      code: 'too-many-decimals',
      field: 'lines.0.contents.0.amount',
    });
    await shop.behave(kit, { onOrder: 'quantities' });
    expect(await refused([{ position: 0, itemId: box.id, amount: '1' }])).toMatchObject({ code: 'kit-no-swaps' });
    await shop.behave(kit, { onOrder: 'locked' });
    expect(await refused([{ position: 1, itemId: lid.id, amount: '3' }])).toMatchObject({ code: 'kit-locked' });
    expect(await refused([{ position: 7, itemId: lid.id, amount: '3' }])).toMatchObject({ code: 'unknown-line' });
    await shop.behave(kit, { onOrder: 'swaps', swapFor: 'anything' });
    const free = await shop.sell(customerId, line([{ position: 1, itemId: cord.id, amount: '0.25' }]));
    expect(free.lines[0]?.parts[1]).toMatchObject({ item: { code: 'CORD' }, instead: 'The LID', required: '0.75' });
  });

  it('sells at the sum of what is in it on this line, where its price comes from its parts', async () => {
    await shop.behave(kit, { price: 'parts', discount: '10' });
    const plain = await shop.sell(customerId, line(null));
    // (2 × 3 + 2 × 1) less a tenth.
    expect(plain.lines[0]).toMatchObject({ price: '7.2', priceFrom: 'contents', worth: '21.6' });
    const more = [{ position: 1, itemId: cord.id, amount: '0.5' }];
    const changed = { version: plain.version, customerId, lines: line(more, { id: plain.lines[0]?.id }) };
    await server.call(api.saveOrder, { params: { id: plain.id }, body: changed });
    expect((await read(plain.id)).lines[0]).toMatchObject({ price: '6.3', priceFrom: 'contents' });
    // A price that is agreed does not follow the catalogue.
    const { version } = await shop.stockOf(jar);
    await server.call(api.setPrices, { params: { id: jar.id }, body: { sellPrice: '9', version } });
    const again = {
      ...changed,
      version: (await read(plain.id)).version,
      lines: line(null, { id: plain.lines[0]?.id }),
    };
    await server.call(api.saveOrder, { params: { id: plain.id }, body: again });
    expect((await read(plain.id)).lines[0]).toMatchObject({ price: '6.3' });
    const look = await server.call(api.lookAhead, { body: { orderId: plain.id, lines: again.lines } });
    expect(look.lines[0]?.kit?.parts).toMatchObject([
      { item: { code: 'JAR' }, alternates: [{ item: { code: 'BOX' }, ratio: '0.5' }] },
      { item: { code: 'CORD' }, base: { code: 'LID' }, amount: '0.5', baseAmount: '2' },
    ]);
    await shop.behave(kit, { price: 'own' });
  });

  it('has the price and the margin of exactly what is in it, whatever was changed', async () => {
    await shop.behave(kit, { price: 'parts', discount: '12.5', swapFor: 'anything' });
    const goods = await Promise.all([jar, lid, cord, box].map((item) => shop.stockOf(item)));
    const micro = (text: string | null) => BigInt(Math.round(Number(text) * 1e6));
    const filling = fc.tuple(fc.nat(3), fc.integer({ min: 0, max: 40 }));
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 9 }), filling, filling, async (quantity, first, second) => {
        // Cord is measured in hundredths, the rest is counted.
        const wishes = [first, second].map(([which, n], position) => {
          const item = goods[which] ?? jar;
          return { position, item, amount: item.id === cord.id ? `${n / 100}` : `${n}` };
        });
        fc.pre(wishes.some(({ amount }) => amount !== '0'));
        const contents = wishes.map(({ position, item, amount }) => ({ position, itemId: item.id, amount }));
        const lines = [{ itemId: kit.id, quantity: `${quantity}`, contents }];
        const of = (each: (item: Item) => string | null) =>
          wishes.reduce((sum, { item, amount }) => sum + micro(amount) * micro(each(item)), 0n);
        // In millionths of a millionth, less an eighth, to the cent that is nearest.
        const cents = (of(({ sellPrice }) => sellPrice) * 7n * 2n + 8n * 10n ** 10n) / (8n * 2n * 10n ** 10n);
        const cost = (of(({ averageCost }) => averageCost) * BigInt(quantity)) / 10n ** 6n;
        const look = await server.call(api.lookAhead, { body: { customerId, lines } });
        expect(micro(look.lines[0]?.price ?? null)).toBe(cents * 10_000n);
        expect(micro(look.lines[0]?.plannedCost ?? null)).toBe(cost);
        const sold = await shop.sell(customerId, lines, { confirm: false });
        expect(micro(sold.lines[0]?.price ?? null)).toBe(cents * 10_000n);
        expect(micro(sold.worth)).toBe(cents * 10_000n * BigInt(quantity));
        expect(micro(sold.plannedCost)).toBe(cost);
      }),
      { numRuns: 25 },
    );
    await shop.behave(kit, { price: 'own', discount: '0' });
  });

  it('keeps what it took when the kit is revised, and cannot be filled anew once some has left', async () => {
    const order = await shop.sell(customerId, line([{ position: 1, itemId: lid.id, amount: '5' }]));
    const { id, version } = await server.call(api.startRevision, {
      params: { id: await shop.definitionOf(kit) },
      body: {},
    });
    const saved = await server.call(api.saveRevision, {
      params: { id },
      body: { version, outputQuantity: '1', lines: [partLine(box, '1')] },
    });
    await server.call(api.putInUse, { params: { id }, body: { version: saved.version } });
    const same = { version: order.version, customerId, lines: line(null, { id: order.lines[0]?.id }) };
    await server.call(api.saveOrder, { params: { id: order.id }, body: same });
    expect((await read(order.id)).lines[0]).toMatchObject({
      revision: 1,
      parts: [{ item: { code: 'JAR' } }, { required: '15' }],
    });
    const ship = {
      version: (await read(order.id)).version,
      lines: [{ lineId: order.lines[0]?.id ?? 0, quantity: '1' }],
    };
    const sent = await server.document(await server.call(api.shipOrder, { params: { id: order.id }, body: ship }));
    expect(sent.movements.map(({ code, quantity }) => [code, quantity])).toEqual([
      ['JAR', '-2'],
      ['LID', '-5'],
    ]);
    const other = {
      version: (await read(order.id)).version,
      customerId,
      lines: line([], { id: order.lines[0]?.id }),
    };
    expect(await server.refused(api.saveOrder, { params: { id: order.id }, body: other })).toMatchObject({
      code: 'kit-has-left',
      field: 'lines.0.contents',
    });
    const fresh = await shop.sell(customerId, line(null));
    expect(fresh.lines[0]).toMatchObject({ revision: 2, parts: [{ item: { code: 'BOX' } }] });
  });

  it('lets its parts leave by exactly what the line says, however it was changed and parted', async () => {
    const amounts = fc.record({
      first: fc.integer({ min: 0, max: 5 }),
      second: fc.integer({ min: 1, max: 5 }),
      portions: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 3 }),
    });
    await shop.behave(kit, { onOrder: 'swaps', swapFor: 'anything' });
    await fc.assert(
      fc.asyncProperty(amounts, async ({ first, second, portions }) => {
        const quantity = portions.reduce((sum, n) => sum + n, 0);
        const contents = [{ position: 0, itemId: second > 3 ? cord.id : lid.id, amount: String(first + second) }];
        const order = await shop.sell(customerId, [{ itemId: kit.id, quantity: String(quantity), contents }]);
        const left = new Map<string, number>();
        for (const portion of portions) {
          const { version, lines } = await read(order.id);
          const sent = await server.call(api.shipOrder, {
            params: { id: order.id },
            body: { version, lines: [{ lineId: lines[0]?.id ?? 0, quantity: String(portion) }] },
          });
          for (const { code, quantity: moved } of (await server.document(sent)).movements)
            left.set(code, (left.get(code) ?? 0) - Number(moved));
        }
        expect([...left]).toEqual([[second > 3 ? 'CORD' : 'LID', quantity * (first + second)]]);
        expect(await read(order.id)).toMatchObject({ standing: 'shipped' });
      }),
      { numRuns: 12 },
    );
  });
});
