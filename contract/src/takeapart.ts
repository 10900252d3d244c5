import { bases } from '@yosegi/core/definitions';
import { ZERO } from '@yosegi/core/number';
import { leftovers } from '@yosegi/core/takeapart';
import { z } from 'zod';
import { FromZero, Positive, percentUpTo } from './amounts.ts';
import { Override } from './builds.ts';
import { Decimal, Id, IdParams, OfItem, Remark, route } from './common.ts';
import { Measure, Tracking } from './items.ts';
import { Posted } from './ledger.ts';
import { BinQuantity, Piece, Tracked, TrackedIn } from './tracking.ts';

/** What comes back of one line when a product is taken apart. */
export const ApartLine = z.object({
  lineId: Id,
  ...OfItem,
  measures: z.array(Measure),
  tracking: Tracking,
  /** What went into the very unit or lot that is taken apart, as far as it is known. */
  wentIn: z.array(Piece),
  share: Decimal,
  basis: z.enum(bases),
  /** So much of it for so many of the product. */
  quantity: Decimal,
  output: Decimal,
  homeBinId: Id.nullable(),
});
export const ApartPlan = z.object({
  itemId: Id,
  definitionId: Id,
  revisionId: Id,
  revision: z.number().int(),
  /** Whether that is the one in use. */
  isInUse: z.boolean(),
  /** The build whose revision this is; null for the revision in use, because nobody said which build. */
  build: z.string().nullable(),
  /** Builds that made the named lot or serials, or else of the product, the newest first. */
  madeBy: z.array(z.object({ buildId: Id, build: z.string(), revision: z.number().int(), at: z.string() })),
  /** By what really went in, where that is known: by which builds, and what of it never comes back; null by the revision. */
  asBuilt: z
    .object({ builds: z.array(z.string()), never: z.array(z.object({ text: z.string(), cost: Decimal })) })
    .nullable(),
  decimals: z.number().int(),
  unit: z.string(),
  tracking: Tracking,
  measures: z.array(Measure),
  /** Value ÷ quantity of the product, to show what will be split. */
  stockQuantity: Decimal,
  stockValue: Decimal,
  /** What the named serials themselves are worth; null while none is named. */
  ownValue: Decimal.nullable(),
  /** What came back and is taken apart, with all that it is worth; null for what stands on a shelf. */
  piece: z
    .object({ id: Id, returnId: Id, number: z.string(), bin: z.string(), waiting: Decimal, value: Decimal })
    .nullable(),
  bins: z.array(BinQuantity),
  lines: z.array(ApartLine),
});
export type ApartPlan = z.infer<typeof ApartPlan>;

/** Some of one product that is taken apart. */
const ApartProduct = z.object({
  itemId: Id,
  revisionId: Id,
  /** The build they came from, where it is known. */
  buildId: Id.nullable().default(null),
  /** Where it stands; of what came back that is known. */
  binId: Id,
  /** What came back and is taken apart from the returns bin; null for what stands on a shelf. */
  pieceId: Id.nullable().default(null),
  quantity: Positive,
  ...Tracked,
  /** The percentage of the value that is written off for what never comes back. */
  writeOff: percentUpTo(100).default(ZERO),
  leftover: z.enum(leftovers),
  lines: z
    .array(
      z.object({
        lineId: Id,
        good: FromZero,
        damaged: FromZero,
        binId: Id,
        /** Its share for this once; null leaves it to what the typed ones leave, by its own share. */
        share: percentUpTo(100).nullable().default(null),
        ...TrackedIn,
      }),
    )
    .max(200),
});

/** Somebody who waits for parts, and what taking something apart would bring them. */
const Freed = z.object({
  kind: z.enum(['build', 'order']),
  id: Id,
  number: z.string(),
  who: z.string(),
  /** With these nothing of it is missing any more. */
  whole: z.boolean(),
  parts: z.array(z.object({ code: z.string(), name: z.string(), unit: z.string(), quantity: Decimal })),
});
export type Freed = z.infer<typeof Freed>;

/** A product on shelves, or come back, in which parts are that somebody misses. */
const Containing = z.object({
  itemId: Id,
  code: z.string(),
  name: z.string(),
  /** Of it free on shelves. */
  free: Decimal,
  /** The part, and how much of it one gives. */
  partId: Id,
  each: Decimal,
});
export type Containing = z.infer<typeof Containing>;

export const apartRoutes = {
  apartFrees: route({
    method: 'POST',
    path: '/api/take-aparts/frees',
    tag: 'Take apart',
    right: 'look',
    asks: true,
    summary: 'Who would get missing parts if something were taken apart',
    body: z.object({
      taken: z.object({ itemId: Id, quantity: Positive }),
      parts: z.array(z.object({ itemId: Id, quantity: FromZero })).max(200),
    }),
    response: z.array(Freed),
  }),
  containing: route({
    method: 'GET',
    path: '/api/containing',
    tag: 'Take apart',
    right: 'look',
    summary: 'Products in stock that contain these parts and could be taken apart',
    query: z.object({
      partIds: z
        .string()
        .max(2000)
        .regex(/^[\d,]*$/)
        .default(''),
    }),
    response: z.array(Containing),
  }),
  apartPlan: route({
    method: 'GET',
    path: '/api/items/:id/take-apart',
    tag: 'Take apart',
    right: 'look',
    summary: 'What taking one apart would bring back',
    params: IdParams,
    query: z.object({
      /** The lot or the serials to be taken apart, to see what went into them. */
      lot: z.string().max(40).optional(),
      serials: z.string().max(4000).optional(),
      /** The build that made them. */
      buildId: z.coerce.number().int().positive().optional(),
      /** What came back and is taken apart. */
      pieceId: z.coerce.number().int().positive().optional(),
    }),
    response: ApartPlan,
  }),
  takeApart: route({
    method: 'POST',
    path: '/api/take-aparts',
    tag: 'Take apart',
    right: 'take-apart',
    summary: 'Take products in stock apart into their parts',
    body: ApartProduct.extend({
      /** Others that are taken apart in the same document. */
      others: z.array(ApartProduct).max(20).default([]),
      remark: Remark.default(''),
      /** Also what is promised to orders and builds, which was seen. */
      alsoPromised: z.boolean().default(false),
      override: Override.optional(),
    }),
    response: Posted,
  }),
};
