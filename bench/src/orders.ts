import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, type Order } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import type { Demand, Supply } from '@yosegi/core/demand';
import type { Money, Quantity } from '@yosegi/core/number';
import { type AheadLine, lookAhead } from '@yosegi/core/orders';
import { replayed, serve } from './replay.ts';
import { median, ms, type Result } from './result.ts';

const SHIPPED = 20;
const [LINES, KITS, IN_KIT, ITEMS, OTHERS] = [40, 12, 6, 400, 150];
const FRAME = 16;
const NOTHING = { reorderPoint: null, standardCost: null, note: '' };

/** A shipment of 20 lines straight from the shelves. */
export const shippingBench = () =>
  replayed({
    name: `shipment of ${SHIPPED} lines over HTTP`,
    rounds: 60,
    most: 3,
    prepare: async (call) => {
      const { items, customerId } = await goods(call, SHIPPED);
      const lines = items.map((itemId) => ({ itemId, quantity: '1000', price: '3' }));
      const { id } = await send(call, api.createOrder, { body: { customerId, lines, confirm: true } });
      return send(call, api.order, { params: { id } });
    },
    post: (call, { id, version, lines }: Order) => {
      const body = { version, lines: lines.map((line) => ({ lineId: line.id, quantity: '1' })) };
      return send(call, api.shipOrder, { params: { id }, body });
    },
    next: (call, { id }) => send(call, api.order, { params: { id } }),
  });

/**
 * What an order of 40 lines, 12 of them kits of 6 parts, would get and whom it delays: reckoned anew at each key, beside 150
 * other orders of eight lines. The baseline beside it is the plainest float arithmetic over the same demands in turn; how
 * long the server's answer takes, with reading all of it and the way there and back, is told with it.
 */
export async function keyBench(): Promise<Result> {
  const [picture, lines, items] = [others(), typed(), prices()];
  const order = {
    source: { kind: 'order', id: OTHERS + 1 },
    wantedOn: WANTED,
    turnOn: null,
    age: 1e15,
    begun: false,
  } as const;
  const [exact, plain]: [number[], number[]] = [[], []];
  for (let key = 0; key < 60; key += 1) {
    const some = lines.map((line) => ({ ...line, quantity: ((key + 1) * 1e6) as Quantity }));
    const started = performance.now();
    const { lines: looks } = lookAhead(order, some, items, picture);
    exact.push(performance.now() - started);
    if (looks.length !== LINES) throw new Error('a line has no answer');
    const begun = performance.now();
    plainFloats(picture, some);
    plain.push(performance.now() - begun);
  }
  const [ahead, floats, answered] = [median(exact), median(plain), await answerTime()];
  return {
    name: `a key in an order of ${LINES} lines, ${KITS} of them kits`,
    measured: `${ms(ahead)} exact, ${ms(answered)} over HTTP with all it reads`,
    baseline: `${ms(floats)} in plain floats`,
    ratio: `ratio ${(ahead / floats).toFixed(1)}, ${(ahead / FRAME).toFixed(2)} of a frame`,
    promise: `within one frame of ${FRAME} ms`,
    holds: ahead <= FRAME,
  };
}

const WANTED = '2027-01-05';
const others = () => ({
  demands: Array.from({ length: OTHERS * 8 }, (_, n): Demand => {
    const id = 1 + Math.floor(n / 8);
    return {
      source: { kind: 'order', id },
      lineId: n,
      itemId: 1 + ((n * 7) % ITEMS),
      quantity: 3e6 as Quantity,
      decimals: 0,
      turn: { begun: false, priority: null, wantedOn: id % 2 ? '2027-01-10' : '2027-01-02', age: id },
      stores: null,
      alternates: [],
    };
  }),
  supplies: Array.from({ length: ITEMS }, (_, n): Supply => {
    const from = { kind: 'shelf', id: n + 1 } as const;
    return { from, itemId: n + 1, quantity: 12e6 as Quantity, on: '', storeId: n + 1, only: null };
  }),
  calendar: { today: '2026-11-25', workDays: new Set([1, 2, 3, 4, 5]) },
});
const typed = (): AheadLine[] =>
  Array.from({ length: LINES }, (_, line) => ({
    quantity: 1e6 as Quantity,
    wantedOn: null,
    gone: { shipped: 0 as Quantity, dropped: 0 as Quantity },
    packed: [],
    outputQuantity: 1e6 as Quantity,
    parts: Array.from({ length: line < KITS ? IN_KIT : 1 }, (_unused, position) => ({
      position,
      itemId: 1 + ((line * 31 + position * 17) % ITEMS),
      basis: 'per-output' as const,
      amount: 2e6 as Quantity,
      waste: 0 as AheadLine['parts'][number]['waste'],
    })),
  }));
