import { orderStates, sentHows } from '@yosegi/core/buying';
import { parseDecimal, type Quantity } from '@yosegi/core/number';
import { z } from 'zod';
import { Change, FromZero, Positive, Price } from './amounts.ts';
import { Day, Decimal, Id, IdParams, Numbered, OfItem, PageQuery, pageOf, Remark, route, Version } from './common.ts';
import { Measure, PriceBreak, Tracking } from './items.ts';
import { Posted } from './ledger.ts';
import { Announced, Mail } from './mail.ts';
import { ExpectedLead, LearntLead } from './suppliers.ts';
import { TrackedIn } from './tracking.ts';

export const OrderState = z.enum(orderStates);
export type OrderState = z.infer<typeof OrderState>;
export const SentHow = z.enum(sentHows);
export type SentHow = z.infer<typeof SentHow>;

/** What a build or an order of a customer had bought for it. */
export const BoughtFor = z.object({
  id: Id,
  number: z.string(),
  code: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  quantity: Decimal,
  /** Whether it is still to come. */
  open: z.boolean(),
});
export type BoughtFor = z.infer<typeof BoughtFor>;

/** An order of a customer that something is bought for. */
const PurchaseForOrder = z.object({ orderId: Id, number: z.string(), customer: z.string(), quantity: Decimal });
/** A build that a line is bought for, and how much of it. */
const PurchaseNeed = z.object({ buildId: Id, build: z.string(), product: z.string(), quantity: Decimal });

export const PurchaseLine = z.object({
  id: Id,
  ...OfItem,
  measures: z.array(Measure),
  tracking: Tracking,
  serialPattern: z.string().nullable(),
  barcode: z.string().nullable(),
  homeBinId: Id.nullable(),
  supplierCode: z.string(),
  quantity: Decimal,
  /** For one stock unit. */
  price: Decimal,
  worth: Decimal,
  wantedOn: z.string().nullable(),
  confirmedQuantity: Decimal.nullable(),
  confirmedOn: z.string().nullable(),
  /** When it should come, as far as is known. */
  expectedOn: z.string().nullable(),
  late: z.boolean(),
  received: Decimal,
  open: Decimal,
  closed: z.boolean(),
  statedLeadDays: z.number().int().nullable(),
  learntLead: LearntLead.nullable(),
  /** What is reckoned with. */
  lead: ExpectedLead.nullable(),
  needs: z.array(PurchaseNeed),
  orders: z.array(PurchaseForOrder),
});
export type PurchaseLine = z.infer<typeof PurchaseLine>;

export const PurchaseOrderRow = z.object({
  id: Id,
  number: z.string(),
  supplierId: Id,
  supplierCode: z.string(),
  supplier: z.string(),
  state: OrderState,
  lines: z.number().int(),
  worth: Decimal,
  /** The first day on which something open should come. */
  expectedOn: z.string().nullable(),
  late: z.boolean(),
  /** Partly come, the rest still open. */
  backOrder: z.boolean(),
  /** A delivery is announced and not received yet. */
  announced: z.boolean(),
  madeAt: z.string(),
  version: Version,
});
export type PurchaseOrderRow = z.infer<typeof PurchaseOrderRow>;

/** What purchase orders are sorted by: the day they were made, or the first day on which something should come, … */
export const PurchaseSort = z.enum(['made', 'due', 'supplier', 'worth']);
export type PurchaseSort = z.infer<typeof PurchaseSort>;

export const PurchaseOrder = PurchaseOrderRow.omit({ lines: true }).extend({
  remark: z.string(),
  jobTag: z.string(),
  reference: z.string(),
  wantedOn: z.string().nullable(),
  madeBy: z.string(),
  sentAt: z.string().nullable(),
  sentBy: z.string().nullable(),
  sentHow: SentHow.nullable(),
  confirmedAt: z.string().nullable(),
  lines: z.array(PurchaseLine),
  receipts: z.array(
    z.object({
      id: Id,
      number: z.string(),
      at: z.string(),
      person: z.string(),
      deliveryNote: z.string(),
      undone: z.boolean(),
    }),
  ),
  mail: z.array(Mail.omit({ content: true })),
  announcedDelivery: Announced.nullable(),
});
export type PurchaseOrder = z.infer<typeof PurchaseOrder>;

