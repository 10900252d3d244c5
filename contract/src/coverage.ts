import { z } from 'zod';
import { Decimal, Id, route } from './common.ts';
import { Basis, Taken } from './definitions.ts';
import { Measure } from './items.ts';

/** Everything coverage is computed from, at one moment. */
export const Snapshot = z.object({
  items: z.array(
    z.object({
      id: Id,
      code: z.string(),
      name: z.string(),
      unit: z.string(),
      decimals: z.number().int(),
      measures: z.array(Measure),
      homeBin: z.string().nullable(),
      /** On shelves and not held. */
      onHand: Decimal,
      promised: Decimal,
      averageCost: Decimal,
      definitionId: Id.nullable(),
    }),
  ),
  definitions: z.array(
    z.object({
      itemId: Id,
      outputQuantity: Decimal,
      parts: z.array(
        z.object({
          itemId: Id,
          basis: Basis,
          quantity: Decimal,
          waste: Decimal,
          taken: Taken,
          /** What may stand in for it, the best first. */
          alternates: z.array(z.object({ itemId: Id, ratio: Decimal })),
        }),
      ),
      labour: z.array(z.object({ basis: Basis, minutes: Decimal, ratePerHour: Decimal })),
      charges: z.array(z.object({ basis: Basis, amount: Decimal })),
    }),
  ),
  /** Outputs of open builds, and what suppliers will bring; what is overdue has no day. */
  coming: z.array(z.object({ itemId: Id, quantity: Decimal, date: z.string().nullable(), from: z.string() })),
});
export type Snapshot = z.infer<typeof Snapshot>;

export const coverageRoutes = {
  snapshot: route({
    method: 'GET',
    path: '/api/coverage/snapshot',
    tag: 'Cover',
    right: 'look',
    summary: 'Stock, definitions in use and what is coming, for computing coverage',
    response: Snapshot,
  }),
};
