import { z } from 'zod';
import { BuildRow } from './builds.ts';
import { Decimal, Id, route } from './common.ts';
import { OrderRow } from './orders.ts';
import { ReturnRow } from './returns.ts';
import { PutRight } from './stock.ts';

/** So many of each list are in the answer; how many there are is counted beside them. */
export const MOST_ON_TODAY = 100;

export const Today = z.object({
  ready: z.array(BuildRow),
  waiting: z.array(BuildRow),
  onBench: z.array(BuildRow),
  /** Parts that hold builds and orders up, the most sales value first. */
  holdUps: z.array(
    z.object({
      itemId: Id,
      code: z.string(),
      name: z.string(),
      unit: z.string(),
      short: Decimal,
      builds: z.number().int(),
      orders: z.number().int(),
      salesValue: Decimal,
      comesOn: z.string().nullable(),
      /** Some is coming, though nobody may know when. */
      isComing: z.boolean(),
    }),
  ),
  /** Orders of customers that can leave, and those that will be late or have no day yet. */
  canLeave: z.array(OrderRow),
  atRisk: z.array(OrderRow),
  /** What went below zero or was overridden and has not been put right. */
  putRight: z.array(PutRight),
  /** Goods that came back and wait, the longest first. */
  cameBack: z.array(ReturnRow),
  /** What waits at each station, and how many there are of each list in all. */
  counts: z.object({
    today: z.number().int(),
    waiting: z.number().int(),
    atRisk: z.number().int(),
    putRight: z.number().int(),
    /** Builds whose due day is over. */
    late: z.number().int(),
    define: z.number().int(),
    cover: z.number().int(),
    build: z.number().int(),
    pick: z.number().int(),
    /** Orders of which everything is there. */
    orders: z.number().int(),
    /** Purchase orders of which something is late. */
    lateOrders: z.number().int(),
    /** Deliveries that suppliers have announced and nobody has received. */
    announced: z.number().int(),
    /** Things that came back and wait for somebody to decide. */
    cameBack: z.number().int(),
    /** Lots in stock that are past their day or expire within 30 days. */
    expiring: z.number().int(),
  }),
});
export type Today = z.infer<typeof Today>;

export const Found = z.object({
  kind: z.enum([
    'item',
    'build',
    'definition',
    'order',
    'parcel',
    'customer',
    'purchase',
    'supplier',
    'repair',
    'return',
    'serial',
    'lot',
    'job',
    'document',
  ]),
  id: Id,
  code: z.string(),
  name: z.string(),
  /** The item whose tile stands for it; null for documents. */
  tile: z.string().nullable(),
  /** Of a definition what it is for; of a build or an order how it stands; null for all else. */
  state: z.string().nullable(),
  /** Whether anything is still to be done with it. */
  open: z.boolean(),
  /** Of an item what is in stock, of a build how many it makes; null for all else. */
  stock: z.object({ quantity: Decimal, unit: z.string() }).nullable(),
});
export type Found = z.infer<typeof Found>;

export const todayRoutes = {
  today: route({
    method: 'GET',
    path: '/api/today',
    tag: 'Today',
    right: 'look',
    summary: 'What can start, what is short of parts, what needs attention',
    response: Today,
  }),
  find: route({
    method: 'GET',
    path: '/api/find',
    tag: 'Today',
    right: 'look',
    summary: 'Find any record by code, number or name, with words in any order',
    query: z.object({ q: z.string().max(100) }),
    response: z.array(Found),
  }),
};
