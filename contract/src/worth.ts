import { z } from 'zod';
import { Decimal, Id, IdParams, Remark, route } from './common.ts';
import { StockDocument } from './stock.ts';

/** What a receipt cost, for an invoice that says otherwise. */
export const ReceiptPrices = z.object({
  number: z.string(),
  undone: z.boolean(),
  lines: z.array(
    z.object({
      lineId: Id,
      itemId: Id,
      code: z.string(),
      name: z.string(),
      unit: z.string(),
      decimals: z.number().int(),
      /** Its lot, or its serials. */
      piece: z.string().nullable(),
      quantity: Decimal,
      unitCost: Decimal,
      value: Decimal,
      /** How much of it is still here, as far as anyone can tell. */
      here: Decimal,
    }),
  ),
});
export type ReceiptPrices = z.infer<typeof ReceiptPrices>;

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

export const worthRoutes = {
  receiptPrices: route({
    method: 'GET',
    path: '/api/documents/:id/prices',
    tag: 'Stock',
    summary: 'What a receipt cost line by line, and how much of it is still here',
    params: IdParams,
    response: ReceiptPrices,
  }),
  postPrices: route({
    method: 'POST',
    path: '/api/documents/:id/prices',
    tag: 'Stock',
    access: 'owner',
    summary: 'Post what the invoice says otherwise: onto what is still here, the rest as a cost difference',
    params: IdParams,
    body: z.object({
      remark: Remark.default(''),
      lines: z
        .array(z.object({ lineId: Id, unitCost: Decimal }))
        .min(1)
        .max(500),
    }),
    response: StockDocument,
  }),
  revalue: route({
    method: 'POST',
    path: '/api/revaluations',
    tag: 'Stock',
    access: 'owner',
    summary: 'Make what is there of some items worth a new cost each',
    body: z.object({
      remark: Remark.default(''),
      /** The new cost becomes their standard too. */
      asStandard: z.boolean().default(false),
      lines: z
        .array(z.object({ itemId: Id, unitCost: Decimal }))
        .min(1)
        .max(500),
    }),
    response: StockDocument,
  }),
  putRight: route({
    method: 'GET',
    path: '/api/put-right',
    tag: 'Stock',
    summary: 'What went below zero or was overridden, with what would settle each',
    response: z.array(PutRight),
  }),
  settle: route({
    method: 'POST',
    path: '/api/put-right/:id/settle',
    tag: 'Stock',
    summary: 'Settle one in one step: by stock found, by moving from another bin, or as seen to',
    params: IdParams,
    body: z.discriminatedUnion('by', [
      /** The books were wrong: what is missing was there. */
      z.object({ by: z.literal('adjustment'), reasonId: Id, remark: Remark.default('') }),
      /** It was taken from another bin. */
      z.object({ by: z.literal('transfer'), fromBinId: Id, remark: Remark.default('') }),
      /** No posting can settle it, and somebody has looked. */
      z.object({ by: z.literal('seen'), remark: Remark.min(1) }),
    ]),
    response: z.object({ document: StockDocument.nullable() }),
  }),
};
