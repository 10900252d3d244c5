import { z } from 'zod';
import { Code, Decimal, Id, IdParams, Name, route, Version } from './common.ts';
import { Supplier } from './items.ts';

/** What deliveries of the past say of the next; null while there was none. Days from sending to coming in. */
export const LearntLead = z.object({
  deliveries: z.number().int(),
  usual: z.number().int(),
  slow: z.number().int(),
  onTime: z.number().int(),
  withDay: z.number().int(),
});
export type LearntLead = z.infer<typeof LearntLead>;

/** The days that a delivery is reckoned to take, and whether they were stated or learnt. */
export const ExpectedLead = z.object({ days: z.number().int(), from: z.enum(['stated', 'learnt']) });
export type ExpectedLead = z.infer<typeof ExpectedLead>;

/** What a supplier asks for one of our items, with what was learnt from its deliveries. */
export const SupplierItem = z.object({
  itemId: Id,
  itemCode: z.string(),
  name: z.string(),
  unit: z.string(),
  code: z.string(),
  price: Decimal,
  pack: Decimal,
  minimum: Decimal,
  leadDays: z.number().int().nullable(),
  learnt: LearntLead.nullable(),
  /** What is reckoned with. */
  lead: ExpectedLead.nullable(),
});
export type SupplierItem = z.infer<typeof SupplierItem>;
export const SupplierDetail = Supplier.extend({
  learnt: LearntLead.nullable(),
  openOrders: z.number().int(),
  openWorth: Decimal,
  offers: z.array(SupplierItem),
});
export type SupplierDetail = z.infer<typeof SupplierDetail>;

export const SupplierInput = z.object({
  code: Code,
  name: Name,
  address: z.string().trim().max(500).default(''),
  email: z.union([z.literal(''), z.email().max(200)]).default(''),
  learnLeads: z.boolean().default(true),
  deliveryDays: z.array(z.number().int().min(1).max(7)).min(1).max(7).default([1, 2, 3, 4, 5, 6, 7]),
});
export type SupplierInput = z.infer<typeof SupplierInput>;

export const supplierRoutes = {
  suppliers: route({
    method: 'GET',
    path: '/api/suppliers',
    tag: 'Items',
    right: 'look',
    summary: 'Suppliers, by code',
    response: z.array(Supplier),
  }),
  supplier: route({
    tag: 'Buying',
    right: 'look',
    method: 'GET',
    path: '/api/suppliers/:id',
    summary: 'A supplier with its prices, stated lead days and actual ones',
    params: IdParams,
    response: SupplierDetail,
  }),
  createSupplier: route({
    tag: 'Buying',
    right: 'buy',
    method: 'POST',
    path: '/api/suppliers',
    summary: 'Add a supplier',
    body: SupplierInput,
    response: Supplier,
  }),
  updateSupplier: route({
    tag: 'Buying',
    right: 'buy',
    method: 'PUT',
    path: '/api/suppliers/:id',
    summary: 'Change a supplier’s code, name, address or mail',
    params: IdParams,
    body: SupplierInput.extend({ version: Version }),
    response: Supplier,
  }),
};
