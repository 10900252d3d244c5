import { outWays } from '@yosegi/core/builds';
import { z } from 'zod';
import { Day, Decimal, Id, IdParams, PageQuery, pageOf, Remark, route } from './common.ts';
import { DocumentKind } from './document-kinds.ts';

/** A document that was posted, as the command that posted it answers. */
export const Posted = z.object({ id: Id, number: z.string() });
export type Posted = z.infer<typeof Posted>;

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

/** What a document was posted for. */
const PostedFor = z.object({ kind: z.enum(['build', 'order', 'return']), id: Id, number: z.string() });

export const StockDocument = z.object({
  id: Id,
  number: z.string(),
  kind: DocumentKind,
  at: z.string(),
  person: z.string(),
  remark: z.string(),
  /** The build, the customer's order or the return it was posted for. */
  for: PostedFor.nullable(),
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
      /** Why so much or so little of it. */
      because: z.string().nullable(),
    }),
  ),
  /** What else was said of a finish. */
  finished: z
    .object({
      good: Decimal,
      rejected: Decimal,
      reason: z.string().nullable(),
      writtenOff: Decimal,
      /** The day it was made where that was not the day of the document. */
      madeOn: z.string().nullable(),
      conditionBefore: z.string().nullable(),
      conditionAfter: z.string().nullable(),
      /** What a rework took out of its unit, and how much of its worth went with it. */
      out: z.array(
        z.object({
          name: z.string(),
          unit: z.string(),
          quantity: Decimal,
          went: z.enum(outWays),
          share: Decimal,
          value: Decimal,
        }),
      ),
    })
    .nullable(),
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
  /** What it was mostly about, by value: how much of which item, and how many other items; null where nothing moved. */
  item: z.object({ id: Id, code: z.string(), name: z.string(), unit: z.string(), quantity: Decimal }).nullable(),
  others: z.number().int(),
  /** The build or the customer's order it was posted for. */
  for: PostedFor.nullable(),
  /** Who brought it, or whom it went to. */
  party: z.string().nullable(),
});
export type DocumentRow = z.infer<typeof DocumentRow>;

export const ledgerRoutes = {
  movements: route({
    method: 'GET',
    path: '/api/movements',
    tag: 'Stock',
    right: 'look',
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
  documents: route({
    method: 'GET',
    path: '/api/documents',
    tag: 'Stock',
    right: 'look',
    summary: 'Posted documents, the newest first',
    query: PageQuery.extend({ kind: DocumentKind.optional() }),
    response: pageOf(DocumentRow),
  }),
  document: route({
    method: 'GET',
    path: '/api/documents/:id',
    tag: 'Stock',
    right: 'look',
    summary: 'One posted document with its movements and values',
    params: IdParams,
    response: StockDocument,
  }),
  undoDocument: route({
    method: 'POST',
    path: '/api/documents/:id/undo',
    tag: 'Stock',
    // What the posting itself needed is asked for as well.
    right: 'look',
    summary: 'Undo a posting by a counter-document: by who may post the like',
    params: IdParams,
    body: z.object({ remark: Remark.default('') }),
    response: Posted,
  }),
};
