import { everyUnitState, MOST_SERIALS, unitStates } from '@yosegi/core/tracking';
import { z } from 'zod';
import { Day, Decimal, Id, IdParams, PageQuery, Printed, pageOf, Remark, route } from './common.ts';

/**
 * Which lot or which serials a line speaks of, by their codes. Empty where the item is not tracked. Of goods that are
 * taken and kept by lot, the first to expire in the bin is meant when none is named; serials always have to be named, and
 * so has the lot of what comes in.
 */
export const Tracked = {
  lot: Printed.nullable().default(null),
  serials: z.array(Printed).max(MOST_SERIALS).default([]),
};
/** The same for goods that come in: a lot that is new keeps its best-before day. */
export const TrackedIn = {
  ...Tracked,
  bestBefore: Day.nullable().default(null),
  /** What is written down of the lot, by the names that its item has for it; an empty one leaves what is known. */
  attributes: z.record(z.string().max(40), z.string().trim().max(80)).default({}),
};

/** Some of an item in one bin, of one lot or one serial. */
export const Piece = z.object({
  lot: z.string().nullable(),
  bestBefore: z.string().nullable(),
  /** What is written down of the lot, in words. */
  says: z.string(),
  serial: z.string().nullable(),
  quantity: Decimal,
  /** What a unit that is known by serial is worth; null for lots, which are worth the average. */
  value: Decimal.nullable(),
  /** Why it may not be used; null while it may. */
  held: z.string().nullable(),
});
export type Piece = z.infer<typeof Piece>;

/** What stands in one bin; `pieces` only of what is tracked, the first to expire first. */
export const BinQuantity = z.object({
  binId: Id,
  bin: z.string(),
  store: z.string(),
  quantity: Decimal,
  pieces: z.array(Piece),
});
export type BinQuantity = z.infer<typeof BinQuantity>;

/** A serial that cannot be given again, and why. */
export const SerialClash = z.object({ code: z.string(), says: z.string() });
export type SerialClash = z.infer<typeof SerialClash>;

/** A lot with what is left of it. */
export const LotRow = z.object({
  id: Id,
  itemId: Id,
  item: z.string(),
  itemCode: z.string(),
  unit: z.string(),
  decimals: z.number().int(),
  code: z.string(),
  bestBefore: z.string().nullable(),
  /** What is written down of it, by the names that its item has for that. */
  attributes: z.record(z.string(), z.string()),
  fields: z.array(z.string()),
  quantity: Decimal,
  value: Decimal,
  /** Where it stands, in walking order. */
  bins: z.string(),
  held: z.string().nullable(),
});
export type LotRow = z.infer<typeof LotRow>;

export const SerialRow = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  /** Where it stands, or the document with which it left. */
  where: z.string(),
  inStock: z.boolean(),
  state: z.enum(everyUnitState),
  /** To whom it was sold, what it brought and cost, and how long its warranty lasts; null while it was not. */
  sold: z
    .object({
      orderId: Id,
      order: z.string(),
      customer: z.string(),
      on: z.string(),
      /** Null where it left as a part of a kit. */
      price: Decimal.nullable(),
      cost: Decimal,
      warrantyUntil: z.string().nullable(),
    })
    .nullable(),
  /** Its own cost; null once it has left. */
  cost: Decimal.nullable(),
  held: z.string().nullable(),
});
export type SerialRow = z.infer<typeof SerialRow>;

/** A unit that is known by its serial number, and where it is in its life. */
export const UnitRow = z.object({
  id: Id,
  itemId: Id,
  code: z.string(),
  name: z.string(),
  serial: z.string(),
  state: z.enum(everyUnitState),
  since: z.string().nullable(),
  /** Where it is or went, in words. */
  where: z.string(),
  held: z.string().nullable(),
  /** What it is worth, or what left with it; null for what is not ours. */
  cost: Decimal.nullable(),
  customer: z.string().nullable(),
  price: Decimal.nullable(),
  /** What it brought beyond its cost; null while it was not sold by itself. */
  profit: Decimal.nullable(),
  warrantyUntil: z.string().nullable(),
});
export type UnitRow = z.infer<typeof UnitRow>;

export const UnitDetail = UnitRow.extend({
  /** Everything that ever happened to it, the oldest first. */
  history: z.array(
    z.object({
      documentId: Id.nullable(),
      repairId: Id.nullable(),
      number: z.string(),
      kind: z.string(),
      at: z.string(),
      person: z.string(),
      /** From whom, to whom or for what. */
      about: z.string(),
      value: Decimal.nullable(),
      undoneBy: z.string().nullable(),
    }),
  ),
});
export type UnitDetail = z.infer<typeof UnitDetail>;

