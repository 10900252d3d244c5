import { lotOrders, sources, trackings } from '@yosegi/core/items';
import { z } from 'zod';
import { FromZero, Positive, Price } from './amounts.ts';
import { Code, Decimal, Id, IdParams, Name, PageQuery, pageOf, Remark, route, Saved, Version } from './common.ts';

/** What may be typed instead of a stock unit, and how much of it one is: { name: 'g', one: '0.001' }. */
export const Measure = z.object({ name: z.string(), one: Decimal });
export type Measure = z.infer<typeof Measure>;
const MeasureName = z
  .string()
  .normalize('NFKC')
  .trim()
  .min(1)
  .max(20)
  .regex(/^\p{L}[\p{L}\p{N}.²³-]*$/u, 'Letters and digits, beginning with a letter.');
const MeasureInput = z.object({ name: MeasureName, one: Positive });

export const Unit = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  decimals: z.number().int(),
  related: z.array(Measure),
  version: Version,
});
export type Unit = z.infer<typeof Unit>;
export const UnitInput = z.object({
  code: MeasureName,
  name: Name,
  decimals: z.number().int().min(0).max(4),
  related: z.array(MeasureInput).max(20).default([]),
});

export const Supplier = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  /** Lines of the address as printed. */
  address: z.string(),
  email: z.string(),
  /** Whether what its deliveries taught counts where that is longer than what it states. */
  learnLeads: z.boolean(),
  /** Days of the week it delivers on; Monday is 1. */
  deliveryDays: z.array(z.number().int()),
  /** How many of our items it offers. */
  items: z.number().int(),
  version: Version,
});
export type Supplier = z.infer<typeof Supplier>;

/** A named rate for labour, per hour. */
export const Rate = z.object({ id: Id, name: z.string(), perHour: Decimal });
export type Rate = z.infer<typeof Rate>;

export const Source = z.enum(sources);
export const Tracking = z.enum(trackings);
/** Whether the first lot to expire has to go first, or is only suggested. */
export const LotOrder = z.enum(lotOrders);

/** An item with where it stands: quantities in its unit, costs per unit. */
export const Item = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  unitId: Id,
  unit: z.string(),
  decimals: z.number().int(),
  /** Packs and related units that its quantities may be typed in. */
  measures: z.array(Measure),
  source: Source,
  tracking: Tracking,
  lotOrder: LotOrder,
  /** Days in which it may come back after it was shipped; null for as long as the customer may. */
  returnDays: z.number().int().nullable(),
  /** What is written down of each lot: colour, moisture … */
  lotFields: z.array(z.string()),
  /** Like SC-####: what its serials are made from. */
  serialPattern: z.string().nullable(),
  taxFree: z.boolean(),
  barcode: z.string().nullable(),
  archived: z.boolean(),
  /** Names the picture's content; null without one. */
  picture: z.string().nullable(),
  homeBinId: Id.nullable(),
  homeBin: z.string().nullable(),
  sellPrice: Decimal.nullable(),
  reorderPoint: Decimal.nullable(),
  note: z.string(),
  averageCost: Decimal,
  /** What that is: the moving average, the last cost known while there is none, the standard, or nothing at all. */
  costFrom: z.enum(['average', 'built', 'last', 'standard', 'at-least', 'none']),
  latestCost: Decimal.nullable(),
  standardCost: Decimal.nullable(),
  /** Standing on shelves. */
  onHand: Decimal,
  /** Picked and standing on benches. */
  onBench: Decimal,
  /** Of what is on hand: in quarantine, or of a lot or serial that is held. */
  held: Decimal,
  /** What open builds still need. */
  promised: Decimal,
  /** On hand − held − promised; below zero when more is promised than there is. */
  free: Decimal,
  /** On order and being built. */
  coming: Decimal,
  /** Value of everything on shelves and benches, and in returns. */
  value: Decimal,
  /** Of it held in returns, at what it left with. */
  returned: Decimal,
  returnedValue: Decimal,
  definitionId: Id.nullable(),
  version: Version,
});
export type Item = z.infer<typeof Item>;

