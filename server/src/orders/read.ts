import type { Order, OrderLine, OrderPart, OrderRow } from '@yosegi/contract';
import { arrivesOn, isTooLate, latest, type Pegged, type WhenThere } from '@yosegi/core/demand';
import { groupBy } from '@yosegi/core/lists';
import {
  add,
  least,
  lineAmount,
  type Money,
  minus,
  type Quantity,
  stepOf,
  sumForText,
  worthOf,
  ZERO,
} from '@yosegi/core/number';
import { canShip, type OrderSum, openOf, orderSum, standingOf } from '@yosegi/core/orders';
import { boughtFor } from '../buying/index.ts';
import { decimal, orNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import { currencyDecimals } from '../command/money.ts';
import type { Reader } from '../db/database.ts';
import { page } from '../db/pages.ts';
import { readPegging } from '../demand/index.ts';
import { earnedBy } from '../earned/index.ts';
import { averageCostOf, type ItemRow, itemRows, toItem } from '../items/index.ts';
import { byBin, partedPieces, usableOf } from '../ledger/index.ts';
import { buildsForParts } from './built.sql.ts';
import { changesOf } from './changes.sql.ts';
import { heldInParcels, openParcels, standingFor } from './parcels.sql.ts';
import {
  type Brings,
  buildable,
  costsOf,
  cursorOf,
  listRecords,
  namesOfComing,
  needOf,
  type OrderLineRecord,
  type OrderPartRecord,
  type OrderRecord,
  openRecords,
  orderLines,
  orderParts,
  orderRecord,
  requiredOf,
  shipmentsOf,
} from './sql.ts';

/** What each part of an order is served by, by part. */
type Served = ReadonlyMap<number, Pegged>;

/** What serves the parts of orders, as everything stands in its turn. */
export async function readServed(db: Reader, today: string): Promise<Served> {
  return servedIn((await readPegging(db, today)).pegged);
}

export const servedIn = (pegging: readonly Pegged[]): Served =>
  new Map(
    pegging.flatMap((pegged): [number, Pegged][] =>
      pegged.demand.source.kind === 'order' && pegged.demand.lineId !== null ? [[pegged.demand.lineId, pegged]] : [],
    ),
  );

/** A part with what of it stands in a parcel and is kept from leaving. */
interface Standing extends OrderPartRecord {
  readonly stuck: Quantity;
}

/** The parts of lines of orders, with what of them is held. */
async function standingParts(db: Reader, lines: readonly OrderLineRecord[]): Promise<Standing[]> {
  const orderOf = new Map(lines.map((line) => [line.id, line.order_id]));
  const held = await heldInParcels(db, [...new Set(orderOf.values())]);
  return (await orderParts(db, [...orderOf.keys()])).map((part) => ({
    ...part,
    stuck: least(part.packed, held.get(`${orderOf.get(part.line_id)}:${part.item_id}`) ?? ZERO),
  }));
}

/** The day a part has everything it still needs; nobody knows when what is held is released. */
const partWhole = (served: Served, part: Pick<Standing, 'id' | 'open' | 'stuck'>): WhenThere => {
  if (part.stuck > 0) return null;
  return part.open === 0 ? '' : (served.get(part.id)?.completeOn ?? null);
};
const readyOf = (served: Served, part: Pick<OrderPartRecord, 'id'>): Quantity => served.get(part.id)?.now ?? ZERO;

/** The days of an order and its lines, as every screen, paper and message says them. */
function daysOf(
  order: OrderRecord,
  lines: readonly OrderLineRecord[],
  parts: ReadonlyMap<number, readonly Standing[]>,
  served: Served,
  today: string,
) {
  const complete = lines.map((line) => latest((parts.get(line.id) ?? []).map((part) => partWhole(served, part))));
  const all = latest(complete);
  const transport = order.transport_days ?? 0;
  const arrives = arrivesOn(all, transport, today);
  return {
    complete,
    all,
    arrives,
    // What goes in one delivery comes with the last of it.
    lines: complete.map((day) => (order.delivery === 'whole' ? arrives : arrivesOn(day, transport, today))),
  };
}

function outlookOf(
  order: OrderRecord,
  lines: readonly OrderLineRecord[],
  days: ReturnType<typeof daysOf>,
  today: string,
): OrderRow['outlook'] {
  if (days.arrives === null) return 'unknown';
  const isLate = lines.some(
    (line, index) => openOf(line) > 0 && isTooLate(days.lines[index] ?? '', line.wanted_on ?? order.wanted_on, today),
  );
  if (isLate) return 'late';
  return days.all === '' ? 'ready' : 'in-time';
}

function headOf(
  order: OrderRecord,
  lines: readonly OrderLineRecord[],
  parts: ReadonlyMap<number, readonly Standing[]>,
  served: Served,
  today: string,
  decimals: number,
) {
  const standing = standingOf(order.state, lines);
  const isOver = standing === 'shipped' || standing === 'cancelled';
  const days = daysOf(order, lines, parts, served, today);
  const isPromised = order.state === 'confirmed' && !isOver;
  return {
    id: order.id,
    number: order.number,
    customerId: order.customer_id,
    customer: order.customer,
    reference: order.reference,
    standing,
    wantedOn: order.wanted_on,
    completeOn: isPromised ? days.arrives : null,
    outlook: isOver ? ('over' as const) : isPromised ? outlookOf(order, lines, days, today) : ('unknown' as const),
    canLeave: isPromised && days.all === '',
    worth: decimal(sumOf(order, lines, decimals).total),
    at: order.made_at,
    version: order.version,
    ready: lines.filter((line, index) => openOf(line) > 0 && days.complete[index] === '' && isPromised).length,
  };
}

const byLine = (parts: readonly Standing[]) => groupBy(parts, (part) => part.line_id);

/** Rows as a list shows them, with when each order is whole. */
export async function toOrderRows(
  db: Reader,
  records: readonly OrderRecord[],
  today: string,
  known?: Served,
): Promise<OrderRow[]> {
  if (records.length === 0) return [];
  const lines = await orderLines(
    db,
    records.map(({ id }) => id),
  );
  const parts = byLine(await standingParts(db, lines));
  const linesOf = groupBy(lines, (line) => line.order_id);
  const isAnyOpen = records.some(({ open }) => open === 1);
  const served = known ?? (isAnyOpen ? await readServed(db, today) : new Map());
  const decimals = await currencyDecimals(db);
  return records.map((order) => {
    const own = linesOf.get(order.id) ?? [];
    const { ready, ...head } = headOf(order, own, parts, served, today, decimals);
    const leaving = order.open === 1 ? own.flatMap((line) => parts.get(line.id) ?? []) : [];
    return {
      ...head,
      lines: own.filter((line) => openOf(line) > 0).length,
      readyLines: ready,
      toPick: leaving.some((part) => readyOf(served, part) > 0),
      shares: sharesOf(leaving, served),
    };
  });
}

/** What stands ready of parts, what comes and what is missing, each part counting the same however many it is of. */
function sharesOf(parts: readonly Standing[], served: Served): OrderRow['shares'] {
  const open = parts.filter((part) => part.open + part.packed > 0);
  const share = (of: (part: Standing) => number) =>
    open.reduce((sum, part) => sum + of(part) / (part.open + part.packed), 0) / Math.max(1, open.length);
  return {
    ready: share((part) => looseOf(part) + readyOf(served, part)),
    coming: share((part) => served.get(part.id)?.coming ?? 0),
    short: share((part) => part.stuck + (served.get(part.id)?.short ?? 0)),
  };
}

/** Every open order by the day it is wanted, as what serves whom says it stands. */
export const openOrderRows = async (db: Reader, pegging: readonly Pegged[], today: string) =>
  toOrderRows(db, await openRecords(db), today, servedIn(pegging));

export async function listOrders(db: Reader, query: QueryOf<'orders'>, today: string) {
  const { rows, next } = page(await listRecords(db, query), query.limit, cursorOf);
  return { rows: await toOrderRows(db, rows, today), next };
}

/** What an order comes to as it is printed, without what was given up. */
const sumOf = (order: OrderRecord, lines: readonly OrderLineRecord[], decimals: number): OrderSum =>
  orderSum(
    lines.map(({ quantity, dropped, list_price: list, discount }) => ({
      quantity: minus(quantity, dropped),
      list,
      discount,
    })),
    { discount: order.order_discount, freight: order.freight },
    decimals,
  );

/** One order with where each line of it stands. */
export async function readOrder(db: Reader, id: number, today: string): Promise<Order> {
  const order = found(await orderRecord(db, id));
  const lines = await orderLines(db, [id]);
  const all = await standingParts(db, lines);
  const parts = byLine(all);
  const items = await itemRows(
    db,
    all.flatMap((part) => [part.item_id, part.base_item_id]),
  );
  const served = order.open === 1 ? await readServed(db, today) : new Map();
  const shelves = await usableOf(db, [...items.keys()]);
  const parcels = await openParcels(db, [id]);
  const pieces = partedPieces(
    await standingFor(db, id),
    all.map((part) => ({ line: part.id, itemId: part.item_id, quantity: part.packed })),
  );
  const partIds = all.map((part) => part.id);
  const builds = await buildsForParts(db, partIds);
  const made = await buildable(db, [...items.keys()]);
  const comings = await namesOfComing(db, [...served.values()]);
  const costs = await costsOf(db, id);
  const decimals = await currencyDecimals(db);
  const { ready: _, ...head } = headOf(order, lines, parts, served, today, decimals);
  const days = daysOf(order, lines, parts, served, today);
  const sum = sumOf(order, lines, decimals);
  const shown = lines.map((line, index): OrderLine => {
    const own = parts.get(line.id) ?? [];
    const open = openOf(line);
    const isPromised = order.open === 1 && open > 0;
    return {
      id: line.id,
      itemId: line.item_id,
      code: line.code,
      name: line.name,
      unit: line.unit,
      decimals: line.decimals,
      tracking: line.tracking,
      revision: line.revision,
      hidden: line.paperwork === 'one-line',
      laterRevision: line.in_use === line.revision ? null : line.in_use,
      quantity: decimal(line.quantity),
      shipped: decimal(line.shipped),
      dropped: decimal(line.dropped),
      open: decimal(open),
      price: decimal(line.price),
      listPrice: decimal(line.list_price),
      discount: decimal(line.discount),
      amount: decimal(sum.amounts[index] ?? 0n),
      priceFrom: line.price_from,
      worth: decimal(lineAmount(minus(line.quantity, line.dropped), line.price, decimals)),
      plannedCost: decimal(plannedCost(line, own, items) ?? ZERO),
      cost: decimal(costs.get(line.id) ?? 0),
      wantedOn: line.wanted_on,
      completeOn: isPromised ? (days.complete[index] ?? null) : null,
      arrivesOn: isPromised ? (days.lines[index] ?? null) : null,
      canShip: decimal(isPromised ? shippable(line, own, (part) => add(looseOf(part), readyOf(served, part))) : ZERO),
      inParcel: decimal(isPromised ? shippable(line, own, looseOf) : ZERO),
      parts: own.map(
        (part): OrderPart => ({
          id: part.id,
          item: toItem(found(items.get(part.item_id))),
          instead: part.base_item_id === part.item_id ? null : found(items.get(part.base_item_id)).name,
          required: decimal(requiredOf(part, line)),
          usual: decimal(requiredOf({ ...part, amount: part.base_amount }, line)),
          shipped: decimal(part.shipped),
          open: decimal(part.open),
          ready: decimal(readyOf(served, part)),
          packed: decimal(part.packed),
          stuck: decimal(part.stuck),
          pieces: [...(pieces.get(part.id) ?? [])],
          canBuild: made.has(part.item_id),
          builds: builds
            .filter((row) => row.part_id === part.id)
            .map((row) => ({
              id: row.build_id,
              number: row.number,
              state: row.state,
              due: row.due,
              quantity: decimal(row.quantity),
              kept: decimal(row.kept),
            })),
          comes: comesFor(served.get(part.id), comings),
          completeOn: isPromised ? partWhole(served, part) : null,
          bins: byBin(shelves.filter((row) => row.item_id === part.item_id)),
        }),
      ),
    };
  });
  return {
    ...head,
    delivery: order.delivery,
    remark: order.remark,
    benchNote: order.bench_note,
    deliverTo: order.deliver_to,
    discount: decimal(order.discount),
    orderDiscount: decimal(order.order_discount),
    takenOff: decimal(sum.takenOff),
    freight: decimal(order.freight),
    transportDays: order.transport_days,
    jobTag: order.job_tag,
    turnOn: order.turn_on,
    purchases: await boughtFor(db, 'order', id),
    parcels: parcels.map((parcel) => ({ id: parcel.id, number: parcel.number, openedAt: parcel.opened_at })),
    reason: order.reason,
    madeBy: order.person,
    confirmedAt: order.confirmed_at,
    plannedCost: decimal(sumForText(lines.map((line) => plannedCost(line, parts.get(line.id) ?? [], items) ?? ZERO))),
    earned: await earnedBy(db, 'order', id),
    lines: shown,
    changes: await changesOf(db, id),
    documents: (await shipmentsOf(db, id)).map((row) => ({ ...row, undone: row.undone === 1 })),
  };
}

/** What of a part stands in a parcel and may leave. */
const looseOf = ({ packed, stuck }: Standing): Quantity => minus(packed, stuck);

/** How many of a line could be shipped with what is at hand of each part. */
const shippable = (line: OrderLineRecord, parts: readonly Standing[], atHand: (part: Standing) => Quantity): Quantity =>
  canShip(
    line,
    line.output_quantity,
    parts.map((part) => ({ need: needOf(part), ready: atHand(part) })),
    stepOf(line.decimals),
  );

/** What brings the rest of a part, in the order it comes. */
function comesFor(pegged: Pegged | undefined, names: ReadonlyMap<string, Brings>): OrderPart['comes'] {
  return (pegged?.given ?? []).flatMap(({ supply, on, quantity }) => {
    if (supply.from.kind === 'shelf') return [];
    const brings = names.get(`${supply.from.kind}:${supply.from.id}`);
    return brings ? [{ ...brings, quantity: decimal(quantity), on }] : [];
  });
}

/** What the whole of a line costs by today's averages; null beyond what can be kept. */
function plannedCost(
  line: OrderLineRecord,
  parts: readonly OrderPartRecord[],
  items: ReadonlyMap<number, ItemRow>,
): Money | null {
  return orNull(() =>
    add(ZERO, ...parts.map((part) => worthOf(requiredOf(part, line), averageCostOf(found(items.get(part.item_id)))))),
  );
}
