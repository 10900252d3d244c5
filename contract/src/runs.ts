import { z } from 'zod';
import { Positive } from './amounts.ts';
import { Day, Decimal, Id, IdParams, Numbered, PageQuery, pageOf, route, Version } from './common.ts';
import { PartItem } from './definitions.ts';
import { Piece, Tracked } from './tracking.ts';

const RUNS = { tag: 'Pick' } as const;

/** A build or an order that goods are picked for. */
export const Goal = z.object({ kind: z.enum(['build', 'order']), id: Id });

/** Something that can be picked for, with how far shelves serve it. */
export const GoalRow = Goal.extend({
  number: z.string(),
  /** What is built, or for whom it is. */
  name: z.string(),
  /** Whose tile stands for it. */
  tile: z.string(),
  due: Day.nullable(),
  late: z.boolean(),
  /** Lines that are open, and of them those of which something is on a shelf. */
  lines: z.number().int(),
  there: z.number().int(),
  /** Everything open is on shelves: it can leave or be built today. */
  whole: z.boolean(),
  storeIds: z.array(Id),
});
export type GoalRow = z.infer<typeof GoalRow>;

/** What was walked, of all who walked together. */
const Walked = z.object({
  stops: z.number().int(),
  lines: z.number().int(),
  minutes: z.number().int(),
  linesPerHour: z.number().int().nullable(),
});

export const RunRow = z.object({
  id: Id,
  number: z.string(),
  store: z.string().nullable(),
  madeAt: z.string(),
  madeBy: z.string(),
  endedAt: z.string().nullable(),
  goals: z.array(Goal.extend({ number: z.string(), name: z.string() })),
  /** Stops still to go to; none once it has ended. */
  stops: z.number().int(),
  walked: Walked,
  version: Version,
});
export type RunRow = z.infer<typeof RunRow>;

/** Several that are worth picking together, in one store. */
export const ProposedRun = z.object({
  storeId: Id,
  store: z.string(),
  goals: z.array(Goal),
  stops: z.number().int(),
  /** Stops at which goods for more than one are taken, and stops that are walked once instead of again for each. */
  shared: z.number().int(),
  saved: z.number().int(),
});
export type ProposedRun = z.infer<typeof ProposedRun>;

/** So much of a stop's goods for one line. */
const ForLine = Goal.extend({ lineId: Id, quantity: Decimal });

/** An item that may stand in for one that is nowhere, and how much of it is on shelves. */
const StandIn = z.object({ itemId: Id, code: z.string(), name: z.string(), quantity: Decimal, ratio: Decimal });

/** One thing to do on the way. */
export const RunStop = z.object({
  /** Its name, as long as there is anything to take at it. */
  key: z.string(),
  /** The stop that has to come first because its lot expires earlier. */
  after: z.string().nullable(),
  storeId: Id,
  store: z.string(),
  binId: Id,
  bin: z.string(),
  item: PartItem,
  lot: z.string().nullable(),
  bestBefore: z.string().nullable(),
  /** What is written down of the lot. */
  lotSays: z.string(),
  /** What stands in the bin of it, by lot and serial. */
  pieces: z.array(Piece),
  there: Decimal,
  quantity: Decimal,
  lines: z.array(ForLine),
});
export type RunStop = z.infer<typeof RunStop>;

const RunGoal = Goal.extend({
  /** Its place on the cart: A, B, C … */
  slot: z.string(),
  number: z.string(),
  name: z.string(),
  tile: z.string(),
  due: Day.nullable(),
  /** Where its goods go, in words: on the bench, in a parcel by its number, or in one still to be opened. */
  place: z.string(),
  /** What is scanned to confirm it: any of these. */
  codes: z.array(z.string()),
  openLines: z.number().int(),
  /** More may be brought than is asked for. */
  spare: z.boolean(),
  /** Why nothing can be picked for it any more; null while it can. */
  over: z.string().nullable(),
});
export type RunGoal = z.infer<typeof RunGoal>;

