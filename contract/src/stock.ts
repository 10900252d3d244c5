import { reasonUses } from '@yosegi/core/stock';
import { z } from 'zod';
import { Change, Positive, Price } from './amounts.ts';
import { Override } from './builds.ts';
import { Day, Decimal, Id, IdParams, JobTag, Name, OfItem, PageQuery, pageOf, Remark, route } from './common.ts';
import { Item } from './items.ts';
import { Posted } from './ledger.ts';
import { BinKind } from './places.ts';
import { BinQuantity, Tracked, TrackedIn } from './tracking.ts';

/** Everything that stands anywhere of some items: bin by bin, lot by lot. */
export const StockPlaces = pageOf(
  z.object({
    item: Item,
    places: z.array(
      z.object({
        binId: Id,
        bin: z.string(),
        store: z.string(),
        kind: BinKind,
        /** The build on whose bench it stands. */
        build: z.string().nullable(),
        lot: z.string().nullable(),
        bestBefore: z.string().nullable(),
        /** As they are typed: "SC-0101..0104". */
        serials: z.string(),
        held: z.string().nullable(),
        quantity: Decimal,
        /** What open builds will take of it, if it is picked in walking order. */
        promised: Decimal,
        free: Decimal,
      }),
    ),
  }),
);
export type StockPlaces = z.infer<typeof StockPlaces>;

/** One item as it stood at the end of a day. */
export const StockThen = z.object({
  ...OfItem,
  quantity: Decimal,
  value: Decimal,
});
export type StockThen = z.infer<typeof StockThen>;

/** Why stock is adjusted or held, in the owner's words. */
export const ReasonUse = z.enum(reasonUses);
export const Reason = z.object({ id: Id, name: z.string(), usedFor: ReasonUse });
export type Reason = z.infer<typeof Reason>;

/** Something that was overridden and has not been put right, with what would settle it. */
export const PutRight = z.object({
  id: Id,
  itemId: Id.nullable(),
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  binId: Id.nullable(),
  bin: z.string().nullable(),
  /** What the books have there now: below zero while it is not settled. */
  quantity: Decimal.nullable(),
  /** What is there of it in other bins: it may be there that it was taken from. */
  elsewhere: z.array(z.object({ binId: Id, bin: z.string(), quantity: Decimal })),
  /** An open order that would settle it when it comes. */
  orderId: Id.nullable(),
  order: z.string().nullable(),
  reason: z.string(),
  person: z.string(),
  at: z.string(),
  documentId: Id.nullable(),
  buildId: Id.nullable(),
  source: z.string(),
});
export type PutRight = z.infer<typeof PutRight>;

export const stockRoutes = {
  reasons: route({
    method: 'GET',
    path: '/api/reasons',
    tag: 'Stock',
    right: 'look',
    summary: 'Why stock is adjusted or held',
    response: z.array(Reason),
  }),
  createReason: route({
    method: 'POST',
    path: '/api/reasons',
    tag: 'Stock',
    right: 'set-up',
    summary: 'Add a reason for adjustments or holds',
    body: z.object({ name: Name, usedFor: ReasonUse.default('adjustment') }),
    response: Reason,
  }),
  transfer: route({
    method: 'POST',
    path: '/api/transfers',
    tag: 'Stock',
    right: 'move-stock',
    summary: 'Move goods between bins; value goes with them',
    body: z.object({
      remark: Remark.default(''),
      lines: z
        .array(z.object({ itemId: Id, fromBinId: Id, toBinId: Id, quantity: Positive, ...Tracked }))
        .min(1)
        .max(500),
      override: Override.optional(),
    }),
    response: Posted,
  }),
  adjust: route({
    method: 'POST',
    path: '/api/adjustments',
    tag: 'Stock',
    right: 'move-stock',
    summary: 'Correct stock to what is actually there, with a reason',
    body: z.object({
      reasonId: Id,
      remark: Remark.default(''),
      jobTag: JobTag,
      lines: z
        .array(
          z.object({
            itemId: Id,
            binId: Id,
            /** What is found (above zero) or gone (below zero). */
            change: Change,
            /** What one of what is found is worth; its moving average when left out. */
            unitCost: Price.nullable().default(null),
            ...TrackedIn,
          }),
        )
        .min(1)
        .max(500),
      override: Override.optional(),
    }),
    response: Posted,
  }),
  itemBins: route({
    method: 'GET',
    path: '/api/items/:id/bins',
    tag: 'Stock',
    right: 'look',
    summary: 'Stock of an item by bin, with benches',
    params: IdParams,
    response: z.array(BinQuantity.extend({ kind: BinKind, build: z.string().nullable() })),
  }),
  stockPlaces: route({
    method: 'GET',
    path: '/api/stock-places',
    tag: 'Stock',
    right: 'look',
    summary: 'Stock by item, bin, lot and serial number, with promised, on hold and free',
    query: PageQuery.extend({
      storeId: z.coerce.number().int().positive().optional(),
      binId: z.coerce.number().int().positive().optional(),
      held: z.stringbool().default(false),
      /** A part of an item's code or name, of a lot or a serial. */
      q: z.string().max(100).optional(),
    }),
    response: StockPlaces,
  }),
  stockOn: route({
    method: 'GET',
    path: '/api/stock-on',
    tag: 'Stock',
    right: 'look',
    summary: 'Stock at the end of a day, by item, with its value',
    query: PageQuery.extend({ day: Day, q: z.string().max(100).optional() }),
    response: pageOf(StockThen).extend({ day: z.string(), value: Decimal }),
  }),
  stockValue: route({
    method: 'GET',
    path: '/api/stock-value',
    tag: 'Stock',
    right: 'look',
    summary: 'Stock value at the end of each day on which it changed',
    query: z.object({ itemId: z.coerce.number().int().positive().optional() }),
    response: z.array(z.object({ day: z.string(), value: Decimal })),
  }),
  revalue: route({
    method: 'POST',
    path: '/api/revaluations',
    tag: 'Stock',
    right: 'value',
    summary: 'Give the stock of some items a new cost',
    body: z.object({
      remark: Remark.default(''),
      /** The new cost becomes their standard too. */
      asStandard: z.boolean().default(false),
      lines: z
        .array(z.object({ itemId: Id, unitCost: Price }))
        .min(1)
        .max(500),
    }),
    response: Posted,
  }),
  putRight: route({
    method: 'GET',
    path: '/api/put-right',
    tag: 'Stock',
    right: 'look',
    summary: 'What went below zero or was overridden, with what would settle each',
    response: z.array(PutRight),
  }),
  settle: route({
    method: 'POST',
    path: '/api/put-right/:id/settle',
    tag: 'Stock',
    right: 'move-stock',
    summary: 'Settle one in one step: by stock found, by a move, or by taking it off the list',
    params: IdParams,
    body: z.discriminatedUnion('by', [
      /** The books were wrong: what is missing was there. */
      z.object({ by: z.literal('adjustment'), reasonId: Id, remark: Remark.default('') }),
      /** It was taken from another bin. */
      z.object({ by: z.literal('transfer'), fromBinId: Id, remark: Remark.default('') }),
      /** No posting can settle it, and somebody has looked. */
      z.object({ by: z.literal('seen'), remark: Remark.min(1) }),
    ]),
    response: z.object({ document: Posted.nullable() }),
  }),
};
