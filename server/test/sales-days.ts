import { api, type Order } from '@yosegi/contract';
import fc from 'fast-check';
import type { Step, World } from './days.ts';
import { from1, nat, step } from './step.ts';

// What happens to orders of customers on a day, beside everything else that may happen.

async function openOrder({ call }: World, n: number): Promise<Order | undefined> {
  const { rows } = await call(api.orders, { query: {} });
  const row = rows[n % Math.max(1, rows.length)];
  return row && call(api.order, { params: { id: row.id } });
}

/** Another line of what an order has already: of what is counted, of a lot, or of serials. */
const second = ({ id }: { id: number }, kind: number, n: number) =>
  ({ itemId: id, quantity: kind === 2 ? '0.5' : String(1 + (n % 2)) }) as const;

/** Boxes, kits with or without a change in them, wax by lot, scales by serial. */
export const sell = step(fc.tuple(nat(3), from1(9), nat(20), nat(4)), async (world, [kind, n, days, change]) => {
  const { items, call, customerId, agreed } = world;
  const item = [items.box, items.kit, items.wax, items.scale][kind] ?? items.box;
  const contents =
    item === items.kit && change > 1 ? [{ position: 0, itemId: items.wood.id, amount: String(change) }] : null;
  const wantedOn = days > 15 ? null : `2026-12-${String(days + 1).padStart(2, '0')}`;
  const quantity = kind === 2 ? `${n}.25` : String(kind === 3 ? Math.min(n, 2) : n);
  const lines = [
    { itemId: item.id, quantity, price: '7', contents },
    { itemId: items.wood.id, quantity: String(n), price: n % 2 ? '2' : null },
    // The same once more, for a day of its own.
    ...(change > 2 ? [{ ...second(item, kind, n), price: '3', wantedOn: '2026-12-02' }] : []),
  ];
  const { id } = await call(api.createOrder, { body: { customerId, wantedOn, confirm: change > 0, lines } });
  const order = await call(api.order, { params: { id } });
  const { sellPrice } = await call(api.item, { params: { id: items.wood.id } });
  for (const [at, line] of order.lines.entries()) {
    // What is not typed is sold at the item's price, less the tenth that this customer has off, to the cent.
    const price = lines[at]?.price ?? String(Math.round(Number(sellPrice) * 90 + 1e-7) / 100);
    agreed.set(line.id, { itemId: line.itemId, price });
  }
});

/** The price of what is sold at it changes; what was agreed does not. */
const reprice = step(from1(900), async ({ items, call }, cents) => {
  const { id, version } = await call(api.item, { params: { id: items.wood.id } });
  await call(api.setPrices, { params: { id }, body: { version, sellPrice: (cents / 100).toFixed(2) } });
});

const pack = step(fc.tuple(nat(9), nat(3), from1(9), nat(2)), async (world, [n, at, quantity, bin]) => {
  const order = await openOrder(world, n);
  const parts = order?.lines.flatMap((line) => line.parts) ?? [];
  const part = parts[at % Math.max(1, parts.length)];
  if (!order || !part) return;
  const there = part.bins[bin % Math.max(1, part.bins.length)];
  const serials = part.item.tracking === 'serial' ? [there?.pieces[0]?.serial ?? 'SC-000'] : [];
  // Mostly what is there and still open, now and then more.
  const fits = bin > 1 ? quantity : Math.min(quantity, Number(part.open), Number(there?.quantity ?? 0));
  const some = part.item.tracking === 'serial' ? '1' : String(fits);
  const line = { partId: part.id, binId: there?.binId ?? world.bin(bin), quantity: some, serials };
  await world.call(api.packOrder, { params: { id: order.id }, body: { lines: [line] } });
});

const unpack = step(fc.tuple(nat(9), from1(4)), async (world, [n, quantity]) => {
  const order = await openOrder(world, n);
  const part = order?.lines.flatMap((line) => line.parts).find(({ packed }) => packed !== '0');
  if (!order || !part) return;
  const serials = part.item.tracking === 'serial' ? part.pieces.flatMap(({ serial }) => serial ?? []).slice(0, 1) : [];
  const some = serials.length > 0 ? '1' : String(quantity);
  const body = { lines: [{ partId: part.id, quantity: some, serials }] };
  await world.call(api.unpackOrder, { params: { id: order.id }, body });
});

