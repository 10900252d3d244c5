import { deliveries, orderStandings, priceSources } from '@yosegi/core/orders';
import { z } from 'zod';
import { FromZero, Positive, Price, percentUpTo } from './amounts.ts';
import { BuildState } from './builds.ts';
import { BoughtFor } from './buying.ts';
import {
  Day,
  Decimal,
  Id,
  IdParams,
  Numbered,
  OfItem,
  PageQuery,
  pageOf,
  Remark,
  route,
  ShortText,
  Version,
} from './common.ts';
import { PartItem } from './definitions.ts';
import { Earned } from './earned.ts';
import { Tracking } from './items.ts';
import { BinQuantity, Piece } from './tracking.ts';

export const OrderStanding = z.enum(orderStandings);

/** How an order looks ahead: it can leave, will be whole in time, is at risk of being late, or nobody can say. */
export const Outlook = z.enum(['ready', 'in-time', 'late', 'unknown', 'over']);
export type Outlook = z.infer<typeof Outlook>;

export const OrderRow = z.object({
  id: Id,
  number: z.string(),
  customerId: Id,
  customer: z.string(),
  reference: z.string(),
  standing: OrderStanding,
  wantedOn: z.string().nullable(),
  /** The day everything of it can have arrived; '' when all of it is there, null when nobody knows. */
  completeOn: z.string().nullable(),
  outlook: Outlook,
  /** Whether all of it is there, also where it will arrive late. */
  canLeave: z.boolean(),
  /** What its lines and its freight come to. */
  worth: Decimal,
  /** Lines of which anything is open, and those of them that can leave. */
  lines: z.number().int(),
  readyLines: z.number().int(),
  /** Whether anything of it stands on a shelf for it and is still to be picked. */
  toPick: z.boolean(),
  /** What stands in a parcel for it or could be taken, what comes, and what is missing, as shares of what is open. */
  shares: z.object({ ready: z.number(), coming: z.number(), short: z.number() }),
  at: z.string(),
  version: Version,
});
export type OrderRow = z.infer<typeof OrderRow>;

/** One thing that leaves for a line: what is sold itself, or a part of a kit packed for the order. */
export const OrderPart = z.object({
  id: Id,
  item: PartItem,
  /** What the bill of materials has in its place; null where it is that. */
  instead: z.string().nullable(),
  /** For the whole line, and as the bill of materials has it. */
  required: Decimal,
  usual: Decimal,
  shipped: Decimal,
  /** Standing in a parcel for it, and of what is tracked, which. */
  packed: Decimal,
  /** Of it kept from leaving, because a lot or serial of it is held. */
  stuck: Decimal,
  pieces: z.array(Piece),
  /** Still to be taken from shelves, or to be built. */
  open: Decimal,
  /** What shelves give it after those before it. */
  ready: Decimal,
  /** The day the rest is there; '' when it is, null when nobody knows. */
  completeOn: z.string().nullable(),
  bins: z.array(BinQuantity),
  /** Whether a bill of materials in use makes it. */
  canBuild: z.boolean(),
  /** What is or was built for it. */
  builds: z.array(
    z.object({
      id: Id,
      number: z.string(),
      state: BuildState,
      due: z.string().nullable(),
      quantity: Decimal,
      /** Of it finished and put into the parcel. */
      kept: Decimal,
    }),
  ),
  /** What brings the rest of it, in the order it comes; '' where nobody knows the day. */
  comes: z.array(
    z.object({
      kind: z.enum(['purchase', 'build']),
      id: Id,
      number: z.string(),
      quantity: Decimal,
      on: z.string().nullable(),
    }),
  ),
});
export type OrderPart = z.infer<typeof OrderPart>;

