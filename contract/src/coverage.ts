import { sourceKinds } from '@yosegi/core/demand';
import { z } from 'zod';
import { Decimal, Id, IdParams, Name, route } from './common.ts';
import { Measure } from './items.ts';

/** An item, and what can be taken of it from shelves, by store. */
const KnownItem = z.tuple([
  Id,
  /** Decimals of its unit. */
  z.number().int(),
  /** Moving average. */
  Decimal,
  z.array(z.tuple([/** Store. */ Id, Decimal])),
]);

/** 1 where it is for a whole run, 0 where it is for the output quantity. */
const PerRun = z.union([z.literal(0), z.literal(1)]);

const KnownDefinition = z.object({
  itemId: Id,
  /** A draft of what nothing is in use for. */
  draft: z.boolean(),
  output: Decimal,
  /** The fewest working days a build takes. */
  benchDays: z.number().int().nullable(),
  parts: z.array(
    z.tuple([
      /** Item, how much, for what, waste in percent. */
      Id,
      Decimal,
      PerRun,
      Decimal,
      /** What may stand in for it and at which ratio, the best first. */
      z.array(z.tuple([Id, Decimal])),
    ]),
  ),
  /** Minutes, for what, rate per hour. */
  labour: z.array(z.tuple([Decimal, PerRun, Decimal])),
  charges: z.array(z.tuple([Decimal, PerRun])),
});

const KnownDemand = z.object({
  kind: z.enum(sourceKinds),
  id: Id,
  lineId: Id,
  itemId: Id,
  quantity: Decimal,
  wantedOn: z.string().nullable(),
  begun: z.boolean(),
  priority: z.number().int().nullable(),
  /** The moment it was promised, in milliseconds since 1970. */
  age: z.number(),
  /** Days on the way to whoever wants it. */
  transport: z.number().int(),
  alternates: z.array(z.tuple([Id, Decimal])),
});

const KnownSupply = z.object({
  kind: z.enum(['purchase', 'build']),
  /** An order's line, or a build. */
  id: Id,
  itemId: Id,
  quantity: Decimal,
  /** The day a supplier brings it; null when nobody knows, and for builds, whose day follows from their parts. */
  on: z.string().nullable(),
  /** Working days a build still takes once its parts are there. */
  bench: z.number().int().nullable(),
  /** The sales order it is made for. */
  only: Id.nullable(),
  /** On an order that is not sent yet. */
  draft: z.boolean(),
  /** Of a build that is not on the bench yet. */
  planned: z.boolean(),
  /** Who brings it; null for what is built. */
  supplier: Id.nullable(),
});

/**
 * Everything coverage is computed from, at one moment; or, since another moment, what became otherwise and what is gone.
 * The browser's worker keeps it, so that most of what it loads is loaded once.
 */
export const Snapshot = z.object({
  /** Names the moment; asking `since` it brings only what changed. */
  version: z.string(),
  /** The moment these are the changes since; null: this is everything. */
  since: z.string().nullable(),
  today: z.string(),
  workDays: z.array(z.number().int()),
  benchMinutes: z.number().int(),
  items: z.array(KnownItem),
  definitions: z.array(KnownDefinition),
  demands: z.array(KnownDemand),
  supplies: z.array(KnownSupply),
  /** Keys of rows that are there no more. */
  gone: z.array(z.string()),
});
export type Snapshot = z.infer<typeof Snapshot>;

/** An item named, as Cover shows it. */
export const CoverItem = z.object({
  id: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  measures: z.array(Measure),
  homeBin: z.string().nullable(),
  /** The store of that bin. */
  store: z.string().nullable(),
  /** Who brought it last, or would for least. */
  supplier: z.string().nullable(),
  /** The day that supplier would bring it if it were ordered today; null when nobody knows. */
  buyOn: z.string().nullable(),
  definitionId: Id.nullable(),
  archived: z.boolean(),
});
export type CoverItem = z.infer<typeof CoverItem>;

/** An order, a build or a line of an order to a supplier, named, as Cover shows whom a change moves and by what. */
export const CoverSource = z.object({
  kind: z.enum(['order', 'build', 'purchase']),
  id: Id,
  number: z.string(),
  /** The customer, what is built, or the supplier. */
  who: z.string(),
  /** What an order is worth that has not left; null for all else. */
  worth: Decimal.nullable(),
});
export type CoverSource = z.infer<typeof CoverSource>;

/** The most ids that are asked about at once. */
const MOST_IDS = 600;
/** Ids with commas between them. */
const Ids = z
  .string()
  .max(6000)
  .default('')
  .transform((text, { issues, value }) => {
    const ids = text === '' ? [] : text.split(',').map(Number);
    if (ids.length > MOST_IDS || !ids.every((id) => Number.isSafeInteger(id) && id > 0))
      issues.push({ code: 'custom', input: value, message: `Send up to ${MOST_IDS} ids, with commas between them.` });
    return ids;
  });

const PegItem = z.object({ id: Id, code: z.string(), name: z.string(), unit: z.string(), decimals: z.number().int() });

/** Some of a supply that a need is served by. */
const FedBy = z.object({
  kind: z.enum(['shelf', 'purchase', 'build']),
  /** A store, a purchase order or a build. */
  id: Id,
  /** The store's name, or the number. */
  number: z.string(),
  quantity: Decimal,
  /** '' now; null when nobody knows. */
  on: z.string().nullable(),
});