export const PurchaseLineInput = z.object({
  itemId: Id,
  quantity: Positive,
  price: Price,
  wantedOn: Day.nullable().default(null),
  needs: z
    .array(z.object({ buildId: Id, quantity: Change }))
    .max(100)
    .default([]),
  orders: z
    .array(z.object({ orderId: Id, quantity: Change }))
    .max(100)
    .default([]),
});
export const PurchaseOrderInput = z.object({
  supplierId: Id,
  wantedOn: Day.nullable().default(null),
  remark: Remark.default(''),
  lines: z.array(PurchaseLineInput).max(500),
});
export type PurchaseOrderInput = z.infer<typeof PurchaseOrderInput>;

/** An offer of a supplier for an item. */
export const Offer = z.object({
  supplierId: Id,
  supplierCode: z.string(),
  supplier: z.string(),
  code: z.string(),
  price: Decimal,
  pack: Decimal,
  minimum: Decimal,
  leadDays: z.number().int().nullable(),
  /** From so much on, one costs so much; the smallest quantity first. */
  breaks: z.array(PriceBreak),
  learnt: LearntLead.nullable(),
  /** What is reckoned with, and the day it would come if it were ordered today. */
  lead: ExpectedLead.nullable(),
  expectedOn: z.string().nullable(),
});
export type Offer = z.infer<typeof Offer>;

/** Something that has to be bought, and from whom. */
export const BuyRow = z.object({
  ...OfItem,
  measures: z.array(Measure),
  usable: Decimal,
  promised: Decimal,
  /** Open orders and builds. */
  coming: Decimal,
  /** In orders that are not sent yet. */
  drafted: Decimal,
  reorderPoint: Decimal.nullable(),
  /** What is missing for every promise and the reorder point. */
  needed: Decimal,
  /** What is missing for promises alone: builds wait for it. */
  short: Decimal,
  needs: z.array(PurchaseNeed),
  /** Orders of customers that nothing brings it to yet, in the turn in which they are served. */
  orders: z.array(PurchaseForOrder),
  /** The best first, by what was asked for. */
  offers: z.array(Offer),
  /** Whole packs of the best offer; what is needed while nobody offers it. */
  quantity: Decimal,
});
export type BuyRow = z.infer<typeof BuyRow>;

const Versioned = z.object({ version: Version });
const BUYING = { tag: 'Buying' } as const;

/** Some of an item that will come: an order of ours or a build. */
export const ComingRow = z.object({
  source: z.enum(['purchase', 'build']),
  id: Id,
  /** Of an order, its line; of a build, itself. */
  lineId: Id,
  number: z.string(),
  /** The supplier, or how far the build is. */
  from: z.string(),
  quantity: Decimal,
  /** The day it comes: as its supplier said, or when a build can be done. */
  on: z.string().nullable(),
  /** It comes after the day it was wanted, or that day has passed. */
  late: z.boolean(),
});
export type ComingRow = z.infer<typeof ComingRow>;

/** The most items that are asked for at once. */
const MOST_NEEDED = 500;
/** Items by id and how much of each, like "12x3.5,40x2"; an item once. */
const NeedText = z
  .string()
  .max(12_000)
  .transform((text, { issues, value }) => {
    const needs = new Map<number, Quantity>();
    try {
      for (const part of text.split(',')) {
        const [, id, amount] = /^(\d{1,15})x([\d.]{1,20})$/.exec(part) ?? [];
        if (!id || !amount) throw new Error(part);
        needs.set(Number(id), parseDecimal(amount) as Quantity);
      }
      if (needs.size > MOST_NEEDED) throw new Error('too many');
    } catch {
      const message = `Send up to ${MOST_NEEDED} items with an amount each, like 12x3.5,40x2.`;
      issues.push({ code: 'custom', input: value, message });
    }
    return needs as ReadonlyMap<number, Quantity>;
  });

/** The day on which a line of an order is expected. */
const ExpectedOn = z.object({ lineId: Id, on: Day.nullable() });

