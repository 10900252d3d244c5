import { z } from 'zod';
import { FromZero } from './amounts.ts';
import { Decimal, Id, OfItem, route, Version } from './common.ts';

/** A point at which to order something again, as it stands and as its use proposes it, with what that rests on. */
export const ReorderRow = z.object({
  ...OfItem,
  version: Version,
  point: Decimal.nullable(),
  /** Null where nobody knows how long it takes to come, or nothing was used. */
  proposed: Decimal.nullable(),
  perWeek: Decimal,
  /** The first of the days in which most was used; null without a proposal. */
  from: z.string().nullable(),
  /** Days that a slow delivery takes: learnt, or else as stated. */
  days: z.number().int().nullable(),
  /** Whose days they are; null where nobody sells it. */
  supplier: z.string().nullable(),
  /** How many deliveries they were learnt from, and in how many days half of those came; null where they are stated. */
  learnt: z.object({ deliveries: z.number().int(), usual: z.number().int() }).nullable(),
});
export type ReorderRow = z.infer<typeof ReorderRow>;

/** Days of use that a proposal looks back on. */
export const ReorderProposals = z.object({ since: z.string(), rows: z.array(ReorderRow) });
export type ReorderProposals = z.infer<typeof ReorderProposals>;

export const reorderRoutes = {
  reorderProposals: route({
    method: 'GET',
    path: '/api/reorder-points',
    tag: 'Buying',
    right: 'look',
    summary: 'Reorder points of bought items, with proposals from usage and deliveries',
    response: ReorderProposals,
  }),
  setReorderPoints: route({
    method: 'POST',
    path: '/api/reorder-points',
    tag: 'Buying',
    right: 'define',
    summary: 'Set reorder points; answers what they were before',
    body: z.object({
      points: z
        .array(z.object({ itemId: Id, point: FromZero.nullable(), version: Version }))
        .min(1)
        .max(500),
    }),
    response: z.object({
      before: z.array(z.object({ itemId: Id, point: Decimal.nullable(), version: Version })),
    }),
  }),
};
