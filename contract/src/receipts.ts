import { z } from 'zod';
import { Positive, Price } from './amounts.ts';
import { Decimal, Id, IdParams, OfItem, Remark, route } from './common.ts';
import { Posted } from './ledger.ts';
import { TrackedIn } from './tracking.ts';

/** What a receipt cost, for an invoice that says otherwise. */
export const ReceiptPrices = z.object({
  number: z.string(),
  undone: z.boolean(),
  lines: z.array(
    z.object({
      lineId: Id,
      ...OfItem,
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

export const receiptRoutes = {
  receive: route({
    method: 'POST',
    path: '/api/receipts',
    tag: 'Stock',
    right: 'receive',
    summary: 'Receive goods with their cost, or enter opening stock',
    body: z.object({
      kind: z.enum(['receipt', 'opening']),
      remark: Remark.default(''),
      lines: z
        .array(z.object({ itemId: Id, binId: Id, quantity: Positive, unitCost: Price, ...TrackedIn }))
        .min(1)
        .max(500),
    }),
    response: Posted,
  }),
  receiptPrices: route({
    method: 'GET',
    path: '/api/documents/:id/prices',
    tag: 'Stock',
    right: 'look',
    summary: 'What a receipt cost, line by line, and how much is still here',
    params: IdParams,
    response: ReceiptPrices,
  }),
  postPrices: route({
    method: 'POST',
    path: '/api/documents/:id/prices',
    tag: 'Stock',
    right: 'value',
    summary: 'Post invoiced costs: onto stock still here, the rest as a cost difference',
    params: IdParams,
    body: z.object({
      remark: Remark.default(''),
      lines: z
        .array(z.object({ lineId: Id, unitCost: Price }))
        .min(1)
        .max(500),
    }),
    response: Posted,
  }),
};
