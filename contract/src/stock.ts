import { z } from 'zod';
import { Override } from './builds.ts';
import { Day, Decimal, Id, IdParams, Name, PageQuery, pageOf, Remark, route } from './common.ts';
import { Item } from './items.ts';
import { BinKind } from './places.ts';
import { BinQuantity, Tracked, TrackedIn } from './tracked.ts';

export const DocumentKind = z.enum([
  'opening',
  'receipt',
  'transfer',
  'adjustment',
  'count',
  'pick',
  'put-back',
  'finish',
  'take-apart',
  'price-difference',
  'revaluation',
  'undo',
]);
export type DocumentKind = z.infer<typeof DocumentKind>;

export const Movement = z.object({
  id: Id,
  documentId: Id,
  document: z.string(),
  kind: DocumentKind,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  bin: z.string(),
  lot: z.string().nullable(),
  serial: z.string().nullable(),
  /** The build on whose bench it stands or stood. */
  build: z.string().nullable(),
  quantity: Decimal,
  value: Decimal,
  at: z.string(),
  person: z.string(),
});
export type Movement = z.infer<typeof Movement>;

export const StockDocument = z.object({
  id: Id,
  number: z.string(),
  kind: DocumentKind,
  at: z.string(),
  person: z.string(),
  remark: z.string(),
  buildId: Id.nullable(),
  build: z.string().nullable(),
  /** Why stock was adjusted, in the owner's words; null for every other kind. */
  reason: z.string().nullable(),
  overrideReason: z.string().nullable(),
  /** Who brought it, and for which order of ours; null where that is unknown or nothing was received. */
  receipt: z
    .object({
      supplierId: Id.nullable(),
      supplier: z.string().nullable(),
      orderId: Id.nullable(),
      order: z.string().nullable(),
      deliveryNote: z.string(),
    })
    .nullable(),
  /** The receipts whose price this puts right, or the documents that put the price of this receipt right. */
  prices: z.array(z.object({ id: Id, number: z.string() })),
  reverses: z.object({ id: Id, number: z.string() }).nullable(),
  reversedBy: z.object({ id: Id, number: z.string() }).nullable(),
  movements: z.array(Movement),
  values: z.array(
    z.object({ kind: z.string(), amount: Decimal, item: z.string().nullable(), text: z.string().nullable() }),
  ),
  uses: z.array(
    z.object({
      text: z.string(),
      unit: z.string(),
      planned: Decimal,
      actual: Decimal,
      cost: Decimal,
      plannedCost: Decimal,
    }),
  ),
});
export type StockDocument = z.infer<typeof StockDocument>;

export const DocumentRow = StockDocument.pick({
  id: true,
  number: true,
  kind: true,
  at: true,
  person: true,
  remark: true,
}).extend({
  value: Decimal,
  undone: z.boolean(),
});
export type DocumentRow = z.infer<typeof DocumentRow>;

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
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  quantity: Decimal,
  value: Decimal,
});
export type StockThen = z.infer<typeof StockThen>;

/** Why stock is adjusted or held, in the owner's words. */
export const ReasonUse = z.enum(['adjustment', 'hold']);
export const Reason = z.object({ id: Id, name: z.string(), usedFor: ReasonUse });
export type Reason = z.infer<typeof Reason>;