export const OrderLine = z.object({
  id: Id,
  ...OfItem,
  tracking: Tracking,
  /** Packed from its parts when it ships; null for what is stocked itself. */
  revision: z.number().int().nullable(),
  /** Whether what is in it stays off the customer's papers. */
  hidden: z.boolean(),
  /** A later revision of the kit in use, which the line could take over; null where there is none. */
  laterRevision: z.number().int().nullable(),
  quantity: Decimal,
  shipped: Decimal,
  dropped: Decimal,
  open: Decimal,
  /** What one costs after all that is taken off it. */
  price: Decimal,
  /** What it was before, and what is taken off for this line, in percent. */
  listPrice: Decimal,
  discount: Decimal,
  /** What the line comes to before what is taken off the whole order. */
  amount: Decimal,
  priceFrom: z.enum(priceSources),
  worth: Decimal,
  /** What it costs by today's averages, and what of it has left did cost. */
  plannedCost: Decimal,
  cost: Decimal,
  wantedOn: z.string().nullable(),
  /** The day its goods are complete, and the day they are with the customer: '' now, null when nobody knows. */
  completeOn: z.string().nullable(),
  arrivesOn: z.string().nullable(),
  /** How many could be shipped now, and how many of them from the parcel alone. */
  canShip: Decimal,
  inParcel: Decimal,
  parts: z.array(OrderPart),
});
export type OrderLine = z.infer<typeof OrderLine>;

export const Order = OrderRow.omit({ lines: true, readyLines: true, toPick: true, shares: true }).extend({
  delivery: z.enum(deliveries),
  remark: z.string(),
  benchNote: z.string(),
  /** Where it goes, where that is not the customer’s own address; lines as printed. */
  deliverTo: z.string(),
  /** The customer's own, as it is now. */
  discount: Decimal,
  /** Off the whole order, in percent, and what that comes to. */
  orderDiscount: Decimal,
  takenOff: Decimal,
  /** What bringing it costs the customer. */
  freight: Decimal,
  transportDays: z.number().int().nullable(),
  reason: z.string(),
  madeBy: z.string(),
  confirmedAt: z.string().nullable(),
  plannedCost: Decimal,
  earned: Earned,
  lines: z.array(OrderLine),
  jobTag: z.string(),
  turnOn: z.string().nullable(),
  /** What was bought for it. */
  purchases: z.array(BoughtFor),
  /** Parcels that have not left. */
  parcels: z.array(z.object({ id: Id, number: z.string(), openedAt: z.string() })),
  documents: z.array(
    z.object({
      id: Id,
      number: z.string(),
      at: z.string(),
      person: z.string(),
      carrier: z.string(),
      tracking: z.string(),
      undone: z.boolean(),
    }),
  ),
  /** Of which items another quantity was wanted from when on, the newest first; zero: none. */
  changes: z.array(
    z.object({
      id: Id,
      at: z.string(),
      person: z.string(),
      name: z.string(),
      unit: z.string(),
      decimals: z.number().int(),
      before: Decimal,
      after: Decimal,
    }),
  ),
});
export type Order = z.infer<typeof Order>;

const OrderLineInput = z.object({
  /** The line of the order that it was; null for a new one. */
  id: Id.nullable().default(null),
  itemId: Id,
  quantity: Positive,
  /** What somebody typed; null leaves it to the item's own price, or to what a kit holds. */
  price: Price.nullable().default(null),
  /** Off the price, in percent. */
  discount: percentUpTo(100).prefault('0'),
  wantedOn: Day.nullable().default(null),
  /** Parts of a kit that are otherwise on this line; null leaves all of it as it is. */
  contents: z
    .array(z.object({ position: z.number().int().min(0), itemId: Id, amount: FromZero }))
    .max(200)
    .nullable()
    .default(null),
});

export const OrderInput = z.object({
  customerId: Id,
  reference: ShortText.default(''),
  wantedOn: Day.nullable().default(null),
  delivery: z.enum(deliveries).default('whole'),
  /** For the customer, printed. */
  remark: Remark.default(''),
  /** For those who build and pack. */
  benchNote: Remark.default(''),
  /** Where it goes, where that is not the customer’s own address; lines as printed. */
  deliverTo: z.string().trim().max(400).default(''),
  /** What it is booked under, across orders, builds and purchases. */
  jobTag: ShortText.default(''),
  /** The day by which it is served where it gives way to others; null: the day it is wanted. */
  turnOn: Day.nullable().default(null),
  /** Off the whole order, in percent. */
  orderDiscount: percentUpTo(100).prefault('0'),
  freight: Price.prefault('0'),
  lines: z.array(OrderLineInput).max(200),
});

