import { openBuildStates } from '@yosegi/core/builds';
import {
  bases,
  madeHows,
  onOrders,
  paperworks,
  pricesFrom,
  purposes,
  revisionStates,
  swapFors,
  takens,
} from '@yosegi/core/definitions';
import { z } from 'zod';
import { Minutes, Positive, Price, percentUpTo } from './amounts.ts';
import { Day, Decimal, Id, IdParams, PageQuery, pageOf, route, Saved, Version } from './common.ts';
import { Item, OwnFields } from './items.ts';

export const Basis = z.enum(bases);
export const Taken = z.enum(takens);

const PartInput = z.object({
  kind: z.literal('part'),
  itemId: Id,
  basis: Basis,
  /** In the part's unit, for the output quantity or for a run. */
  quantity: Positive,
  /** Percent added for waste. */
  waste: percentUpTo(1000),
  taken: Taken,
  /** Take-apart share in percent as typed; null lets it follow cost. */
  share: percentUpTo(100).nullable(),
  comesBack: z.boolean(),
  /** Percent that a finish may use more or less than planned without saying why; null for any. */
  tolerance: percentUpTo(1000).nullable().default(null),
  /** The bin it is taken from before all others; null leaves the choice to whoever picks. */
  fromBinId: Id.nullable().default(null),
  /** What may stand in for it, the best first; `ratio` is how much of it does for one of the part. */
  alternates: z
    .array(z.object({ itemId: Id, ratio: Positive }))
    .max(10)
    .default([]),
});
const LabourInput = z.object({
  kind: z.literal('labour'),
  text: z.string().trim().max(200),
  basis: Basis,
  minutes: Minutes,
  rateId: Id,
});
const ChargeInput = z.object({
  kind: z.literal('charge'),
  text: z.string().trim().min(1).max(200),
  basis: Basis,
  amount: Price,
});
const NoteInput = z.object({ kind: z.literal('note'), text: z.string().trim().min(1).max(1000) });

export const LineInput = z.discriminatedUnion('kind', [PartInput, LabourInput, ChargeInput, NoteInput]);
/** A line as it is sent. */
export type LineInput = z.input<typeof LineInput>;

/** What a screen shows of the item on a part line. */
export const PartItem = Item.pick({
  id: true,
  code: true,
  name: true,
  unit: true,
  decimals: true,
  measures: true,
  tracking: true,
  lotOrder: true,
  lotFields: true,
  barcode: true,
  archived: true,
  sellPrice: true,
  averageCost: true,
  costFrom: true,
  latestCost: true,
  standardCost: true,
  free: true,
  onHand: true,
  definitionId: true,
});
export type PartItem = z.infer<typeof PartItem>;

export const Line = z.discriminatedUnion('kind', [
  PartInput.extend({
    quantity: Decimal,
    waste: Decimal,
    share: Decimal.nullable(),
    tolerance: Decimal.nullable(),
    item: PartItem,
    alternates: z.array(z.object({ itemId: Id, ratio: Decimal, item: PartItem })),
  }),
  LabourInput.extend({ minutes: Decimal, ratePerHour: Decimal }),
  ChargeInput.extend({ amount: Decimal }),
  NoteInput,
]);
export type Line = z.infer<typeof Line>;

export const Revision = z.object({
  id: Id,
  number: z.number().int(),
  state: z.enum(revisionStates),
  outputQuantity: Decimal,
  /** The day it came into use; of a draft, the day it will. Until then such a draft is frozen too. */
  inUseFrom: z.string().nullable(),
  /** What one is to sell at once it is in use; null where the price stays as it is. */
  sellPrice: Decimal.nullable(),
  version: Version,
  lines: z.array(Line),
});
export type Revision = z.infer<typeof Revision>;

export const Purpose = z.enum(purposes);
export type Purpose = z.infer<typeof Purpose>;

/** The switches of a kit, and where its price comes from. */
export const Behaviour = z.object({
  made: z.enum(madeHows),
  paperwork: z.enum(paperworks),
  onOrder: z.enum(onOrders),
  swapFor: z.enum(swapFors),
  price: z.enum(pricesFrom),
  /** Percent taken off the sum of the parts' prices. */
  discount: Decimal,
  /** The fewest working days a build of it takes; null for what its labour takes. */
  benchDays: z.number().int().nullable(),
  /** A build is finished only once its tasks are done. */
  tasksFirst: z.boolean(),
});
export type Behaviour = z.infer<typeof Behaviour>;

