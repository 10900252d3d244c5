import { onOrders, swapFors } from '@yosegi/core/definitions';
import { z } from 'zod';
import { Decimal, Id, IdParams, Numbered, route, Version } from './common.ts';
import { PartItem } from './definitions.ts';
import { OrderInput } from './orders.ts';

/** Where a part of a kit stands, what it is on this line, and what the bill of materials has in its place. */
const KitPart = z.object({
  position: z.number().int(),
  item: PartItem,
  base: PartItem,
  /** Per run of the kit. */
  amount: Decimal,
  baseAmount: Decimal,
  /** What of it for the whole line is not on shelves for it, and the day it is; '' when nothing is missing. */
  missing: Decimal,
  completeOn: z.string().nullable(),
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
      completeOn: z.string().nullable(),
      /** What is in it and may be changed on this line; null for what is stocked itself. */
      kit: Kit.nullable(),
      /** What of it is not there and nothing brings. */
      short: z.array(z.object({ itemId: Id, code: z.string(), name: z.string(), unit: z.string(), quantity: Decimal })),
    }),
  ),
  completeOn: z.string().nullable(),
  /** Orders and builds that would be whole later than without it. */
  delays: z.array(
    z.object({
      kind: z.enum(['order', 'build']),
      id: Id,
      number: z.string(),
      before: z.string().nullable(),
      after: z.string().nullable(),
      /** The day by which it is served; null for none. */
      turnOn: z.string().nullable(),
    }),
  ),
});
export type OrderLook = z.infer<typeof OrderLook>;

/** A kit on a line, and what it would be by a later revision. */
export const LaterKit = z.object({
  orderId: Id,
  name: z.string(),
  revision: z.number().int(),
  later: z.number().int(),
  price: Decimal,
  /** By the later one; the same where the price was typed or agreed. */
  laterPrice: Decimal,
  parts: z.array(
    z.object({
      code: z.string(),
      name: z.string(),
      unit: z.string(),
      decimals: z.number().int(),
      /** For the whole line; null where it is not in it. */
      before: Decimal.nullable(),
      after: Decimal.nullable(),
    }),
  ),
});
export type LaterKit = z.infer<typeof LaterKit>;

const ORDERS = { tag: 'Orders' } as const;
const Versioned = z.object({ version: Version });

export const lookAheadRoutes = {
  lookAhead: route({
    ...ORDERS,
    right: 'look',
    asks: true,
    method: 'POST',
    path: '/api/orders/look-ahead',
    summary: 'What an order being entered would get, when, and which orders it would delay',
    body: OrderInput.pick({ wantedOn: true, turnOn: true, lines: true }).extend({
      customerId: Id.nullable().default(null),
      /** The order that is being changed. */
      orderId: Id.nullable().default(null),
    }),
    response: OrderLook,
  }),
  laterKit: route({
    ...ORDERS,
    right: 'look',
    method: 'GET',
    path: '/api/order-lines/:id/later',
    summary: 'What a kit on a line would be by the revision in use now',
    params: IdParams,
    response: LaterKit,
  }),
  takeLaterKit: route({
    ...ORDERS,
    right: 'sell',
    method: 'POST',
    path: '/api/order-lines/:id/later',
    summary: 'Let a line take over the revision of its kit that is in use now',
    params: IdParams,
    body: Versioned.extend({ revision: z.number().int() }),
    response: Numbered,
  }),
};
