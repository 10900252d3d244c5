import { z } from 'zod';
import { Positive } from './amounts.ts';
import { BuildDetail, Override } from './builds.ts';
import { Id, IdParams, route } from './common.ts';
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
    response: z.object({ documentId: Id, number: z.string(), build: BuildDetail }),
  }),
};
