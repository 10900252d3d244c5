import { onOrders, swapFors } from '@yosegi/core/definitions';
import { deliveries, orderStandings, priceSources } from '@yosegi/core/orders';
import { z } from 'zod';
import { FromZero, Positive, Price } from './amounts.ts';
import {
  Day,
  Decimal,
  Id,
  IdParams,
  Numbered,
  PageQuery,
  pageOf,
  Remark,
  route,
  ShortText,
  Version,
} from './common.ts';
import { PartItem } from './definitions.ts';
import { Tracking } from './items.ts';
import { Posted } from './ledger.ts';
import { BinQuantity, Tracked } from './tracking.ts';

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
  wholeOn: z.string().nullable(),
  outlook: Outlook,
  /** What its lines come to. */
  worth: Decimal,
  /** Lines of which anything is open, and those of them that can leave. */
  lines: z.number().int(),
  readyLines: z.number().int(),
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
  /** Still to be taken from shelves. */
  open: Decimal,
  /** What shelves give it after those before it. */
  ready: Decimal,
  /** The day the rest is there; '' when it is, null when nobody knows. */
  wholeOn: z.string().nullable(),
  bins: z.array(BinQuantity),
});
export type OrderPart = z.infer<typeof OrderPart>;

export const OrderLine = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  tracking: Tracking,
  /** Packed from its parts when it ships; null for what is stocked itself. */
  revision: z.number().int().nullable(),
  quantity: Decimal,
  shipped: Decimal,
  dropped: Decimal,
  open: Decimal,
  price: Decimal,
  priceFrom: z.enum(priceSources),
  worth: Decimal,
  /** What it costs by today's averages, and what of it has left did cost. */
  plannedCost: Decimal,
  cost: Decimal,
  wantedOn: z.string().nullable(),
  wholeOn: z.string().nullable(),
  /** How many could be shipped now. */
  canShip: Decimal,
  parts: z.array(OrderPart),
});
export type OrderLine = z.infer<typeof OrderLine>;

export const Order = OrderRow.omit({ lines: true, readyLines: true }).extend({
  delivery: z.enum(deliveries),
  remark: z.string(),
  benchNote: z.string(),
  discount: Decimal,
  transportDays: z.number().int().nullable(),
  reason: z.string(),
  madeBy: z.string(),
  confirmedAt: z.string().nullable(),
  plannedCost: Decimal,
  cost: Decimal,
  lines: z.array(OrderLine),
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
});
export type Order = z.infer<typeof Order>;

const OrderLineInput = z.object({
  /** The line of the order that it was; null for a new one. */
  id: Id.nullable().default(null),
  itemId: Id,
  quantity: Positive,
  /** What somebody typed; null leaves it to the item's own price, or to what a kit holds. */
  price: Price.nullable().default(null),
  wantedOn: Day.nullable().default(null),
  /** Parts of a kit that are otherwise on this line; null leaves all of it as it is. */
  contents: z
    .array(z.object({ position: z.number().int().min(0), itemId: Id, amount: FromZero }))
    .max(200)
    .nullable()
    .default(null),
});

const OrderInput = z.object({
  customerId: Id,
  reference: ShortText.default(''),
  wantedOn: Day.nullable().default(null),
  delivery: z.enum(deliveries).default('whole'),
  /** For the customer, printed. */
  remark: Remark.default(''),
  /** For those who build and pack. */
  benchNote: Remark.default(''),
  lines: z.array(OrderLineInput).max(200),
});

/** Where a part of a kit stands, what it is on this line, and what the bill of materials has in its place. */
const KitPart = z.object({
  position: z.number().int(),
  item: PartItem,
  base: PartItem,
  /** Per run of the kit. */
  amount: Decimal,
  baseAmount: Decimal,
  alternates: z.array(z.object({ item: PartItem, ratio: Decimal })),
});
const Kit = z.object({
  onOrder: z.enum(onOrders),
  swapFor: z.enum(swapFors),
  outputQuantity: Decimal,
  parts: z.array(KitPart),
});
export type Kit = z.infer<typeof Kit>;

/** What a line that is being typed would get. */
export const OrderLook = z.object({
  lines: z.array(
    z.object({
      itemId: Id,
      price: Decimal.nullable(),
      plannedCost: Decimal,
      free: Decimal,
      coming: Decimal,
      wholeOn: z.string().nullable(),
      /** What is in it and may be changed on this line; null for what is stocked itself. */
      kit: Kit.nullable(),
      /** What of it is not there and nothing brings. */
      short: z.array(z.object({ itemId: Id, code: z.string(), name: z.string(), unit: z.string(), quantity: Decimal })),
    }),
  ),
  wholeOn: z.string().nullable(),
  /** Orders and builds that would be whole later than without it. */
  delays: z.array(
    z.object({
      kind: z.enum(['order', 'build']),
      id: Id,
      number: z.string(),
      before: z.string().nullable(),
      after: z.string().nullable(),
    }),
  ),
});
export type OrderLook = z.infer<typeof OrderLook>;

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
    summary: 'One order with its lines and where each stands',
    params: IdParams,
    response: Order,
  }),
  lookAhead: route({
    ...ORDERS,
    right: 'look',
    asks: true,
    method: 'POST',
    path: '/api/orders/look-ahead',
    summary: 'What an order that is being typed would get, when, and whom it would delay',
    body: OrderInput.pick({ wantedOn: true, lines: true }).extend({
      customerId: Id.nullable().default(null),
      /** The order that is being changed. */
      orderId: Id.nullable().default(null),
    }),
    response: OrderLook,
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
  cancelOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/cancel',
    summary: 'Cancel an order of which nothing has left',
    params: IdParams,
    body: Versioned.extend({ reason: z.string().trim().min(3).max(500) }),
    response: Numbered,
  }),
  dropOrder: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/orders/:id/drop',
    summary: 'Give up what is still open of an order that has left in part',
    params: IdParams,
    body: Versioned.extend({ reason: z.string().trim().min(3).max(500), lineIds: z.array(Id).min(1).max(200) }),
    response: Numbered,
  }),
  shipOrder: route({
    ...ORDERS,
    right: 'ship',
    method: 'POST',
    path: '/api/orders/:id/shipments',
    summary: 'Ship some or all of an order from the shelves',
    params: IdParams,
    body: Versioned.extend({
      lines: z
        .array(
          z.object({
            lineId: Id,
            quantity: Positive,
            /** Lots or serials of a thing that leaves for the line, and the bin it is taken from first. */
            parts: z
              .array(z.object({ partId: Id, binId: Id.nullable().default(null), ...Tracked }))
              .max(50)
              .default([]),
          }),
        )
        .min(1)
        .max(200),
      carrier: ShortText.default(''),
      tracking: ShortText.default(''),
      remark: Remark.default(''),
    }),
    /** With how many lines of the order are still open. */
    response: Posted.extend({ openLines: z.number().int() }),
  }),
};
