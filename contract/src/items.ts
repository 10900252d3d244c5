import { z } from 'zod';
import { Code, Decimal, Id, IdParams, Name, PageQuery, pageOf, Remark, route, Version } from './common.ts';

export const Unit = z.object({ id: Id, code: z.string(), name: z.string(), decimals: z.number().int() });
export type Unit = z.infer<typeof Unit>;

/** A named rate for labour, per hour. */
export const Rate = z.object({ id: Id, name: z.string(), perHour: Decimal });
export type Rate = z.infer<typeof Rate>;

export const Bin = z.object({
  id: Id,
  storeId: Id,
  code: z.string(),
  kind: z.enum(['shelf', 'bench']),
  /** Order in which a person walks past the store's bins. */
  walkOrder: z.number().int(),
  version: Version,
});
export type Bin = z.infer<typeof Bin>;
export const Store = z.object({ id: Id, code: z.string(), name: z.string(), version: Version, bins: z.array(Bin) });
export type Store = z.infer<typeof Store>;

export const Source = z.enum(['bought', 'made', 'both']);

/** An item with where it stands: quantities in its unit, costs per unit. */
export const Item = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  unitId: Id,
  unit: z.string(),
  decimals: z.number().int(),
  source: Source,
  homeBinId: Id.nullable(),
  homeBin: z.string().nullable(),
  sellPrice: Decimal.nullable(),
  reorderPoint: Decimal.nullable(),
  note: z.string(),
  averageCost: Decimal,
  latestCost: Decimal.nullable(),
  standardCost: Decimal.nullable(),
  /** Standing on shelves. */
  onHand: Decimal,
  /** Picked and standing on benches. */
  onBench: Decimal,
  /** What open builds still need. */
  promised: Decimal,
  /** On hand − promised; below zero when more is promised than there is. */
  free: Decimal,
  /** Value of everything on shelves and benches. */
  value: Decimal,
  definitionId: Id.nullable(),
  version: Version,
});
export type Item = z.infer<typeof Item>;

export const ItemInput = z.object({
  code: Code,
  name: Name,
  unitId: Id,
  source: Source,
  homeBinId: Id.nullable(),
  sellPrice: Decimal.nullable(),
  reorderPoint: Decimal.nullable(),
  standardCost: Decimal.nullable(),
  note: Remark,
});
export type ItemInput = z.infer<typeof ItemInput>;

export const ItemQuery = PageQuery.extend({
  q: z.string().max(100).optional(),
  source: Source.optional(),
  /** Only items in stock, or only items whose stock is promised beyond what is there. */
  show: z.enum(['all', 'in-stock', 'overdrawn']).default('all'),
});

export const itemRoutes = {
  units: route({ method: 'GET', path: '/api/units', tag: 'Items', summary: 'Stock units', response: z.array(Unit) }),
  rates: route({ method: 'GET', path: '/api/rates', tag: 'Items', summary: 'Labour rates', response: z.array(Rate) }),
  createRate: route({
    method: 'POST',
    path: '/api/rates',
    tag: 'Items',
    access: 'owner',
    summary: 'Add a labour rate',
    body: z.object({ name: Name, perHour: Decimal }),
    response: Rate,
  }),
  items: route({
    method: 'GET',
    path: '/api/items',
    tag: 'Items',
    summary: 'Items with their stock, by code',
    query: ItemQuery,
    response: pageOf(Item),
  }),
  item: route({
    method: 'GET',
    path: '/api/items/:id',
    tag: 'Items',
    summary: 'One item',
    params: IdParams,
    response: Item,
  }),
  createItem: route({
    method: 'POST',
    path: '/api/items',
    tag: 'Items',
    summary: 'Add an item',
    body: ItemInput,
    response: Item,
  }),
  updateItem: route({
    method: 'PUT',
    path: '/api/items/:id',
    tag: 'Items',
    summary: 'Change an item',
    params: IdParams,
    body: ItemInput.extend({ version: Version }),
    response: Item,
  }),
  stores: route({
    method: 'GET',
    path: '/api/stores',
    tag: 'Places',
    summary: 'Stores with their bins in walking order',
    response: z.array(Store),
  }),
  createStore: route({
    method: 'POST',
    path: '/api/stores',
    tag: 'Places',
    access: 'owner',
    summary: 'Add a store, with a bench of its own',
    body: z.object({ code: Code, name: Name }),
    response: Store,
  }),
  updateStore: route({
    method: 'PUT',
    path: '/api/stores/:id',
    tag: 'Places',
    access: 'owner',
    summary: 'Rename a store',
    params: IdParams,
    body: z.object({ code: Code, name: Name, version: Version }),
    response: Store,
  }),
  createBin: route({
    method: 'POST',
    path: '/api/stores/:id/bins',
    tag: 'Places',
    access: 'owner',
    summary: 'Add a bin to a store',
    params: IdParams,
    body: z.object({ code: Code, walkOrder: z.number().int().min(0).max(9999) }),
    response: Bin,
  }),
  updateBin: route({
    method: 'PUT',
    path: '/api/bins/:id',
    tag: 'Places',
    access: 'owner',
    summary: 'Rename a bin or move it in the walk',
    params: IdParams,
    body: z.object({ code: Code, walkOrder: z.number().int().min(0).max(9999), version: Version }),
    response: Bin,
  }),
};
