import { buildStates, outWays, rejectCosts } from '@yosegi/core/builds';
import { lineKinds } from '@yosegi/core/definitions';
import { ZERO } from '@yosegi/core/number';
import { repairStates } from '@yosegi/core/repairs';
import { z } from 'zod';
import { FromZero, Positive, percentUpTo } from './amounts.ts';
import { BoughtFor } from './buying.ts';
import { Day, Decimal, Id, IdParams, Numbered, PageQuery, pageOf, Remark, route, Version } from './common.ts';
import { Basis, PartItem, SavedRevision, Taken } from './definitions.ts';
import { Tracking } from './items.ts';
import { Posted } from './ledger.ts';
import { Task } from './tasks.ts';
import { BinQuantity, Piece, Tracked, TrackedIn } from './tracking.ts';

export const BuildState = z.enum(buildStates);

/** A part that a build waits for. */
export const Waiting = z.object({
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  short: Decimal,
  /** The day it comes, from an open build or a supplier; null when none is known or it has passed. */
  comesOn: z.string().nullable(),
  /** Some is coming, though nobody may know when. */
  isComing: z.boolean(),
});

/** An order that a build makes some for. */
const BuiltFor = z.object({
  orderId: Id,
  order: z.string(),
  customer: z.string(),
  wantedOn: z.string().nullable(),
  partId: Id,
  quantity: Decimal,
  /** Of it finished and put into the order's parcel. */
  kept: Decimal,
});
export type BuiltFor = z.infer<typeof BuiltFor>;

export const BuildRow = z.object({
  id: Id,
  number: z.string(),
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  quantity: Decimal,
  finished: Decimal,
  /** Made, and no good. */
  rejected: Decimal,
  state: BuildState,
  due: z.string().nullable(),
  late: z.boolean(),
  /** Parts short after builds that come first have theirs; empty when it can go ahead. */
  waiting: z.array(Waiting),
  /** What stands on its bench and is held: it is not used before it is released. */
  held: z.array(Waiting.pick({ itemId: true, code: true, name: true, unit: true }).extend({ quantity: Decimal })),
  /** How many could start from what is there; null unless planned. */
  canStart: Decimal.nullable(),
  pickLines: z.number().int(),
  pickedLines: z.number().int(),
  remark: z.string(),
  /** The customer's goods that are mended, where it is no build of ours. */
  repair: z
    .object({
      id: Id,
      customer: z.string(),
      serial: z.string().nullable(),
      fault: z.string(),
      state: z.enum(repairStates),
    })
    .nullable(),
  /** Whom it is built for, first in turn first; empty where it is for stock. */
  orders: z.array(BuiltFor),
  version: Version,
});
export type BuildRow = z.infer<typeof BuildRow>;

export const BuildLine = z.object({
  id: Id,
  kind: z.enum(lineKinds),
  text: z.string(),
  item: PartItem.nullable(),
  basis: Basis,
  /** Part: quantity; labour: minutes; charge: amount. For the output quantity or a run. */
  amount: Decimal,
  waste: Decimal,
  taken: Taken.nullable(),
  ratePerHour: Decimal.nullable(),
  /** Take-apart share in percent as the definition says; null where it follows cost. */
  share: Decimal.nullable(),
  comesBack: z.boolean(),
  /** What the whole build needs. */
  required: Decimal,
  /** How much of it alternates stand in for, which are lines of their own. */
  instead: Decimal,
  onBench: Decimal,
  used: Decimal,
  /** What may still be brought. */
  open: Decimal,
  /** Where it can be taken from, in walking order. */
  bins: z.array(BinQuantity),
  /** Which lots or serials of it stand on the bench. */
  pieces: z.array(Piece),
  /** Percent off the plan beyond which a finish says why; null for any. */
  tolerance: Decimal.nullable(),
  /** Added on the bench: by whom and why; null for what the definition says. */
  added: z.object({ by: z.string(), because: z.string() }).nullable(),
});
export type BuildLine = z.infer<typeof BuildLine>;

