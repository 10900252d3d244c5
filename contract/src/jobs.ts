import { jobRecords } from '@yosegi/core/jobs';
import { z } from 'zod';
import { Decimal, Id, JobTag, route } from './common.ts';

/** What is booked under a tag. */
export const JobRow = z.object({
  tag: z.string(),
  records: z.number().int(),
  cost: Decimal,
  income: Decimal,
  margin: Decimal,
});
export type JobRow = z.infer<typeof JobRow>;

const Sums = z.object({ cost: Decimal, income: Decimal, margin: Decimal });

export const Job = Sums.extend({
  tag: z.string(),
  bought: Decimal,
  labour: Decimal,
  charges: Decimal,
  /** Orders, builds, repairs, purchases, and documents that are for none of them. */
  records: z.array(
    Sums.extend({
      kind: z.enum(jobRecords),
      id: Id,
      number: z.string(),
      /** Who or what it is for. */
      about: z.string(),
      /** Where it stands, in a word. */
      state: z.string(),
    }),
  ),
  /** What was posted, the oldest first. */
  postings: z.array(
    z.object({
      /** Of the document; null for what is given back and moves nothing. */
      documentId: Id.nullable(),
      number: z.string(),
      kind: z.string(),
      at: z.string(),
      /** The record it is for. */
      of: z.string(),
      bought: Decimal,
      labour: Decimal,
      charges: Decimal,
      stockChange: Decimal,
      cost: Decimal,
      income: Decimal,
    }),
  ),
});
export type Job = z.infer<typeof Job>;

export const jobRoutes = {
  jobs: route({
    method: 'GET',
    path: '/api/jobs',
    tag: 'Jobs',
    right: 'look',
    summary: 'Job tags that something is booked under, by name',
    response: z.array(JobRow),
  }),
  job: route({
    method: 'GET',
    path: '/api/job',
    tag: 'Jobs',
    right: 'look',
    summary: 'Everything booked under a job tag, with its cost and income',
    query: z.object({ tag: z.string().trim().max(60).default('') }),
    response: Job,
  }),
  setJobTag: route({
    method: 'POST',
    path: '/api/job-tags',
    tag: 'Jobs',
    right: 'plan',
    summary: 'Book a build, a purchase order or an order under a job tag; an empty one books it under none',
    body: z.object({ kind: z.enum(['build', 'order', 'purchase']), id: Id, jobTag: JobTag }),
    response: z.object({ tag: z.string() }),
  }),
};
