import { z } from 'zod';
import { Decimal, Id, IdParams, PageQuery, pageOf, route, Version } from './common.ts';
import { Item } from './items.ts';

export const Basis = z.enum(['per-output', 'per-run']);
export const Taken = z.enum(['picked-first', 'when-finished']);

const PartInput = z.object({
  kind: z.literal('part'),
  itemId: Id,
  basis: Basis,
  /** In the part's unit, for the output quantity or for a run. */
  quantity: Decimal,
  /** Percent added for waste. */
  waste: Decimal,
  taken: Taken,
  /** Take-apart share in percent as typed; null lets it follow cost. */
  share: Decimal.nullable(),
  comesBack: z.boolean(),
});
const LabourInput = z.object({
  kind: z.literal('labour'),
  text: z.string().trim().max(200),
  basis: Basis,
  minutes: Decimal,
  rateId: Id,
});
const ChargeInput = z.object({
  kind: z.literal('charge'),
  text: z.string().trim().min(1).max(200),
  basis: Basis,
  amount: Decimal,
});
const NoteInput = z.object({ kind: z.literal('note'), text: z.string().trim().min(1).max(1000) });

export const LineInput = z.discriminatedUnion('kind', [PartInput, LabourInput, ChargeInput, NoteInput]);
export type LineInput = z.infer<typeof LineInput>;

/** What a screen shows of the item on a part line. */
export const PartItem = Item.pick({
  id: true,
  code: true,
  name: true,
  unit: true,
  decimals: true,
  averageCost: true,
  latestCost: true,
  standardCost: true,
  free: true,
  onHand: true,
  definitionId: true,
});
export type PartItem = z.infer<typeof PartItem>;

export const Line = z.discriminatedUnion('kind', [
  PartInput.extend({ item: PartItem }),
  LabourInput.extend({ ratePerHour: Decimal }),
  ChargeInput,
  NoteInput,
]);
export type Line = z.infer<typeof Line>;

export const Revision = z.object({
  id: Id,
  number: z.number().int(),
  state: z.enum(['draft', 'in-use', 'retired']),
  outputQuantity: Decimal,
  inUseFrom: z.string().nullable(),
  version: Version,
  lines: z.array(Line),
});
export type Revision = z.infer<typeof Revision>;

/** A bill of materials with its revisions, the newest first. */
export const Definition = z.object({ id: Id, item: Item, revisions: z.array(Revision) });
export type Definition = z.infer<typeof Definition>;

export const DefinitionRow = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  unit: z.string(),
  /** The revision in use, or null while there is only a draft. */
  inUse: z.number().int().nullable(),
  draft: z.number().int().nullable(),
  /** How many could be made from free parts now; null when the definition is not in use or nothing limits it. */
  canMakeNow: Decimal.nullable(),
});
export type DefinitionRow = z.infer<typeof DefinitionRow>;

export const DefinitionUse = z.object({ id: Id, itemId: Id, code: z.string(), name: z.string(), quantity: Decimal });

export const definitionRoutes = {
  definitions: route({
    method: 'GET',
    path: '/api/definitions',
    tag: 'Define',
    summary: 'Bills of materials, by code',
    query: PageQuery.extend({ q: z.string().max(100).optional() }),
    response: pageOf(DefinitionRow),
  }),
  definition: route({
    method: 'GET',
    path: '/api/definitions/:id',
    tag: 'Define',
    summary: 'One bill of materials with its revisions',
    params: IdParams,
    response: Definition,
  }),
  createDefinition: route({
    method: 'POST',
    path: '/api/definitions',
    tag: 'Define',
    summary: 'Start a bill of materials for an item, with revision 1 as an empty draft',
    body: z.object({ itemId: Id }),
    response: Definition,
  }),
  startRevision: route({
    method: 'POST',
    path: '/api/definitions/:id/revisions',
    tag: 'Define',
    summary: 'Start a draft from the revision in use',
    params: IdParams,
    body: z.object({}),
    response: Definition,
  }),
  saveRevision: route({
    method: 'PUT',
    path: '/api/revisions/:id',
    tag: 'Define',
    summary: 'Save a draft',
    params: IdParams,
    body: z.object({ version: Version, outputQuantity: Decimal, lines: z.array(LineInput).max(200) }),
    response: Definition,
  }),
  putInUse: route({
    method: 'POST',
    path: '/api/revisions/:id/use',
    tag: 'Define',
    summary: 'Put a draft in use and retire the one before it',
    params: IdParams,
    body: z.object({ version: Version }),
    response: Definition,
  }),
  discardRevision: route({
    method: 'DELETE',
    path: '/api/revisions/:id',
    tag: 'Define',
    summary: 'Throw a draft away',
    params: IdParams,
    response: z.object({ definitionId: Id.nullable() }),
  }),
  whereUsed: route({
    method: 'GET',
    path: '/api/items/:id/used-in',
    tag: 'Define',
    summary: 'Definitions in use that contain an item',
    params: IdParams,
    response: z.array(DefinitionUse),
  }),
};