export const stockRoutes = {
  reasons: route({
    method: 'GET',
    path: '/api/reasons',
    tag: 'Stock',
    summary: 'Why stock is adjusted or held',
    response: z.array(Reason),
  }),
  createReason: route({
    method: 'POST',
    path: '/api/reasons',
    tag: 'Stock',
    access: 'owner',
    summary: 'Add a reason for adjustments or holds',
    body: z.object({ name: Name, usedFor: ReasonUse.default('adjustment') }),
    response: Reason,
  }),
  transfer: route({
    method: 'POST',
    path: '/api/transfers',
    tag: 'Stock',
    summary: 'Move goods between bins; value goes with them',
    body: z.object({
      remark: Remark.default(''),
      lines: z
        .array(z.object({ itemId: Id, fromBinId: Id, toBinId: Id, quantity: Decimal, ...Tracked }))
        .min(1)
        .max(500),
      override: Override.optional(),
    }),
    response: StockDocument,
  }),
  adjust: route({
    method: 'POST',
    path: '/api/adjustments',
    tag: 'Stock',
    summary: 'Bring the books to what is really there, with a reason',
    body: z.object({
      reasonId: Id,
      remark: Remark.default(''),
      lines: z
        .array(
          z.object({
            itemId: Id,
            binId: Id,
            /** What is found (above zero) or gone (below zero). */
            change: Decimal,
            /** What one of what is found is worth; its moving average when left out. */
            unitCost: Decimal.nullable().default(null),
            ...TrackedIn,
          }),
        )
        .min(1)
        .max(500),
      override: Override.optional(),
    }),
    response: StockDocument,
  }),
  itemBins: route({
    method: 'GET',
    path: '/api/items/:id/bins',
    tag: 'Stock',
    summary: 'Where an item stands, bin by bin, with benches',
    params: IdParams,
    response: z.array(BinQuantity.extend({ kind: BinKind, build: z.string().nullable() })),
  }),
  movements: route({
    method: 'GET',
    path: '/api/movements',
    tag: 'Stock',
    summary: 'Movements, the newest first',
    query: PageQuery.extend({
      itemId: z.coerce.number().int().positive().optional(),
      kind: DocumentKind.optional(),
      binId: z.coerce.number().int().positive().optional(),
      personId: z.coerce.number().int().positive().optional(),
      /** First and last day, both included. */
      from: Day.optional(),
      to: Day.optional(),
      /** A part of an item's code or name, of a document's number or remark. */
      q: z.string().max(100).optional(),
    }),
    response: pageOf(Movement),
  }),
  stockPlaces: route({
    method: 'GET',
    path: '/api/stock-places',
    tag: 'Stock',
    summary: 'Stock by item, bin, lot and serial, with what of it is promised, held and free',
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
    summary: 'What was in stock at the end of a day, by item, with what it was worth',
    query: PageQuery.extend({ day: Day, q: z.string().max(100).optional() }),
    response: pageOf(StockThen).extend({ day: z.string(), value: Decimal }),
  }),
  stockValue: route({
    method: 'GET',
    path: '/api/stock-value',
    tag: 'Stock',
    summary: 'What stock was worth at the end of each day on which that changed',
    query: z.object({ itemId: z.coerce.number().int().positive().optional() }),
    response: z.array(z.object({ day: z.string(), value: Decimal })),
  }),
  documents: route({
    method: 'GET',
    path: '/api/documents',
    tag: 'Stock',
    summary: 'Posted documents, the newest first',
    query: PageQuery.extend({ kind: DocumentKind.optional() }),
    response: pageOf(DocumentRow),
  }),
  document: route({
    method: 'GET',
    path: '/api/documents/:id',
    tag: 'Stock',
    summary: 'One posted document with its movements and values',
    params: IdParams,
    response: StockDocument,
  }),
  undoDocument: route({
    method: 'POST',
    path: '/api/documents/:id/undo',
    tag: 'Stock',
    summary: 'Undo a posting by a counter-document',
    params: IdParams,
    body: z.object({ remark: Remark.default('') }),
    response: StockDocument,
  }),
  receive: route({
    method: 'POST',
    path: '/api/receipts',
    tag: 'Stock',
    summary: 'Receive goods with their cost, or enter opening stock',
    body: z.object({
      kind: z.enum(['receipt', 'opening']),
      remark: Remark.default(''),
      lines: z
        .array(z.object({ itemId: Id, binId: Id, quantity: Decimal, unitCost: Decimal, ...TrackedIn }))
        .min(1)
        .max(500),
    }),
    response: StockDocument,
  }),
};