/** An open build and the revision it took. */
export const KeptBuild = z.object({
  id: Id,
  number: z.string(),
  state: z.enum(openBuildStates),
  quantity: Decimal,
  revisionId: Id,
  revision: z.number().int(),
});

/** A bill of materials with its revisions, the newest first. */
export const Definition = z.object({
  id: Id,
  item: Item,
  purpose: Purpose,
  behaviour: Behaviour,
  fields: OwnFields,
  revisions: z.array(Revision),
  openBuilds: z.array(KeptBuild),
  version: Version,
});
export type Definition = z.infer<typeof Definition>;

export const DefinitionRow = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  purpose: Purpose,
  made: Behaviour.shape.made,
  /** The revision in use, or null while there is only a draft. */
  inUse: z.number().int().nullable(),
  draft: z.number().int().nullable(),
  /** How many could be made from free parts now; null when the definition is not in use or nothing limits it. */
  canMakeNow: Decimal.nullable(),
});
export type DefinitionRow = z.infer<typeof DefinitionRow>;

export const DefinitionFault = z.enum([
  'none-in-use',
  'unpriced-part',
  'archived-part',
  'below-cost',
  'beyond-reckoning',
]);

export const DefinitionUse = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  purpose: Purpose,
  revision: z.number().int(),
  state: z.enum(['draft', 'in-use']),
  as: z.enum(['part', 'alternate']),
  /** For the revision's output quantity; of an alternate, its ratio. */
  quantity: Decimal,
  outputQuantity: Decimal,
});

/** What is wrong with a definition. */
export const FaultRow = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  purpose: Purpose,
  faults: z.array(
    z.object({
      /** `beyond-reckoning`: its cost is more than can be kept, so that it is not known. */
      fault: DefinitionFault,
      parts: z.array(z.object({ id: Id, code: z.string(), name: z.string() })),
    }),
  ),
  unitCost: Decimal.nullable(),
  sellPrice: Decimal.nullable(),
});
export type FaultRow = z.infer<typeof FaultRow>;

/** What replacing a part would do to one definition. */
export const Replacement = z.object({
  definitionId: Id,
  code: z.string(),
  name: z.string(),
  revision: z.number().int(),
  outputQuantity: Decimal,
  quantityBefore: Decimal,
  quantityAfter: Decimal,
  /** Null where it is more than can be kept. */
  costBefore: Decimal.nullable(),
  costAfter: Decimal.nullable(),
  /** Why it cannot be done there; null when it can. */
  problem: z.string().nullable(),
});
export type Replacement = z.infer<typeof Replacement>;
const ReplaceInput = z.object({ partId: Id, byId: Id, ratio: Positive });

/** What a definition would cost if one of its parts had another unit cost. */
export const CostEffect = z.object({
  definitionId: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  /** Null where it is more than can be kept. */
  before: Decimal.nullable(),
  after: Decimal.nullable(),
  sellPrice: Decimal.nullable(),
});
export type CostEffect = z.infer<typeof CostEffect>;

/** A revision that was started or changed. */
export const SavedRevision = Saved.extend({
  definitionId: Id,
  number: z.number().int(),
  state: z.enum(revisionStates),
  inUseFrom: z.string().nullable(),
});
export type SavedRevision = z.infer<typeof SavedRevision>;