/** What a supplier asks for an item; price, pack and minimum are in its stock unit. */
const ItemSupplier = z.object({
  supplierId: Id,
  code: z.string().trim().max(60).default(''),
  price: Price,
  pack: Positive.prefault('1'),
  minimum: FromZero.prefault('0'),
  leadDays: z.number().int().min(0).max(999).nullable().default(null),
  /** From so much on, one costs so much; above the price for less. */
  breaks: z
    .array(z.object({ from: Positive, price: Price }))
    .max(10)
    .default([]),
});
/** Whatever else the owner keeps of something, by its name. */
export const OwnFields = z
  .array(z.object({ name: z.string().trim().min(1).max(60), value: z.string().trim().min(1).max(200) }))
  .max(40);

/** From so much on, one costs so much. */
export const PriceBreak = z.object({ from: Decimal, price: Decimal });

/** Everything that is kept of an item itself. */
export const ItemDetail = Item.extend({
  packs: z.array(Measure),
  suppliers: z.array(
    ItemSupplier.extend({
      price: Decimal,
      pack: Decimal,
      minimum: Decimal,
      breaks: z.array(PriceBreak),
      supplier: z.string(),
      name: z.string(),
    }),
  ),
  fields: OwnFields,
  /** Whether it can only be archived, not deleted, and its unit cannot change. */
  hasHistory: z.boolean(),
});
export type ItemDetail = z.infer<typeof ItemDetail>;

export const ItemInput = z.object({
  code: Code,
  name: Name,
  unitId: Id,
  source: Source,
  tracking: Tracking.default('none'),
  lotOrder: LotOrder.default('prescribed'),
  returnDays: z.number().int().min(0).max(9999).nullable().default(null),
  lotFields: z
    .array(z.string().trim().min(1).max(40))
    .max(8)
    .refine((names) => new Set(names.map((name) => name.toLowerCase())).size === names.length, 'List each name once.')
    .default([]),
  serialPattern: z.string().trim().max(40).nullable().default(null),
  taxFree: z.boolean().default(false),
  barcode: z.string().trim().max(60).nullable().default(null),
  homeBinId: Id.nullable(),
  sellPrice: Price.nullable(),
  reorderPoint: FromZero.nullable(),
  standardCost: Price.nullable(),
  note: Remark,
  packs: z.array(MeasureInput).max(20).default([]),
  suppliers: z.array(ItemSupplier).max(20).default([]),
  fields: OwnFields.default([]),
});
export type ItemInput = z.output<typeof ItemInput>;

export const ItemSort = z.enum(['code', 'name', 'onHand', 'free', 'value', 'sellPrice', 'averageCost']);
export type ItemSort = z.infer<typeof ItemSort>;

export const ItemQuery = PageQuery.extend({
  q: z.string().max(100).optional(),
  source: Source.optional(),
  /** Active items; those in stock, promised beyond what is there, at or below their reorder point; or archived ones. */
  show: z.enum(['all', 'in-stock', 'overdrawn', 'low', 'archived']).default('all'),
  supplierId: z.coerce.number().int().positive().optional(),
  sort: ItemSort.default('code'),
  down: z.stringbool().default(false),
});

/** A list's filter under a name; `search` is what stands after the question mark of its address. */
export const SavedView = z.object({ id: Id, list: z.string(), name: z.string(), search: z.string() });
export type SavedView = z.infer<typeof SavedView>;

/** What a typed or pasted text may mean: one item when it is certain, or the likely ones. */
export const Match = z.object({ text: z.string(), item: Item.nullable(), likely: z.array(Item) });
export type Match = z.infer<typeof Match>;

