import { z } from 'zod';
import { FromZero, Positive } from './amounts.ts';
import { FinishInput, Waiting } from './builds.ts';
import { Day, Decimal, Id, IdParams, Numbered, OfItem, Remark, route, ShortText, Version } from './common.ts';
import { Posted } from './ledger.ts';
import { Tracked } from './tracking.ts';

const SHIPPING = { tag: 'Orders' } as const;

/** Some of what leaves for a line, to be built for it. */
const ForPart = z.object({ partId: Id, quantity: Positive });

/** One thing that leaves for a line and can be built. */
const Buildable = z.object({
  partId: Id,
  orderId: Id,
  order: z.string(),
  customer: z.string(),
  wantedOn: z.string().nullable(),
  ...OfItem,
  /** Still to come from shelves or builds. */
  open: Decimal,
  /** Of it what shelves give it, what is being built for it already, and what nothing brings. */
  ready: Decimal,
  building: Decimal,
  short: Decimal,
  /** The day all of it is there as it stands; '' now, null when nobody knows. */
  completeOn: z.string().nullable(),
});
export type Buildable = z.infer<typeof Buildable>;

/** A shipment as its packing slip shows it. */
export const Shipment = z.object({
  id: Id,
  number: z.string(),
  orderId: Id,
  order: z.string(),
  customer: z.string(),
  at: z.string(),
  carrier: z.string(),
  tracking: z.string(),
  remark: z.string(),
  undone: z.boolean(),
  parcels: z.array(z.string()),
  /** What they were sold for, and what left did cost. */
  worth: Decimal,
  cost: Decimal,
  lines: z.array(
    z.object({
      lineId: Id,
      code: z.string(),
      name: z.string(),
      unit: z.string(),
      decimals: z.number().int(),
      quantity: Decimal,
      price: Decimal,
      cost: Decimal,
      /** Whether what is in it stays off the paper. */
      hidden: z.boolean(),
      isKit: z.boolean(),
      /** What really left for it, with the lots and serials. */
      parts: z.array(
        z.object({
          code: z.string(),
          name: z.string(),
          unit: z.string(),
          decimals: z.number().int(),
          quantity: Decimal,
          isSerial: z.boolean(),
          pieces: z.array(z.string()),
        }),
      ),
    }),
  ),
});
export type Shipment = z.infer<typeof Shipment>;

const PartOut = { partId: Id, ...Tracked };

export const shippingRoutes = {
  lookToBuild: route({
    ...SHIPPING,
    right: 'look',
    asks: true,
    method: 'POST',
    path: '/api/orders/builds/look',
    summary: 'What can be built for some orders, what could start, and what is missing',
    body: z.object({
      orderIds: z.array(Id).min(1).max(100),
      /** What somebody chose of it; null for all that nothing else brings. */
      chosen: z.array(ForPart).max(500).nullable().default(null),
    }),
    response: z.object({
      lines: z.array(Buildable),
      /** What was chosen, product by product. */
      products: z.array(
        z.object({
          itemId: Id,
          code: z.string(),
          name: z.string(),
          unit: z.string(),
          quantity: Decimal,
          canStart: Decimal,
        }),
      ),
      missing: z.array(Waiting),
    }),
  }),
  buildForOrders: route({
    ...SHIPPING,
    right: 'plan',
    method: 'POST',
    path: '/api/orders/builds',
    summary: 'Plan builds for order lines; what they finish is kept for those orders',
    body: z.object({
      chosen: z
        .array(
          ForPart.extend({
            /** What open builds made for it when somebody chose; a plan made since then is told of, not added to. */
            building: FromZero.nullable().default(null),
          }),
        )
        .min(1)
        .max(500),
      /** One build of a product for all of them, or one for each order. */
      together: z.enum(['per-product', 'per-order']).default('per-product'),
      /** The day they are due; null for the first day that any of the lines is wanted. */
      due: Day.nullable().default(null),
    }),
    response: z.object({ builds: z.array(Numbered) }),
  }),
  setBuildFor: route({
    ...SHIPPING,
    right: 'plan',
    method: 'PUT',
    path: '/api/builds/:id/orders',
    summary: 'Set which order lines an open build is for, and how many; none makes it for stock',
    params: IdParams,
    body: z.object({ version: Version, orders: z.array(z.object({ partId: Id, quantity: FromZero })).max(200) }),
    response: Numbered,
  }),
  packOrder: route({
    ...SHIPPING,
    right: 'pick',
    method: 'POST',
    path: '/api/orders/:id/packs',
    summary: 'Bring goods from bins into the parcel of an order',
    params: IdParams,
    body: z.object({
      lines: z
        .array(z.object({ ...PartOut, binId: Id, quantity: Positive }))
        .min(1)
        .max(200),
    }),
    /** With how many things are still to be picked, and the parcel. */
    response: Posted.extend({ openLines: z.number().int(), parcel: z.string() }),
  }),
  unpackOrder: route({
    ...SHIPPING,
    right: 'pick',
    method: 'POST',
    path: '/api/orders/:id/put-backs',
    summary: 'Put goods from the parcel of an order back on a shelf',
    params: IdParams,
    body: z.object({
      lines: z
        .array(
          z.object({
            ...PartOut,
            quantity: Positive,
            /** Null for the bin it came from. */
            binId: Id.nullable().default(null),
          }),
        )
        .min(1)
        .max(200),
    }),
    response: Posted,
  }),
  shipment: route({
    ...SHIPPING,
    right: 'look',
    method: 'GET',
    path: '/api/shipments/:id',
    summary: 'What left with a shipment',
    params: IdParams,
    response: Shipment,
  }),
  shipOrder: route({
    ...SHIPPING,
    right: 'ship',
    method: 'POST',
    path: '/api/orders/:id/shipments',
    summary: 'Ship some or all of an order: from its parcel first, the rest from the shelves',
    params: IdParams,
    body: z.object({
      version: Version,
      /** The parcel that somebody has in hand; null when nobody said. */
      parcelId: Id.nullable().default(null),
      lines: z
        .array(
          z.object({
            lineId: Id,
            quantity: Positive,
            /** Lots or serials of a thing that leaves for the line, and the bin it is taken from first. */
            parts: z
              .array(z.object({ ...PartOut, binId: Id.nullable().default(null) }))
              .max(50)
              .default([]),
          }),
        )
        .min(1)
        .max(200),
      /** Builds for this order that are finished by shipping it, with what they really used. */
      finishes: z
        .array(FinishInput.extend({ buildId: Id }))
        .max(50)
        .default([]),
      carrier: ShortText.default(''),
      tracking: ShortText.default(''),
      remark: Remark.default(''),
    }),
    /** With how many lines of the order are still open. */
    response: Posted.extend({ openLines: z.number().int() }),
  }),
};
