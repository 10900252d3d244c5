import { z } from 'zod';
import { percentUpTo } from './amounts.ts';
import {
  Code,
  Decimal,
  Id,
  IdParams,
  Name,
  PageQuery,
  pageOf,
  Remark,
  route,
  Saved,
  ShortText,
  Version,
} from './common.ts';
import { Earned } from './earned.ts';
import { OrderRow } from './orders.ts';

const Lines = z.string().trim().max(400);

export const CustomerInput = z.object({
  code: Code,
  name: Name,
  contact: ShortText.default(''),
  email: z.union([z.literal(''), z.email()]).default(''),
  phone: ShortText.default(''),
  /** Lines of the address as printed. */
  billing: Lines.default(''),
  /** Where goods go; empty: to the billing address. */
  delivery: Lines.default(''),
  discount: percentUpTo(100).prefault('0'),
  /** Days a delivery is on its way. */
  transportDays: z.number().int().min(0).max(365).nullable().default(null),
  /** Days in which they may send something back; null for ever. */
  returnDays: z.number().int().min(0).max(9999).nullable().default(null),
  note: Remark.default(''),
  fields: z
    .array(z.object({ name: z.string().trim().min(1).max(60), value: z.string().trim().max(500) }))
    .max(40)
    .default([]),
});
export type CustomerInput = z.output<typeof CustomerInput>;

export const CustomerRow = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  contact: z.string(),
  email: z.string(),
  phone: z.string(),
  discount: Decimal,
  archived: z.boolean(),
  /** Orders that are neither over nor a quote. */
  openOrders: z.number().int(),
  version: Version,
});
export type CustomerRow = z.infer<typeof CustomerRow>;

const CUSTOMERS = { tag: 'Orders' } as const;

export const customerRoutes = {
  customers: route({
    ...CUSTOMERS,
    right: 'look',
    method: 'GET',
    path: '/api/customers',
    summary: 'Customers by name',
    query: PageQuery.extend({
      q: z.string().max(100).optional(),
      show: z.enum(['active', 'archived']).default('active'),
    }),
    response: pageOf(CustomerRow),
  }),
  customer: route({
    ...CUSTOMERS,
    right: 'look',
    method: 'GET',
    path: '/api/customers/:id',
    summary: 'One customer with what they have ordered',
    params: IdParams,
    response: CustomerRow.extend({
      billing: z.string(),
      delivery: z.string(),
      transportDays: z.number().int().nullable(),
      returnDays: z.number().int().nullable(),
      note: z.string(),
      fields: z.array(z.object({ name: z.string(), value: z.string() })),
      orders: z.array(OrderRow),
      /** What has left for them, the newest first. */
      shipments: z.array(
        z.object({
          id: Id,
          number: z.string(),
          at: z.string(),
          orderId: Id,
          order: z.string(),
          carrier: z.string(),
          tracking: z.string(),
          sold: Decimal,
          cost: Decimal,
        }),
      ),
      earned: Earned,
      usual: z.array(
        z.object({
          itemId: Id,
          code: z.string(),
          name: z.string(),
          unit: z.string(),
          quantity: Decimal,
          orders: z.number().int(),
        }),
      ),
    }),
  }),
  createCustomer: route({
    ...CUSTOMERS,
    right: 'sell',
    method: 'POST',
    path: '/api/customers',
    summary: 'Add a customer',
    body: CustomerInput,
    response: Saved,
  }),
  updateCustomer: route({
    ...CUSTOMERS,
    right: 'sell',
    method: 'PUT',
    path: '/api/customers/:id',
    summary: 'Change a customer',
    params: IdParams,
    body: CustomerInput.extend({ version: Version }),
    response: Saved,
  }),
  archiveCustomer: route({
    ...CUSTOMERS,
    right: 'sell',
    method: 'POST',
    path: '/api/customers/:id/archive',
    summary: 'Archive a customer, or bring them back',
    params: IdParams,
    body: z.object({ archived: z.boolean(), version: Version }),
    response: Saved,
  }),
};