export const ship = step(
  fc.tuple(nat(9), from1(9), fc.boolean(), fc.boolean()),
  async (world, [n, some, all, finishing]) => {
    const order = await openOrder(world, n);
    if (!order) return;
    const lines = order.lines
      .filter(({ open }) => open !== '0')
      .map((line) => ({
        lineId: line.id,
        quantity: all && line.canShip !== '0' ? line.canShip : String(some),
        parts: line.parts.flatMap((part) => {
          const there = [...part.pieces, ...part.bins.flatMap(({ pieces }) => pieces)].flatMap(
            ({ serial }) => serial ?? [],
          );
          const count = all ? Number(line.canShip) : some;
          return part.item.tracking === 'serial' ? [{ partId: part.id, serials: there.slice(0, count) }] : [];
        }),
      }));
    const builds = finishing ? order.lines.flatMap((line) => line.parts.flatMap((part) => part.builds)) : [];
    const finishes = [];
    for (const { id } of builds.slice(0, 1)) {
      const { version, quantity, finished } = await world.call(api.build, { params: { id } });
      const good = String(Number(quantity) - Number(finished));
      if (good !== '0') finishes.push({ buildId: id, version, good, outputBinId: world.bin(2), lines: [] });
    }
    const { version } = order;
    await world.call(api.shipOrder, { params: { id: order.id }, body: { version, lines, finishes } });
  },
);

const buildFor = step(fc.tuple(nat(9), from1(9), fc.boolean()), async (world, [n, quantity, together]) => {
  const { rows } = await world.call(api.orders, { query: {} });
  const orderIds = rows.slice(n % Math.max(1, rows.length)).map(({ id }) => id);
  if (orderIds.length === 0) return;
  const { lines } = await world.call(api.lookToBuild, { body: { orderIds: orderIds.slice(0, 3) } });
  const chosen = lines.map(({ partId, short }) => ({ partId, quantity: together ? short : String(quantity) }));
  const body = { chosen: chosen.filter((one) => one.quantity !== '0') };
  if (body.chosen.length > 0) await world.call(api.buildForOrders, { body });
});

/** Another quantity of the first line; now and then another item on the last, or no last line at all. */
const change = step(fc.tuple(nat(9), from1(12), nat(5)), async (world, [n, quantity, how]) => {
  const order = await openOrder(world, n);
  if (!order) return;
  const { id, version, customerId, wantedOn, lines } = order;
  const kept = how === 0 && lines.length > 1 ? lines.slice(0, -1) : lines;
  const typed = kept.map((line, index) => ({
    id: line.id,
    itemId: how === 1 && index === kept.length - 1 ? world.items.box.id : line.itemId,
    quantity: index === 0 && line.decimals === 0 ? String(quantity) : line.quantity,
    price: line.priceFrom === 'typed' ? line.listPrice : null,
  }));
  await world.call(api.saveOrder, { params: { id }, body: { version, customerId, wantedOn, lines: typed } });
});

const giveUp = step(fc.tuple(nat(9), fc.boolean()), async (world, [n, whole]) => {
  const order = await openOrder(world, n);
  if (!order) return;
  const body = { version: order.version, reason: 'no longer wanted' };
  if (whole) await world.call(api.cancelOrder, { params: { id: order.id }, body });
  else
    await world.call(api.dropOrder, {
      params: { id: order.id },
      body: { ...body, lineIds: order.lines.slice(0, 1).map(({ id }) => id) },
    });
});

const part = step(fc.tuple(nat(9), from1(4)), async (world, [n, quantity]) => {
  const order = await openOrder(world, n);
  const line = order?.lines.find(({ open }) => open !== '0');
  if (!order || !line) return;
  const lines = [{ lineId: line.id, quantity: String(quantity) }];
  await world.call(api.splitOrder, { params: { id: order.id }, body: { version: order.version, lines } });
});

const bring =
  (of: keyof World['items'], quantity: string, unitCost: string, bin: number, named: () => object = () => ({})): Step =>
  async ({ shop, items }) => {
    await shop.receive(items[of], quantity, unitCost, bin, named());
    return { unitCost };
  };

/** Serials of the days so far, so that each day brings new ones. */
let serials = 500;

/** A shop that has something to sell in the morning: of everything, in several bins and lots. */
export const stocked: readonly Step[] = [
  bring('wood', '40', '2.13', 0),
  bring('wood', '25', '2.41', 1),
  bring('wax', '6', '7.07', 0, () => ({ lot: 'L1' })),
  bring('wax', '9', '7.19', 1, () => ({ lot: 'L2' })),
  bring('box', '12', '11.03', 2),
  bring('scale', '3', '60.01', 1, () => ({ serials: [1, 2, 3].map(() => `SC-${++serials}`) })),
];

/** Whatever may happen to orders; most of it is packing and shipping. */
export const anySale: fc.Arbitrary<Step> = fc.oneof(
  ...[
    sell,
    sell,
    sell,
    pack,
    pack,
    pack,
    unpack,
    ship,
    ship,
    ship,
    buildFor,
    buildFor,
    change,
    change,
    giveUp,
    part,
    reprice,
  ],
);