export const BuildDetail = BuildRow.extend({
  decimals: z.number().int(),
  outputQuantity: Decimal,
  outputBinId: Id,
  outputBin: z.string(),
  tracking: Tracking,
  /** What it follows; null for a repair. */
  definition: z.object({ id: Id, revision: z.number().int(), revisionId: Id }).nullable(),
  lines: z.array(BuildLine),
  documents: z.array(z.object({ id: Id, number: z.string(), kind: z.string(), at: z.string(), person: z.string() })),
  overrideReason: z.string().nullable(),
  /** Open lines of orders that want more of it than is being built for them. */
  wanting: z.array(BuiltFor.omit({ kept: true })),
  /** The build it was split from, or into. */
  related: z.array(z.object({ id: Id, number: z.string() })),
  /** What was bought for it. */
  purchases: z.array(BoughtFor),
  tasks: z.array(Task),
  /** It is finished only once its tasks are done. */
  tasksFirst: z.boolean(),
  /** It takes in the very thing that it gives back. */
  isRework: z.boolean(),
  /** Who builds it, and when it is taken up; null for nobody yet, and for when it is due. */
  personId: Id.nullable(),
  person: z.string().nullable(),
  benchDay: z.string().nullable(),
  jobTag: z.string(),
  /** More may be brought to its bench than is asked for. */
  spare: z.boolean(),
});
export type BuildDetail = z.infer<typeof BuildDetail>;

/** What the last finishes by the same revision planned and used of a line, together. */
export const LastUse = z.object({
  lineId: Id,
  count: z.number().int(),
  planned: Decimal,
  actual: Decimal,
  /** It is always off, and to the same side. */
  isDrifted: z.boolean(),
});
export type LastUse = z.infer<typeof LastUse>;

/** An owner's reason to go below zero. */
export const Override = z.object({ reason: z.string().trim().min(3).max(500) });

/** What was really used to finish some or all of a build. */
export const FinishInput = z.object({
  version: Version,
  good: FromZero,
  /** Made, and no good; with a reason, and who bears what they cost. */
  rejected: FromZero.prefault('0'),
  rejectReasonId: Id.nullable().default(null),
  rejectCost: z.enum(rejectCosts).default('carried'),
  outputBinId: Id,
  /** The lot or the serials of the good units. */
  ...TrackedIn,
  /** `because` where more or less was used than the definition lets pass. */
  lines: z
    .array(z.object({ lineId: Id, actual: FromZero, because: z.string().trim().max(200).default(''), ...Tracked }))
    .max(200),
  /** The day it was made; null for today. */
  madeOn: Day.nullable().default(null),
  /** Of what a rework took in and gives back, in a person's words. */
  conditionBefore: z.string().trim().max(100).default(''),
  conditionAfter: z.string().trim().max(100).default(''),
  /** What a rework took out of its unit, with its share in percent of what the unit was worth. */
  out: z
    .array(
      z.object({
        itemId: Id,
        quantity: Positive,
        went: z.enum(outWays),
        share: percentUpTo(100).default(ZERO),
        binId: Id.nullable().default(null),
        ...TrackedIn,
      }),
    )
    .max(50)
    .default([]),
  /** Close the build even though fewer than planned were made. */
  close: z.boolean().default(false),
  override: Override.optional(),
});

const PlanLine = z.object({
  itemId: Id,
  /** A rework takes the item itself in and gives it back refreshed. */
  purpose: z.enum(['build', 'rework']).default('build'),
  quantity: Positive,
  due: Day.nullable(),
  remark: z.string().trim().max(2000).default(''),
});

