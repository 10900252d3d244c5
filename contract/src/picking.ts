import { z } from 'zod';
import { Positive } from './amounts.ts';
import { Override } from './builds.ts';
import { Id, IdParams, route } from './common.ts';
import { Posted } from './ledger.ts';
import { Tracked } from './tracking.ts';

export const pickRoutes = {
  pick: route({
    method: 'POST',
    path: '/api/builds/:id/picks',
    tag: 'Pick',
    right: 'pick',
    summary: 'Bring parts from bins to the bench',
    params: IdParams,
    body: z.object({
      lines: z
        .array(z.object({ lineId: Id, binId: Id, quantity: Positive, ...Tracked }))
        .min(1)
        .max(200),
      override: Override.optional(),
    }),
    /** With how many lines of the build are still to be picked before it is finished. */
    response: Posted.extend({ openLines: z.number().int() }),
  }),
};