const prices = () =>
  new Map(Array.from({ length: ITEMS }, (_, n) => [n + 1, { decimals: 0, averageCost: 1_370_000 as Money }] as const));

/** Gives out what there is by the day wanted, in floats, without rounding, days or whom it delays. */
function plainFloats({ demands, supplies }: ReturnType<typeof others>, lines: readonly AheadLine[]): number {
  const left = new Map(supplies.map((supply) => [supply.itemId, supply.quantity / 1e6]));
  const own = lines.flatMap(({ parts, quantity }) =>
    parts.map((part) => ({ itemId: part.itemId, quantity: (quantity / 1e6) * (part.amount / 1e6), wantedOn: WANTED })),
  );
  const rest = demands.map(({ itemId, quantity, turn }) => ({
    itemId,
    quantity: quantity / 1e6,
    wantedOn: turn.wantedOn,
  }));
  const all = [...rest, ...own].sort((a, b) => ((a.wantedOn ?? '') < (b.wantedOn ?? '') ? -1 : 1));
  let short = 0;
  for (const { itemId, quantity } of all) {
    const there = left.get(itemId) ?? 0;
    left.set(itemId, Math.max(0, there - quantity));
    short += Math.max(0, quantity - there);
  }
  return short;
}

/** The same question of the server, over HTTP. */
async function answerTime(): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
  const { call, close } = await serve(folder);
  const { items, customerId } = await goods(call, ITEMS);
  const kits: number[] = [];
  for (let n = 0; n < KITS; n += 1) kits.push(await kit(call, n, items.slice(n * IN_KIT, (n + 1) * IN_KIT)));
  const line = (n: number) => ({ itemId: items[(n * 7) % ITEMS] ?? 0, quantity: '3', price: '2' });
  for (let n = 0; n < OTHERS; n += 1) {
    const lines = Array.from({ length: 8 }, (_, at) => line(n * 8 + at));
    await send(call, api.createOrder, { body: { customerId, lines, confirm: true, wantedOn: '2027-01-10' } });
  }
  const answers: number[] = [];
  for (let key = 1; key <= 60; key += 1) {
    const quantity = String(key);
    const lines = [
      ...kits.map((itemId) => ({ itemId, quantity })),
      ...Array.from({ length: LINES - KITS }, (_, n) => ({ itemId: items[n + 100] ?? 0, quantity, price: '2' })),
    ];
    const started = performance.now();
    await send(call, api.lookAhead, { body: { customerId, wantedOn: WANTED, lines } });
    answers.push(performance.now() - started);
  }
  await close();
  rmSync(folder, { recursive: true });
  return median(answers);
}

/** A store, a customer, and so many items that stand in it. */
async function goods(call: Fetch, many: number) {
  const store = await send(call, api.createStore, { body: { code: 'S', name: 'Store' } });
  const bin = await send(call, api.createBin, { params: { id: store.id }, body: { code: 'A', pickingOrder: 1 } });
  const items: number[] = [];
  for (let n = 0; n < many; n += 1) {
    const body = { code: `PART-${n}`, name: `Part ${n}`, unitId: 1, source: 'bought', homeBinId: bin.id } as const;
    const { id } = await send(call, api.createItem, { body: { ...body, ...NOTHING, sellPrice: '2' } });
    items.push(id);
  }
  for (let from = 0; from < many; from += 100) {
    const some = items.slice(from, from + 100);
    const lines = some.map((itemId) => ({ itemId, binId: bin.id, quantity: '100000', unitCost: '1.37' }));
    await send(call, api.receive, { body: { kind: 'receipt', lines } });
  }
  const customer = await send(call, api.createCustomer, { body: { code: 'C', name: 'Customer' } });
  return { items, customerId: customer.id };
}

async function kit(call: Fetch, n: number, parts: readonly number[]): Promise<number> {
  const body = { code: `KIT-${n}`, name: `Kit ${n}`, unitId: 1, source: 'made', homeBinId: null } as const;
  const product = await send(call, api.createItem, { body: { ...body, ...NOTHING, sellPrice: '20' } });
  const { id } = await send(call, api.createDefinition, { body: { itemId: product.id } });
  const part = { kind: 'part', basis: 'per-output', quantity: '2', waste: '0', comesBack: true, share: null } as const;
  const lines = parts.map((itemId) => ({ ...part, taken: 'when-finished', itemId }) as const);
  const saved = await send(call, api.saveRevision, {
    params: { id },
    body: { version: 0, outputQuantity: '1', lines },
  });
  await send(call, api.putInUse, { params: { id }, body: { version: saved.version } });
  const { behaviour, version } = await send(call, api.definition, { params: { id } });
  const packed = { ...behaviour, made: 'packed-per-order', onOrder: 'swaps', swapFor: 'anything' } as const;
  await send(call, api.setBehaviour, { params: { id }, body: { ...packed, version } });
  return product.id;
}