export const LotSort = z.enum(['bestBefore', 'code', 'item', 'quantity']);
export type LotSort = z.infer<typeof LotSort>;

export const trackedRoutes = {
  checkSerials: route({
    method: 'POST',
    path: '/api/items/:id/check-serials',
    tag: 'Lots and serials',
    right: 'look',
    asks: true,
    summary: 'Which of these serials are taken, by what, and the next block that is free',
    params: IdParams,
    body: z.object({
      codes: z.array(z.string().max(40)).max(MOST_SERIALS),
      count: z.number().int().min(1).max(MOST_SERIALS),
    }),
    response: z.object({
      clashes: z.array(SerialClash),
      /** As it is typed, like "SC-0101..0104"; null while the item has no pattern. */
      nextFree: z.string().nullable(),
    }),
  }),
  lots: route({
    method: 'GET',
    path: '/api/lots',
    tag: 'Lots and serials',
    right: 'look',
    summary: 'Lots in stock, first to expire first by default',
    query: PageQuery.extend({
      itemId: z.coerce.number().int().positive().optional(),
      /** A part of the lot's or the item's code or name. */
      q: z.string().max(100).optional(),
      /** Only those whose day is this one or earlier. */
      until: Day.optional(),
      held: z.stringbool().default(false),
      sort: LotSort.default('bestBefore'),
      down: z.stringbool().default(false),
    }),
    response: pageOf(LotRow),
  }),
  serials: route({
    method: 'GET',
    path: '/api/items/:id/serials',
    tag: 'Lots and serials',
    right: 'look',
    summary: 'The serials of an item by code, with where each is or went',
    params: IdParams,
    query: PageQuery.extend({ q: z.string().max(100).optional(), state: z.enum(unitStates).optional() }),
    response: pageOf(SerialRow),
  }),
  serialUnits: route({
    method: 'GET',
    path: '/api/serial-units',
    tag: 'Lots and serials',
    right: 'look',
    summary: 'Pieces by serial number and status, last changed first',
    query: PageQuery.extend({
      itemId: z.coerce.number().int().positive().optional(),
      q: z.string().max(100).optional(),
      state: z.enum(unitStates).optional(),
    }),
    response: pageOf(UnitRow),
  }),
  unitCounts: route({
    method: 'GET',
    path: '/api/serial-unit-counts',
    tag: 'Lots and serials',
    right: 'look',
    summary: 'Number of pieces in each status',
    query: z.object({ itemId: z.coerce.number().int().positive().optional() }),
    response: z.array(z.object({ state: z.enum(everyUnitState), count: z.number().int() })),
  }),
  serialUnit: route({
    method: 'GET',
    path: '/api/serial-units/:id',
    tag: 'Lots and serials',
    right: 'look',
    summary: 'One serial number with its history',
    params: IdParams,
    response: UnitDetail,
  }),
  describeLot: route({
    method: 'PUT',
    path: '/api/lots/:id',
    tag: 'Lots and serials',
    right: 'receive',
    summary: 'Add to the record of a lot; an empty value removes an entry',
    params: IdParams,
    body: z.object({ attributes: TrackedIn.attributes }),
    response: z.object({ id: Id }),
  }),
  hold: route({
    method: 'POST',
    path: '/api/holds',
    tag: 'Lots and serials',
    right: 'hold',
    summary: 'Put lots or serial numbers on hold',
    body: z.object({
      reasonId: Id,
      remark: Remark.default(''),
      lotIds: z.array(Id).max(500).default([]),
      serialIds: z.array(Id).max(500).default([]),
    }),
    response: z.object({
      held: z.number().int(),
      /** What has some of it in a parcel or on a bench, and cannot go on with it. */
      stops: z.array(z.object({ kind: z.enum(['order', 'build']), id: Id, number: z.string() })),
    }),
  }),
  release: route({
    method: 'POST',
    path: '/api/releases',
    tag: 'Lots and serials',
    right: 'release',
    summary: 'Release lots or serials on hold',
    body: z.object({ lotIds: z.array(Id).max(500).default([]), serialIds: z.array(Id).max(500).default([]) }),
    response: z.object({ released: z.number().int() }),
  }),
};