export const RunDetail = RunRow.omit({ goals: true, stops: true }).extend({
  storeId: Id.nullable(),
  confirms: z.boolean(),
  goals: z.array(RunGoal),
  stops: z.array(RunStop),
  /** Who is where now. */
  claims: z.array(z.object({ key: z.string(), personId: Id, person: z.string(), at: z.string() })),
  /** What no shelf has. */
  missing: z.array(
    ForLine.extend({
      item: PartItem,
      standIns: z.array(StandIn),
      /** Where it lies in stores that the run does not go to; empty where no shelf has it. */
      elsewhere: z.array(z.object({ store: z.string(), quantity: Decimal })),
    }),
  ),
  /** Bins that no longer lead anywhere because somebody found less than the books say. */
  passed: z.array(z.object({ binId: Id, bin: z.string(), itemId: Id, item: z.string(), by: z.string() })),
  /** What stands for those it serves, and can be put back. */
  brought: z.array(Goal.extend({ lineId: Id, item: PartItem, quantity: Decimal, pieces: z.array(Piece) })),
  /** What was picked, the newest first; what was taken at one stop at once is one. */
  picks: z.array(
    z.object({
      act: Id,
      number: z.string(),
      at: z.string(),
      personId: Id,
      person: z.string(),
      says: z.string(),
      undone: z.boolean(),
    }),
  ),
});
export type RunDetail = z.infer<typeof RunDetail>;

const Stop = z.string().max(80);

export const runRoutes = {
  pickPlan: route({
    ...RUNS,
    method: 'GET',
    path: '/api/pick-plan',
    right: 'look',
    summary: 'Pick runs in progress, suggested runs, and everything that can be picked for',
    response: z.object({ runs: z.array(RunRow), proposed: z.array(ProposedRun), goals: z.array(GoalRow) }),
  }),
  pickRuns: route({
    ...RUNS,
    method: 'GET',
    path: '/api/pick-runs',
    right: 'look',
    summary: 'Ended pick runs, newest first',
    query: PageQuery,
    response: pageOf(RunRow),
  }),
  pickRun: route({
    ...RUNS,
    method: 'GET',
    path: '/api/pick-runs/:id',
    right: 'look',
    summary: 'A pick run: its stops in picking order, who is where, and what is picked or missing',
    params: IdParams,
    response: RunDetail,
  }),
  makeRun: route({
    ...RUNS,
    method: 'POST',
    path: '/api/pick-runs',
    right: 'pick',
    summary: 'Combine builds and orders into one run',
    body: z.object({
      /** Null for all stores. */
      storeId: Id.nullable().default(null),
      goals: z.array(Goal).min(1).max(26),
      confirms: z.boolean().default(false),
    }),
    response: Numbered,
  }),
  changeRun: route({
    ...RUNS,
    method: 'PUT',
    path: '/api/pick-runs/:id',
    right: 'pick',
    summary: 'Add builds and orders to a run, or remove them',
    params: IdParams,
    body: z.object({ version: Version, goals: z.array(Goal).min(1).max(26), confirms: z.boolean() }),
    response: Numbered,
  }),
  endRun: route({
    ...RUNS,
    method: 'POST',
    path: '/api/pick-runs/:id/end',
    right: 'pick',
    summary: 'End a run; what is still open is free for others',
    params: IdParams,
    body: z.object({ version: Version }),
    response: Numbered,
  }),
  claimStop: route({
    ...RUNS,
    method: 'POST',
    path: '/api/pick-runs/:id/claims',
    right: 'pick',
    summary: 'Go to a stop, so that nobody else is sent there; null leaves the run to others',
    params: IdParams,
    body: z.object({ stop: Stop.nullable() }),
    response: z.object({ stop: Stop.nullable() }),
  }),
  pickOnRun: route({
    ...RUNS,
    method: 'POST',
    path: '/api/pick-runs/:id/picks',
    right: 'pick',
    summary: 'Bring what was picked to its benches and parcels',
    params: IdParams,
    body: z.object({
      lines: z
        .array(z.object({ ...Goal.shape, lineId: Id, binId: Id, quantity: Positive, ...Tracked }))
        .min(1)
        .max(200),
    }),
    /** The document with which all of it can be undone, and how many stops are left. */
    response: z.object({ id: Id, number: z.string(), stops: z.number().int() }),
  }),
  notThere: route({
    ...RUNS,
    method: 'POST',
    path: '/api/pick-runs/:id/not-there',
    right: 'pick',
    summary: 'Report that a bin holds less than the books show: it goes on the list of bins to count',
    params: IdParams,
    body: z.object({ binId: Id, itemId: Id, lot: Tracked.lot }),
    response: z.object({ stops: z.number().int() }),
  }),
};