/** A build or an order that needs some of an item. */
const PromisedTo = z.object({
  kind: z.enum(['build', 'order']),
  id: Id,
  number: z.string(),
  /** The product that is built, or the customer. */
  who: z.string(),
  quantity: Decimal,
  /** Of it from shelves. */
  now: Decimal,
  wantedOn: z.string().nullable(),
  /** The day it has all of it; '' now, null when nobody knows. */
  completeOn: z.string().nullable(),
});
export type PromisedTo = z.infer<typeof PromisedTo>;

const ItemSales = Earned.extend({
  orders: z.number().int(),
  customers: z.array(Earned.extend({ id: Id, name: z.string() })),
});

const ORDERS = { tag: 'Orders' } as const;
const Versioned = z.object({ version: Version });

export const orderRoutes = {
  orders: route({
    ...ORDERS,
    right: 'look',
    method: 'GET',
    path: '/api/orders',
    summary: 'Orders of customers: open ones by the day they are wanted, others the newest first',
    query: PageQuery.extend({
      show: z.enum(['open', 'quotes', 'shipped', 'cancelled']).default('open'),
      /** A part of an order’s number or reference, of the customer or of an item on it. */
      q: z.string().max(100).optional(),
    }),
    response: pageOf(OrderRow),
  }),
  order: route({
    ...ORDERS,
    right: 'look',
    method: 'GET',
    path: '/api/orders/:id',
    summary: 'One order with its lines and their status',
    params: IdParams,
    response: Order,
  }),
  promisedTo: route({
    ...ORDERS,
    right: 'look',
    method: 'GET',
    path: '/api/items/:id/promised',
    summary: 'Who an item is promised to, in turn, and how much each gets',
    params: IdParams,
    response: z.array(PromisedTo),
  }),
  itemSales: route({
    ...ORDERS,
    right: 'look',
    method: 'GET',
    path: '/api/items/:id/sales',
    summary: 'What an item earned: quantity shipped, income and cost',
    params: IdParams,
    response: ItemSales,
  }),
  createOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders',
    summary: 'Enter an order, as a quote or confirmed at once; what it needs is promised once it is confirmed',
    body: OrderInput.extend({ confirm: z.boolean().default(false) }),
    response: Numbered,
  }),
  saveOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'PUT',
    path: '/api/orders/:id',
    summary: 'Change an order; what was shipped stays as it was',
    params: IdParams,
    body: OrderInput.extend({ version: Version }),
    response: Numbered,
  }),
  confirmOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/confirm',
    summary: 'Confirm a quote: from now on what it needs is promised to it',
    params: IdParams,
    body: Versioned,
    response: Numbered,
  }),
  copyOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/copy',
    summary: 'Make a quote for the same items, at today’s prices and with the kits in use now',
    params: IdParams,
    body: z.object({}),
    /** Kits that could not be changed as they were, because they have a later revision. */
    response: Numbered.extend({ unchanged: z.array(z.string()) }),
  }),
  splitOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/split',
    summary: 'Split lines off an order into a new one',
    params: IdParams,
    body: Versioned.extend({
      wantedOn: Day.nullable().default(null),
      lines: z
        .array(z.object({ lineId: Id, quantity: Positive }))
        .min(1)
        .max(200),
    }),
    response: Numbered,
  }),
  cancelOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/cancel',
    summary: 'Cancel an order before anything has shipped',
    params: IdParams,
    body: Versioned.extend({
      reason: z.string().trim().min(3).max(500),
    }),
    response: Numbered,
  }),
  dropOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/drop',
    summary: 'Give up the rest of an order that has shipped in part',
    params: IdParams,
    body: Versioned.extend({ reason: z.string().trim().min(3).max(500), lineIds: z.array(Id).min(1).max(200) }),
    response: Numbered,
  }),
};
