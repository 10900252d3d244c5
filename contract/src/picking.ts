import { z } from 'zod';
import { Positive } from './amounts.ts';
import { Override } from './builds.ts';
import { Id, IdParams, Numbered, route } from './common.ts';
import { Posted } from './ledger.ts';
import { Tracked } from './tracking.ts';

const Because = z.string().trim().min(1).max(200);

export const pickRoutes = {
  addPart: route({
    method: 'POST',
    path: '/api/builds/:id/parts',
    tag: 'Pick',
    right: 'build',
    summary: 'Add a part to a build, and bring it to the bench at once where a bin is named',
    params: IdParams,
    body: z.object({
      itemId: Id,
      quantity: Positive,
      because: Because,
      /** Where it is taken from; null leaves it to be picked. */
      binId: Id.nullable().default(null),
      ...Tracked,
      override: Override.optional(),
    }),
    response: z.object({ lineId: Id, document: Posted.nullable() }),
  }),
  standIn: route({
    method: 'POST',
    path: '/api/builds/:id/stand-ins',
    tag: 'Pick',
    right: 'build',
    summary: 'Use an alternate for some of an open part, as a line of its own',
    params: IdParams,
    body: z.object({
      lineId: Id,
      itemId: Id,
      /** How much of the part it stands in for. */
      quantity: Positive,
    }),
    response: z.object({ lineId: Id }),
  }),
  swapPart: route({
    method: 'POST',
    path: '/api/orders/:id/swaps',
    tag: 'Pick',
    right: 'pick',
    summary: 'Use an alternate for a part in every kit of a line',
    params: IdParams,
    body: z.object({ partId: Id, itemId: Id }),
    response: Numbered,
  }),
  takeBack: route({
    method: 'POST',
    path: '/api/builds/:id/parts/back',
    tag: 'Pick',
    right: 'build',
    summary: 'Take a part back from the bench to the bin it came from; what was added is needed no more',
    params: IdParams,
    body: z.object({ lineId: Id, quantity: Positive, serials: Tracked.serials }),
    response: z.object({ document: Posted.nullable() }),
  }),
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
