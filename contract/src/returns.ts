import { conditions, outcomes, returnStates, settledBy } from '@yosegi/core/returns';
import { z } from 'zod';
import { Positive, percentUpTo } from './amounts.ts';
import {
  Day,
  Decimal,
  Id,
  IdParams,
  Numbered,
  OfItem,
  PageQuery,
  Printed,
  pageOf,
  Remark,
  route,
  Version,
} from './common.ts';
import { Tracking } from './items.ts';

const RETURNS = { tag: 'Take apart' } as const;

export const Condition = z.enum(conditions);

/** Units by serial, and lots. */
const Named = { serials: z.array(z.string()), lots: z.array(z.string()) };

/** A line as it left with one shipment, as far as it may come back. */
export const Returnable = z.object({
  shipmentId: Id,
  shipment: z.string(),
  shippedAt: z.string(),
  orderId: Id,
  order: z.string(),
  customerId: Id,
  customer: z.string(),
  lineId: Id,
  ...OfItem,
  isKit: z.boolean(),
  shipped: Decimal,
  /** What is back, and what is still with them; what is announced is. */
  returned: Decimal,
  left: Decimal,
  /** Paid for one. */
  price: Decimal,
  /** Days after the last on which it may come back; null while it is in time. */
  tooLate: z.number().int().nullable(),
  /** What left for it by serial and has not come back, and the lots it was of. */
  ...Named,
  /** Announced on these returns, so that it is taken in there. */
  announced: z.array(z.object({ id: Id, number: z.string(), quantity: Decimal })),
});
export type Returnable = z.infer<typeof Returnable>;

/** One thing that came back and waits, or has been decided. */
export const ReturnPiece = z.object({
  id: Id,
  /** Of its kit: what is of several lots is one part. */
  partId: Id,
  returnId: Id,
  lineId: Id,
  ...OfItem,
  tracking: Tracking,
  homeBinId: Id.nullable(),
  lot: z.string().nullable(),
  serial: z.string().nullable(),
  quantity: Decimal,
  value: Decimal,
  /** Of it still to be decided, and what that is worth. */
  waiting: Decimal,
  waitingValue: Decimal,
  /** It was swapped in on the order; what the kit usually has. */
  insteadOf: z.string().nullable(),
  /** A bill of materials takes it apart; a rework refreshes it. */
  canApart: z.boolean(),
  canRework: z.boolean(),
  outcomes: z.array(
    z.object({
      documentId: Id,
      number: z.string(),
      outcome: z.enum(outcomes),
      quantity: Decimal,
      value: Decimal,
      bin: z.string().nullable(),
      build: z.object({ id: Id, number: z.string() }).nullable(),
      note: z.string(),
      at: z.string(),
      person: z.string(),
    }),
  ),
});
export type ReturnPiece = z.infer<typeof ReturnPiece>;

export const ReturnLine = z.object({
  id: Id,
  shipmentId: Id,
  shipment: z.string(),
  shippedAt: z.string(),
  orderId: Id,
  order: z.string(),
  orderLineId: Id,
  ...OfItem,
  isKit: z.boolean(),
  quantity: Decimal,
  reason: z.string(),
  condition: Condition,
  remark: z.string(),
  tooLate: z.number().int().nullable(),
  /** Paid for one, the percentage of it that is owed, and what that comes to; nothing for what is sent back. */
  price: Decimal,
  credit: Decimal,
  owed: Decimal,
  /** What it left with, and of it written off since. */
  value: Decimal,
  lost: Decimal,
  pieces: z.array(ReturnPiece),
  /** Which of it was announced, where somebody could tell; while it is not here, also which there are to choose from. */
  announced: z.object(Named),
  withThem: z.object(Named),
});
export type ReturnLine = z.infer<typeof ReturnLine>;

export const ReturnRow = z.object({
  id: Id,
  number: z.string(),
  state: z.enum(returnStates),
  customerId: Id,
  customer: z.string(),
  /** What it is of, in words. */
  what: z.string(),
  code: z.string(),
  reasons: z.string(),
  madeAt: z.string(),
  expectedOn: z.string().nullable(),
  arrivedAt: z.string().nullable(),
  /** Whole days that it has waited. */
  days: z.number().int(),
  /** Things that nobody has decided about. */
  waiting: z.number().int(),
  value: Decimal,
  owed: Decimal,
  version: Version,
});
export type ReturnRow = z.infer<typeof ReturnRow>;

export const ReturnDetail = ReturnRow.extend({
  remark: z.string(),
  madeBy: z.string(),
  calledOff: z.string().nullable(),
  document: z.object({ id: Id, number: z.string() }).nullable(),
  bin: z.string().nullable(),
  picture: z.string().nullable(),
  lines: z.array(ReturnLine),
  documents: z.array(z.object({ id: Id, number: z.string(), kind: z.string(), at: z.string(), undone: z.boolean() })),
});
export type ReturnDetail = z.infer<typeof ReturnDetail>;

const LineIn = z.object({
  shipmentId: Id,
  lineId: Id,
  quantity: Positive,
  reasonId: Id,
  condition: Condition,
  remark: z.string().trim().max(500).default(''),
  /** The percentage of the price that is owed; null for what is usual for its condition. */
  credit: percentUpTo(100).nullable().default(null),
  /** Which units or lots, where somebody can tell. */
  serials: z.array(Printed).max(200).default([]),
  lots: z.array(Printed).max(50).default([]),
});