export const itemRoutes = {
  units: route({
    method: 'GET',
    path: '/api/units',
    tag: 'Items',
    right: 'look',
    summary: 'Stock units',
    response: z.array(Unit),
  }),
  rates: route({
    method: 'GET',
    path: '/api/rates',
    tag: 'Items',
    right: 'look',
    summary: 'Labour rates',
    response: z.array(Rate),
  }),
  createRate: route({
    method: 'POST',
    path: '/api/rates',
    tag: 'Items',
    right: 'set-up',
    summary: 'Add a labour rate',
    body: z.object({ name: Name, perHour: Price }),
    response: Rate,
  }),
  items: route({
    method: 'GET',
    path: '/api/items',
    tag: 'Items',
    right: 'look',
    summary: 'Items with their stock, by code',
    query: ItemQuery,
    response: pageOf(Item),
  }),
  itemCounts: route({
    method: 'GET',
    path: '/api/item-counts',
    tag: 'Items',
    right: 'look',
    summary: 'How many items there are, and how many need attention',
    response: z.object({ all: z.number(), low: z.number(), overdrawn: z.number(), archived: z.number() }),
  }),
  item: route({
    method: 'GET',
    path: '/api/items/:id',
    tag: 'Items',
    right: 'look',
    summary: 'One item with all its records',
    params: IdParams,
    response: ItemDetail,
  }),
  createItem: route({
    method: 'POST',
    path: '/api/items',
    tag: 'Items',
    right: 'define',
    summary: 'Add an item',
    body: ItemInput,
    response: Saved,
  }),
  updateItem: route({
    method: 'PUT',
    path: '/api/items/:id',
    tag: 'Items',
    right: 'define',
    summary: 'Change an item',
    params: IdParams,
    body: ItemInput.extend({ version: Version }),
    response: Saved,
  }),
  setPrices: route({
    method: 'PUT',
    path: '/api/items/:id/prices',
    tag: 'Items',
    right: 'define',
    summary: 'Change an item’s sell price or standard cost and leave the rest',
    params: IdParams,
    body: z.object({ sellPrice: Price.optional(), standardCost: Price.optional(), version: Version }),
    response: Saved,
  }),
  archiveItem: route({
    method: 'POST',
    path: '/api/items/:id/archive',
    tag: 'Items',
    right: 'define',
    summary: 'Archive an item, or bring it back',
    params: IdParams,
    body: z.object({ archived: z.boolean(), version: Version }),
    response: Saved,
  }),
  deleteItem: route({
    method: 'DELETE',
    path: '/api/items/:id',
    tag: 'Items',
    right: 'define',
    summary: 'Delete an item that has no history',
    params: IdParams,
    response: z.object({ id: Id }),
  }),
  pictures: route({
    method: 'GET',
    path: '/api/pictures',
    tag: 'Items',
    right: 'look',
    summary: 'Items that have a picture',
    response: z.array(z.object({ itemId: Id, code: z.string(), hash: z.string() })),
  }),
  removePicture: route({
    method: 'DELETE',
    path: '/api/items/:id/picture',
    tag: 'Items',
    right: 'define',
    summary: 'Remove an item’s picture',
    params: IdParams,
    response: Saved,
  }),
  matchItems: route({
    method: 'POST',
    path: '/api/items/match',
    tag: 'Items',
    right: 'look',
    asks: true,
    summary: 'Which items texts mean: codes, barcodes, names or parts of either',
    body: z.object({ texts: z.array(z.string().max(200)).min(1).max(200) }),
    response: z.array(Match),
  }),
  createUnit: route({
    method: 'POST',
    path: '/api/units',
    tag: 'Items',
    right: 'set-up',
    summary: 'Add a stock unit',
    body: UnitInput,
    response: Unit,
  }),
  updateUnit: route({
    method: 'PUT',
    path: '/api/units/:id',
    tag: 'Items',
    right: 'set-up',
    summary: 'Rename a stock unit, change its decimals and what may be typed instead',
    params: IdParams,
    body: UnitInput.extend({ version: Version }),
    response: Unit,
  }),
  views: route({
    method: 'GET',
    path: '/api/views',
    tag: 'Items',
    right: 'look',
    summary: 'Filters the person has saved',
    response: z.array(SavedView),
  }),
  saveView: route({
    method: 'POST',
    path: '/api/views',
    tag: 'Items',
    right: 'look',
    summary: 'Save a filter under a name, or change the one of that name',
    body: z.object({ list: z.string().max(20), name: Name, search: z.string().max(1000) }),
    response: SavedView,
  }),
  deleteView: route({
    method: 'DELETE',
    path: '/api/views/:id',
    tag: 'Items',
    right: 'look',
    summary: 'Forget a saved filter',
    params: IdParams,
    response: z.object({ id: Id }),
  }),
};