/** What serves what something needs of one item. */
const Need = z.object({
  item: PegItem,
  quantity: Decimal,
  by: z.array(FedBy),
  /** What nothing brings. */
  short: Decimal,
  completeOn: z.string().nullable(),
});

/** Whom some of what comes is for. */
const Feeds = z.object({
  item: PegItem,
  kind: z.enum(sourceKinds),
  id: Id,
  number: z.string(),
  who: z.string(),
  quantity: Decimal,
});

export const Pegs = z.object({ needs: z.array(Need), feeds: z.array(Feeds) });
export type Pegs = z.infer<typeof Pegs>;

const Filling = z.object({
  wanted: z.array(z.object({ itemId: Id, quantity: Decimal })),
  /** How many orders or builds they come from. */
  sources: z.number().int(),
});

/** What could be asked for at once. */
export const Fillings = z.object({
  /** What confirmed orders still want of what is built or packed. */
  orders: Filling,
  /** Builds that are planned. */
  builds: Filling,
  /** What is built and below its reorder point, even with what is coming. */
  reorder: Filling,
});
export type Fillings = z.infer<typeof Fillings>;

/** A question under a name, for everybody. */
export const CoverQuestion = z.object({
  id: Id,
  name: z.string(),
  /** What stands after the question mark of its address. */
  address: z.string(),
  by: z.string(),
});
export type CoverQuestion = z.infer<typeof CoverQuestion>;

/** Before everybody else, or after them; null for in turn. */
const Rank = z.union([z.literal(-1), z.literal(1)]).nullable();

/** Who goes first or waits, and why. */
export const Priority = z.object({
  kind: z.enum(['order', 'build']),
  id: Id,
  number: z.string(),
  /** The customer, or what is built. */
  who: z.string(),
  rank: Rank,
  reason: z.string(),
  by: z.string(),
  at: z.string(),
});
export type Priority = z.infer<typeof Priority>;

const SetPriority = z
  .object({
    kind: z.enum(['order', 'build']),
    id: Id,
    /** What the person saw; refused where it is something else by now. */
    was: Rank,
    rank: Rank,
    /** Why; nothing is kept of it for what is in turn. */
    reason: z.string().trim().max(200),
  })
  .refine(({ rank, reason }) => rank === null || reason !== '', { path: ['reason'], message: 'Enter why.' });

export const coverageRoutes = {
  snapshot: route({
    method: 'GET',
    path: '/api/coverage/snapshot',
    tag: 'Cover',
    right: 'look',
    summary: 'Stock, bills of materials, demand and supply for computing coverage; or what changed since',
    query: z.object({ since: z.string().max(80).optional() }),
    response: Snapshot,
  }),
  coverItems: route({
    method: 'GET',
    path: '/api/coverage/items',
    tag: 'Cover',
    right: 'look',
    summary: 'Items by id, as Cover names them',
    query: z.object({ ids: Ids }),
    response: z.array(CoverItem),
  }),
  coverSources: route({
    method: 'GET',
    path: '/api/coverage/sources',
    tag: 'Cover',
    right: 'look',
    summary: 'Orders, builds and lines of purchase orders by id, as Cover names them',
    query: z.object({ orders: Ids, builds: Ids, lines: Ids }),
    response: z.array(CoverSource),
  }),
  pegs: route({
    method: 'GET',
    path: '/api/coverage/pegs/:kind/:id',
    tag: 'Cover',
    right: 'look',
    summary: 'What supplies a build or an order, line by line, and who a build or a purchase order supplies',
    params: z.object({ kind: z.enum(['build', 'order', 'purchase']), id: z.coerce.number().int().positive() }),
    response: Pegs,
  }),
  fillings: route({
    method: 'GET',
    path: '/api/coverage/fillings',
    tag: 'Cover',
    right: 'look',
    summary: 'What open orders, planned builds and reorder points would ask Cover for',
    response: Fillings,
  }),
  priorities: route({
    method: 'GET',
    path: '/api/coverage/priorities',
    tag: 'Cover',
    right: 'look',
    summary: 'Open orders and builds that go first, or last',
    response: z.array(Priority),
  }),
  setPriorities: route({
    method: 'POST',
    path: '/api/coverage/priorities',
    tag: 'Cover',
    right: 'plan',
    summary: 'Set who goes first, last or in turn; answers with the previous setting',
    body: z.object({ lines: z.array(SetPriority).min(1).max(600) }),
    response: z.object({ before: z.array(SetPriority) }),
  }),
  coverQuestions: route({
    method: 'GET',
    path: '/api/coverage/questions',
    tag: 'Cover',
    right: 'look',
    summary: 'Saved questions',
    response: z.array(CoverQuestion),
  }),
  keepQuestion: route({
    method: 'POST',
    path: '/api/coverage/questions',
    tag: 'Cover',
    right: 'plan',
    summary: 'Save a question under a name, replacing the one of the same name',
    body: z.object({ name: Name, address: z.string().min(1).max(4000) }),
    response: CoverQuestion,
  }),
  forgetQuestion: route({
    method: 'DELETE',
    path: '/api/coverage/questions/:id',
    tag: 'Cover',
    right: 'plan',
    summary: 'Forget a question',
    params: IdParams,
    response: z.object({ id: Id }),
  }),
};