export const buildRoutes = {
  scanned: route({
    method: 'GET',
    path: '/api/scanned',
    tag: 'Build',
    right: 'look',
    summary: 'The build and the line that a bench sheet’s barcode means; none for any other code',
    query: z.object({ code: z.string().max(60).default('') }),
    response: z.object({ buildId: Id.nullable(), repairId: Id.nullable(), lineId: Id.nullable() }),
  }),
  builds: route({
    method: 'GET',
    path: '/api/builds',
    tag: 'Build',
    right: 'look',
    summary: 'Builds: open ones by due day, others newest first',
    query: PageQuery.extend({
      state: z.enum(['open', ...buildStates]).default('open'),
      q: z.string().max(100).optional(),
    }),
    response: pageOf(BuildRow),
  }),
  build: route({
    method: 'GET',
    path: '/api/builds/:id',
    tag: 'Build',
    right: 'look',
    summary: 'One build with its lines and documents',
    params: IdParams,
    response: BuildDetail,
  }),
  planBuilds: route({
    method: 'POST',
    path: '/api/builds',
    tag: 'Build',
    right: 'plan',
    summary: 'Plan builds; their parts are promised from now on',
    body: z.object({
      builds: z.array(PlanLine).min(1).max(100),
      /** What the person was told can be made now of what they asked for; refused when that is less by now. */
      seen: z
        .object({
          wanted: z.array(z.object({ itemId: Id, quantity: Positive, now: FromZero })).max(100),
          stores: z.array(Id).max(100).nullable().default(null),
          finishedFirst: z.boolean().default(false),
          drafts: z.boolean().default(false),
          /** What was set aside because it was asked for itself. */
          aside: z.enum(['orders', 'builds']).nullable().default(null),
        })
        .optional(),
    }),
    response: z.object({ builds: z.array(Numbered) }),
  }),
  updateBuild: route({
    method: 'PUT',
    path: '/api/builds/:id',
    tag: 'Build',
    right: 'plan',
    summary: 'Change the quantity, due day, output bin or remark of a planned build',
    params: IdParams,
    body: z.object({ quantity: Positive, due: Day.nullable(), outputBinId: Id, remark: Remark, version: Version }),
    response: Numbered,
  }),
  allowSpare: route({
    method: 'PUT',
    path: '/api/builds/:id/spare',
    tag: 'Build',
    right: 'plan',
    summary: 'Allow picking more than needed, or stop allowing that',
    params: IdParams,
    body: z.object({ version: Version, spare: z.boolean() }),
    response: Numbered,
  }),
  startBuild: route({
    method: 'POST',
    path: '/api/builds/:id/start',
    tag: 'Build',
    right: 'build',
    summary: 'Send a build, or a part of it, to the bench',
    params: IdParams,
    body: z.object({ version: Version, quantity: Positive.optional(), override: Override.optional() }),
    response: Numbered,
  }),
  cancelBuild: route({
    method: 'POST',
    path: '/api/builds/:id/cancel',
    tag: 'Build',
    right: 'plan',
    summary: 'Cancel a build; parts on the bench go back to their bins',
    params: IdParams,
    body: z.object({ version: Version }),
    response: Numbered.extend({ state: BuildState }),
  }),
  finish: route({
    method: 'POST',
    path: '/api/builds/:id/finish',
    tag: 'Build',
    right: 'build',
    summary: 'Finish some or all of a build with what was actually used',
    params: IdParams,
    body: FinishInput,
    response: Posted.extend({ unitCost: Decimal }),
  }),
  lastUses: route({
    method: 'GET',
    path: '/api/builds/:id/last-uses',
    tag: 'Build',
    right: 'look',
    summary: 'What the last finishes used of the same lines',
    params: IdParams,
    response: z.array(LastUse),
  }),
  correctDefinition: route({
    method: 'POST',
    path: '/api/builds/:id/correct-definition',
    tag: 'Build',
    right: 'define',
    summary: 'Start a draft of a build’s bill of materials with the quantities actually used',
    params: IdParams,
    body: z.object({}),
    response: SavedRevision,
  }),
  moveBuilds: route({
    method: 'POST',
    path: '/api/definitions/:id/move-builds',
    tag: 'Define',
    right: 'plan',
    summary: 'Move planned builds to the revision in use',
    params: IdParams,
    body: z.object({ buildIds: z.array(Id).min(1).max(200) }),
    response: z.object({ builds: z.array(Numbered) }),
  }),
};