export const buyingRoutes = {
  coming: route({
    ...BUYING,
    right: 'look',
    method: 'GET',
    path: '/api/items/:id/coming',
    summary: 'What is on order and being built of an item, earliest first',
    params: IdParams,
    response: z.array(ComingRow),
  }),
  buyList: route({
    ...BUYING,
    right: 'look',
    method: 'GET',
    path: '/api/buy-list',
    summary: 'What to buy for every promise and reorder point, with offers and reasons',
    query: z.object({
      by: z.enum(['cheapest', 'fastest', 'usual']).default('cheapest'),
      /** What a question of Cover lacks, like "12x3.5,40x2"; everything that is short where it is left out. */
      need: NeedText.optional(),
    }),
    response: z.array(BuyRow),
  }),
  purchases: route({
    ...BUYING,
    right: 'look',
    method: 'GET',
    path: '/api/purchase-orders',
    summary: 'Purchase orders, newest first by default',
    query: PageQuery.extend({
      show: z.enum(['open', 'draft', 'late', 'back-order', 'over', 'all']).default('open'),
      supplierId: z.coerce.number().int().positive().optional(),
      /** A part of an order’s or delivery note’s number, of the supplier or of an item on it. */
      q: z.string().max(100).optional(),
      sort: PurchaseSort.default('made'),
      down: z.stringbool().default(true),
    }),
    response: pageOf(PurchaseOrderRow),
  }),
  purchaseCounts: route({
    ...BUYING,
    right: 'look',
    method: 'GET',
    path: '/api/purchase-order-counts',
    summary: 'Purchase orders by status: open, drafts, late, on their way',
    response: z.object({ open: z.number(), drafts: z.number(), late: z.number(), announced: z.number() }),
  }),
  purchase: route({
    ...BUYING,
    right: 'look',
    method: 'GET',
    path: '/api/purchase-orders/:id',
    summary: 'One purchase order with its lines, receipts and mail',
    params: IdParams,
    response: PurchaseOrder,
  }),
  createPurchases: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders',
    summary: 'Draft purchase orders, one or several at once, and send them if told how',
    body: z.object({ orders: z.array(PurchaseOrderInput).min(1).max(50), send: SentHow.nullable().default(null) }),
    response: z.object({ orders: z.array(Numbered) }),
  }),
  savePurchase: route({
    ...BUYING,
    right: 'buy',
    method: 'PUT',
    path: '/api/purchase-orders/:id',
    summary: 'Change a draft, and send it if told how',
    params: IdParams,
    body: PurchaseOrderInput.extend({ version: Version, send: SentHow.nullable().default(null) }),
    response: Numbered,
  }),
  sendPurchase: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders/:id/send',
    summary: 'Send an order to the supplier’s mailbox, as a print or as a file',
    params: IdParams,
    body: Versioned.extend({ how: SentHow }),
    response: Numbered,
  }),
  confirmPurchase: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders/:id/confirm',
    summary: 'Enter what the supplier promised by phone or letter',
    params: IdParams,
    body: Versioned.extend({
      reference: z.string().trim().max(60).default(''),
      lines: z
        .array(z.object({ lineId: Id, quantity: FromZero, on: Day.nullable() }))
        .min(1)
        .max(500),
    }),
    response: Numbered,
  }),
  expectOn: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders/expect',
    summary: 'Expect lines of sent orders on other days, whatever their suppliers promised; answers the days before',
    body: z.object({ lines: z.array(ExpectedOn).min(1).max(100) }),
    response: z.object({ before: z.array(ExpectedOn) }),
  }),
  closePurchase: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders/:id/close',
    summary: 'Close lines whose rest will not arrive',
    params: IdParams,
    body: Versioned.extend({ lineIds: z.array(Id).min(1).max(500) }),
    response: Numbered,
  }),
  cancelPurchase: route({
    ...BUYING,
    right: 'buy',
    method: 'POST',
    path: '/api/purchase-orders/:id/cancel',
    summary: 'Cancel an order before anything has arrived',
    params: IdParams,
    body: Versioned,
    response: Numbered,
  }),
  receivePurchase: route({
    ...BUYING,
    right: 'receive',
    method: 'POST',
    path: '/api/purchase-orders/:id/receipts',
    summary: 'Receive some or all of an order',
    params: IdParams,
    body: z.object({
      deliveryNote: z.string().trim().max(60).default(''),
      remark: Remark.default(''),
      /** The announced delivery that this is. */
      mailId: Id.nullable().default(null),
      /** More may come than was ordered. */
      acceptOver: z.boolean().default(false),
      lines: z
        .array(
          z.object({
            lineId: Id,
            binId: Id,
            quantity: Positive,
            unitCost: Price,
            ...TrackedIn,
            /** What is still open after this will not come. */
            closeRest: z.boolean().default(false),
          }),
        )
        .min(1)
        .max(500),
    }),
    /** With how many lines of the order are still to come. */
    response: Posted.extend({ openLines: z.number().int() }),
  }),
};
