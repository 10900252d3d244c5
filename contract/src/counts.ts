import { countGroups, countStates } from '@yosegi/core/counts';
import { z } from 'zod';
import { FromZero, Price } from './amounts.ts';
import { Day, Decimal, Id, IdParams, Numbered, OfItem, route, Version } from './common.ts';
import { Measure, Tracking } from './items.ts';
import { TrackedIn } from './tracking.ts';

export const CountRow = z.object({
  id: Id,
  number: z.string(),
  /** What is counted, in words. */
  scope: z.string(),
  state: z.enum(countStates),
  begunAt: z.string(),
  begunBy: z.string(),
  lines: z.number().int(),
  counted: z.number().int(),
});
export type CountRow = z.infer<typeof CountRow>;

export const CountLine = z.object({
  id: Id,
  ...OfItem,
  measures: z.array(Measure),
  tracking: Tracking,
  lot: z.string().nullable(),
  bestBefore: z.string().nullable(),
  binId: Id,
  bin: z.string(),
  store: z.string(),
  /** Serials that were seen; of items that are kept by serial, once counted. */
  seen: z.array(z.string()),
  /** Serials the books have and nobody saw, and those seen that the books have elsewhere or not at all. */
  missing: z.array(z.string()),
  found: z.array(z.string()),
  counted: Decimal.nullable(),
  /** What the books said when it was counted; null until then, so that the sheet is blind. */
  expected: Decimal.nullable(),
  /** Counted − expected, and what it is worth at the average now. */
  difference: Decimal.nullable(),
  value: Decimal.nullable(),
  /** Something was found of which nobody ever said what it costs: it has to be told before the count is approved. */
  needsCost: z.boolean(),
  /** What one of what was found is worth, where it was told. */
  unitCost: Decimal.nullable(),
  countedBy: z.string().nullable(),
});
export type CountLine = z.infer<typeof CountLine>;

/** A bin in which somebody found less than the books say. */
export const CountWish = z.object({
  id: Id,
  ...OfItem,
  binId: Id,
  bin: z.string(),
  store: z.string(),
  lotId: Id.nullable(),
  lot: z.string().nullable(),
  /** What the books had there then. */
  booked: Decimal,
  at: z.string(),
  by: z.string(),
});
export type CountWish = z.infer<typeof CountWish>;

export const CountDetail = CountRow.extend({ sheet: z.array(CountLine), documentId: Id.nullable(), version: Version });
export type CountDetail = z.infer<typeof CountDetail>;

/** Groups of items that are counted together. */
export const CountGroup = z.enum(countGroups);
export type CountGroup = z.infer<typeof CountGroup>;

export const countRoutes = {
  counts: route({
    method: 'GET',
    path: '/api/counts',
    tag: 'Stock',
    right: 'look',
    summary: 'Counts, the newest first',
    response: z.array(CountRow),
  }),
  countWishes: route({
    method: 'GET',
    path: '/api/count-wishes',
    tag: 'Stock',
    right: 'look',
    summary: 'Bins where less was found than the books show, not counted since',
    response: z.array(CountWish),
  }),
  settleWish: route({
    method: 'POST',
    path: '/api/count-wishes/:id/settle',
    tag: 'Stock',
    right: 'count',
    summary: 'Mark that everything is there after all; runs lead there again',
    params: IdParams,
    body: z.object({}),
    response: z.object({ id: Id }),
  }),
  count: route({
    method: 'GET',
    path: '/api/counts/:id',
    tag: 'Stock',
    right: 'look',
    summary: 'One count with its sheet, in picking order',
    params: IdParams,
    response: CountDetail,
  }),
  beginCount: route({
    method: 'POST',
    path: '/api/counts',
    tag: 'Stock',
    right: 'count',
    summary: 'Start a count of bins: of everything in them, of some items, or of what was not counted since a day',
    body: z.object({
      binIds: z.array(Id).max(500).default([]),
      /** Everything on the list of bins to count, and nothing else. */
      wishes: z.boolean().default(false),
      /** A part of code or name. */
      q: z.string().trim().max(100).default(''),
      /** Only items that come so, are kept so, or are sold by this supplier. */
      group: CountGroup.nullable().default(null),
      supplierId: Id.nullable().default(null),
      notSince: Day.nullable().default(null),
    }),
    response: Numbered,
  }),
  countLine: route({
    method: 'PUT',
    path: '/api/count-lines/:id',
    tag: 'Stock',
    right: 'count',
    summary: 'Enter what was counted, or clear it to count again',
    params: IdParams,
    body: z.object({ counted: FromZero.nullable(), serials: TrackedIn.serials }),
    response: Numbered,
  }),
  countCost: route({
    method: 'PUT',
    path: '/api/count-lines/:id/cost',
    tag: 'Stock',
    right: 'count',
    summary: 'Set the unit value of what was found; zero is given explicitly',
    params: IdParams,
    body: z.object({ unitCost: Price.nullable() }),
    response: Numbered,
  }),
  addCountLine: route({
    method: 'POST',
    path: '/api/counts/:id/lines',
    tag: 'Stock',
    right: 'count',
    summary: 'Add an item that was found but not expected',
    params: IdParams,
    body: z.object({ itemId: Id, binId: Id, lot: TrackedIn.lot, bestBefore: TrackedIn.bestBefore }),
    response: Numbered,
  }),
  approveCount: route({
    method: 'POST',
    path: '/api/counts/:id/approve',
    tag: 'Stock',
    right: 'approve-count',
    summary: 'Post the differences of what was counted in one document',
    params: IdParams,
    body: z.object({ version: Version }),
    /** Without a document where everything was right. */
    response: Numbered.extend({ documentId: Id.nullable() }),
  }),
  cancelCount: route({
    method: 'POST',
    path: '/api/counts/:id/cancel',
    tag: 'Stock',
    right: 'count',
    summary: 'Cancel a count; nothing is posted',
    params: IdParams,
    body: z.object({ version: Version }),
    response: Numbered,
  }),
};