export const definitionRoutes = {
  definitions: route({
    method: 'GET',
    path: '/api/definitions',
    tag: 'Define',
    right: 'look',
    summary: 'Bills of materials, by code',
    query: PageQuery.extend({ q: z.string().max(100).optional() }),
    response: pageOf(DefinitionRow),
  }),
  definition: route({
    method: 'GET',
    path: '/api/definitions/:id',
    tag: 'Define',
    right: 'look',
    summary: 'One bill of materials with its revisions',
    params: IdParams,
    response: Definition,
  }),
  createDefinition: route({
    method: 'POST',
    path: '/api/definitions',
    tag: 'Define',
    right: 'define',
    summary: 'Start a bill of materials for an item, with revision 1 as a draft: empty, or a copy of another revision',
    body: z.object({ itemId: Id, purpose: Purpose.default('build'), copyOf: Id.nullable().default(null) }),
    response: SavedRevision,
  }),
  startRevision: route({
    method: 'POST',
    path: '/api/definitions/:id/revisions',
    tag: 'Define',
    right: 'define',
    summary: 'Start a draft from the revision in use',
    params: IdParams,
    body: z.object({}),
    response: SavedRevision,
  }),
  saveRevision: route({
    method: 'PUT',
    path: '/api/revisions/:id',
    tag: 'Define',
    right: 'define',
    summary: 'Save a draft',
    params: IdParams,
    body: z.object({
      version: Version,
      outputQuantity: Positive,
      lines: z.array(LineInput).max(200),
      /** What one is to sell at once it is in use; null for no other price than now. */
      sellPrice: Price.nullable().default(null),
    }),
    response: SavedRevision,
  }),
  putInUse: route({
    method: 'POST',
    path: '/api/revisions/:id/use',
    tag: 'Define',
    right: 'define',
    summary: 'Put a draft in use, now or from a day on, and retire the one before it then',
    params: IdParams,
    body: z.object({ version: Version, from: Day.nullable().default(null) }),
    response: SavedRevision,
  }),
  holdBack: route({
    method: 'POST',
    path: '/api/revisions/:id/hold-back',
    tag: 'Define',
    right: 'define',
    summary: 'Remove the date from which a draft would be in use',
    params: IdParams,
    body: z.object({ version: Version }),
    response: SavedRevision,
  }),
  retireRevision: route({
    method: 'POST',
    path: '/api/revisions/:id/retire',
    tag: 'Define',
    right: 'define',
    summary: 'Retire the revision in use without another in its place',
    params: IdParams,
    body: z.object({ version: Version }),
    response: SavedRevision,
  }),
  setBehaviour: route({
    method: 'PUT',
    path: '/api/definitions/:id/behaviour',
    tag: 'Define',
    right: 'define',
    summary: 'Set how a kit behaves on orders, pick lists, shelves and paperwork',
    params: IdParams,
    body: Behaviour.extend({
      discount: percentUpTo(100),
      // What is left out stays as it is.
      benchDays: z.number().int().min(1).max(400).nullable().optional(),
      tasksFirst: z.boolean().optional(),
      version: Version,
    }),
    response: Saved,
  }),
  setDefinitionFields: route({
    method: 'PUT',
    path: '/api/definitions/:id/fields',
    tag: 'Define',
    right: 'define',
    summary: 'Set the custom fields of a bill of materials',
    params: IdParams,
    body: z.object({ version: Version, fields: OwnFields }),
    response: Saved,
  }),
  definitionFaults: route({
    method: 'GET',
    path: '/api/definition-faults',
    tag: 'Define',
    right: 'look',
    summary: 'Bills of materials that need fixing',
    response: z.array(FaultRow),
  }),
  replacements: route({
    method: 'GET',
    path: '/api/replacements',
    tag: 'Define',
    right: 'look',
    summary: 'Effect of replacing a part on every bill of materials in use',
    query: z.object({ partId: z.coerce.number().int(), byId: z.coerce.number().int(), ratio: Positive.prefault('1') }),
    response: z.array(Replacement),
  }),
  replacePart: route({
    method: 'POST',
    path: '/api/replacements',
    tag: 'Define',
    right: 'define',
    summary: 'Start drafts in which a part is replaced by another',
    body: ReplaceInput.extend({ definitionIds: z.array(Id).min(1).max(500) }),
    response: z.object({
      drafts: z.array(z.object({ definitionId: Id, name: z.string(), revision: z.number().int() })),
    }),
  }),
  discardRevision: route({
    method: 'DELETE',
    path: '/api/revisions/:id',
    tag: 'Define',
    right: 'define',
    summary: 'Discard a draft',
    params: IdParams,
    response: z.object({ definitionId: Id.nullable() }),
  }),
  whereUsed: route({
    method: 'GET',
    path: '/api/items/:id/used-in',
    tag: 'Define',
    right: 'look',
    summary: 'Bills of materials that contain an item, also as an alternate',
    params: IdParams,
    response: z.array(DefinitionUse),
  }),
  costEffect: route({
    method: 'GET',
    path: '/api/items/:id/cost-effect',
    tag: 'Items',
    right: 'look',
    summary: 'What products would cost at another cost of an item',
    params: IdParams,
    query: z.object({ cost: Price }),
    response: z.array(CostEffect),
  }),
};
