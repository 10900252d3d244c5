import { repairStates } from '@yosegi/core/repairs';
import { z } from 'zod';
import { Price } from './amounts.ts';
import { Day, Decimal, Id, IdParams, JobTag, Numbered, PageQuery, Printed, pageOf, route, Version } from './common.ts';
import { PartItem } from './definitions.ts';

export const RepairState = z.enum(repairStates);

/** A customer's goods that are here to be mended, or were. */
export const RepairRow = z.object({
  id: Id,
  number: z.string(),
  state: RepairState,
  /** Parts it waits for on the bench, in words; empty while it can go on. */
  waiting: z.array(z.string()),
  customerId: Id,
  customer: z.string(),
  itemId: Id,
  code: z.string(),
  name: z.string(),
  serialId: Id.nullable(),
  serial: z.string().nullable(),
  fault: z.string(),
  accessories: z.string(),
  wantedOn: z.string().nullable(),
  late: z.boolean(),
  warranty: z.boolean(),
  /** What the customer was told it would cost. */
  estimate: Decimal.nullable(),
  /** What was agreed; null for by what it takes. */
  price: Decimal.nullable(),
  declined: z.string().nullable(),
  jobTag: z.string(),
  takenInAt: z.string(),
  givenBackAt: z.string().nullable(),
  charged: Decimal.nullable(),
  /** The build with its work. */
  buildId: Id,
  version: Version,
});
export type RepairRow = z.infer<typeof RepairRow>;

export const RepairDetail = RepairRow.extend({
  item: PartItem,
  bin: z.string(),
  store: z.string(),
  report: z.string(),
  takenInBy: z.string(),
  /** What it has cost; while it is open, what it costs with all that is there and written down now. */
  cost: z.object({ parts: Decimal, labour: Decimal, charges: Decimal, total: Decimal }),
  /** Beyond its cost; null until it is given back. */
  margin: Decimal.nullable(),
  events: z.array(
    z.object({ id: Id, at: z.string(), person: z.string(), says: z.string(), amount: Decimal.nullable() }),
  ),
  /** When the unit was sold by us, and how long its warranty lasts; null where nobody knows. */
  sold: z
    .object({
      documentId: Id,
      number: z.string(),
      on: z.string(),
      customer: z.string(),
      warrantyUntil: z.string().nullable(),
    })
    .nullable(),
  /** The same unit, here before. */
  earlier: z.array(z.object({ id: Id, number: z.string(), fault: z.string(), givenBackAt: z.string().nullable() })),
});
export type RepairDetail = z.infer<typeof RepairDetail>;

const Fault = z.string().trim().min(1).max(1000);
const Accessories = z.string().trim().max(500).default('');

/** What is said of a repair when it is taken in, and may be said otherwise later. */
const Said = {
  fault: Fault,
  accessories: Accessories,
  wantedOn: Day.nullable().default(null),
  warranty: z.boolean().default(false),
  price: Price.nullable().default(null),
  jobTag: JobTag,
};

const OF = { tag: 'Repairs', params: IdParams } as const;
const Because = z.string().trim().min(1).max(500);

export const repairRoutes = {
  repairs: route({
    tag: 'Repairs',
    method: 'GET',
    path: '/api/repairs',
    right: 'look',
    summary: 'Repairs of customers’ goods: those that are here by the day they are wanted, others the newest first',
    query: PageQuery.extend({
      show: z.enum(['here', 'given-back']).default('here'),
      customerId: z.coerce.number().int().positive().optional(),
      q: z.string().max(100).optional(),
    }),
    response: pageOf(RepairRow),
  }),
  repair: route({
    ...OF,
    method: 'GET',
    path: '/api/repairs/:id',
    right: 'look',
    summary: 'One repair with its cost, income and history',
    response: RepairDetail,
  }),
  takeIn: route({
    tag: 'Repairs',
    method: 'POST',
    path: '/api/repairs',
    right: 'build',
    summary: 'Take a customer’s goods in to be repaired',
    body: z.object({
      customerId: Id,
      itemId: Id,
      /** A serial number that may be new to us; null where it has none. */
      serial: Printed.nullable().default(null),
      /** The store it stays at; null for the first. */
      storeId: Id.nullable().default(null),
      ...Said,
    }),
    response: Numbered.extend({ buildId: Id }),
  }),
  changeRepair: route({
    ...OF,
    method: 'PUT',
    path: '/api/repairs/:id',
    right: 'build',
    summary: 'Change the details of a repair that is here',
    body: z.object({ version: Version, ...Said, report: z.string().trim().max(2000).default('') }),
    response: Numbered,
  }),
  estimateRepair: route({
    ...OF,
    method: 'POST',
    path: '/api/repairs/:id/estimate',
    right: 'sell',
    summary: 'Send the customer an estimate',
    body: z.object({ version: Version, estimate: Price }),
    response: Numbered,
  }),
  agreeRepair: route({
    ...OF,
    method: 'POST',
    path: '/api/repairs/:id/agree',
    right: 'sell',
    summary: 'The customer agrees, to the estimate or to another price',
    body: z.object({ version: Version, price: Price.nullable().default(null) }),
    response: Numbered,
  }),
  declineRepair: route({
    ...OF,
    method: 'POST',
    path: '/api/repairs/:id/decline',
    right: 'sell',
    summary: 'Decline a repair: parts go back to their bins, and the goods are ready to return',
    body: z.object({ version: Version, because: Because }),
    response: Numbered,
  }),
  giveBack: route({
    ...OF,
    method: 'POST',
    path: '/api/repairs/:id/give-back',
    right: 'sell',
    summary: 'Give the goods back to the customer, at a price',
    body: z.object({ version: Version, charged: Price }),
    response: Numbered,
  }),
  takeRepairBack: route({
    ...OF,
    method: 'POST',
    path: '/api/repairs/:id/take-back',
    right: 'sell',
    summary: 'Mark a repair as not collected after all',
    body: z.object({ version: Version }),
    response: Numbered,
  }),
};