/** What somebody decides of one thing. */
const Deed = z.object({
  pieceId: Id,
  quantity: Positive,
  outcome: z.enum(settledBy),
  /** Where it goes, for what goes back to the shelf; null for its home bin. */
  binId: Id.nullable().default(null),
  /** What was in the box instead, or what is broken. */
  note: z.string().trim().max(200).default(''),
});

const Figures = z.object({
  quantity: Decimal,
  returns: z.number().int(),
  value: Decimal,
  owed: Decimal,
  lost: Decimal,
});
const NamedFigures = Figures.extend({ name: z.string(), code: z.string() });

export const returnRoutes = {
  returns: route({
    ...RETURNS,
    method: 'GET',
    path: '/api/returns',
    right: 'look',
    summary: 'Returns, announced or received; open ones oldest first, others newest first',
    query: PageQuery.extend({
      state: z.enum(returnStates).optional(),
      customerId: z.coerce.number().int().positive().optional(),
      /** Of which something left for this order. */
      orderId: z.coerce.number().int().positive().optional(),
      q: z.string().max(100).optional(),
    }),
    response: pageOf(ReturnRow),
  }),
  return: route({
    ...RETURNS,
    method: 'GET',
    path: '/api/returns/:id',
    right: 'look',
    summary: 'One return with its items and what was decided',
    params: IdParams,
    response: ReturnDetail,
  }),
  waitingReturns: route({
    ...RETURNS,
    method: 'GET',
    path: '/api/returns-waiting',
    right: 'look',
    summary: 'Returned items to decide on, with their returns',
    response: z.object({ returns: z.array(ReturnDetail), announced: z.array(ReturnRow) }),
  }),
  returnable: route({
    ...RETURNS,
    method: 'GET',
    path: '/api/returnable',
    right: 'look',
    summary: 'What may be returned, by order, shipment, parcel, return, customer, serial number or lot',
    query: z.object({ q: z.string().trim().max(100).default('') }),
    response: z.array(Returnable),
  }),
  announceReturn: route({
    ...RETURNS,
    method: 'POST',
    path: '/api/returns',
    right: 'take-apart',
    summary: 'Announce a return, or receive it at once',
    body: z.object({
      lines: z.array(LineIn).min(1).max(50),
      /** They are here: they go into the returns bin at exactly what they left with. */
      arrived: z.boolean().default(false),
      /** The store they come to; null for the first. */
      storeId: Id.nullable().default(null),
      expectedOn: Day.nullable().default(null),
      remark: Remark.default(''),
    }),
    response: Numbered.extend({ documentId: Id.nullable() }),
  }),
  arriveReturn: route({
    ...RETURNS,
    method: 'POST',
    path: '/api/returns/:id/arrive',
    right: 'take-apart',
    summary: 'Receive announced goods, as many as actually came',
    params: IdParams,
    body: z.object({ version: Version, storeId: Id.nullable().default(null), lines: z.array(LineIn).min(1).max(50) }),
    response: Numbered.extend({ documentId: Id.nullable() }),
  }),
  callOffReturn: route({
    ...RETURNS,
    method: 'POST',
    path: '/api/returns/:id/call-off',
    right: 'take-apart',
    summary: 'Cancel an announced return, with a reason',
    params: IdParams,
    body: z.object({ version: Version, because: z.string().trim().min(1).max(500) }),
    response: Numbered,
  }),
  creditReturn: route({
    ...RETURNS,
    method: 'PUT',
    path: '/api/return-lines/:id/credit',
    right: 'sell',
    summary: 'Set the refund of a line, in percent of its price',
    params: IdParams,
    body: z.object({ version: Version, credit: percentUpTo(100) }),
    response: Numbered,
  }),
  settleReturns: route({
    ...RETURNS,
    method: 'POST',
    path: '/api/returns/settle',
    right: 'take-apart',
    summary: 'Process returned items: one document for each return',
    body: z.object({ deeds: z.array(Deed).min(1).max(500) }),
    response: z.object({ documents: z.array(z.object({ id: Id, number: z.string() })) }),
  }),
  reworkReturn: route({
    ...RETURNS,
    method: 'POST',
    path: '/api/return-pieces/:id/rework',
    right: 'build',
    summary: 'Start a rework that refreshes a returned piece',
    params: IdParams,
    body: z.object({ quantity: Positive, due: Day.nullable().default(null) }),
    response: z.object({ buildId: Id, build: z.string(), documentId: Id }),
  }),
  returnFigures: route({
    ...RETURNS,
    method: 'GET',
    path: '/api/return-figures',
    right: 'look',
    summary: 'Return reasons by product and customer, with damaged and missing parts and what they cost',
    query: z.object({ from: Day.optional(), to: Day.optional() }),
    response: z.object({
      all: Figures,
      reasons: z.array(NamedFigures),
      products: z.array(NamedFigures),
      customers: z.array(NamedFigures),
      parts: z.array(
        z.object({
          code: z.string(),
          name: z.string(),
          unit: z.string(),
          damaged: Decimal,
          missing: Decimal,
          notOurs: Decimal,
          lost: Decimal,
        }),
      ),
    }),
  }),
};
