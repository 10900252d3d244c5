import { isCurrency, isLocale, paperColumns, paperSizes, SETUP_STEPS } from '@yosegi/core/people';
import { z } from 'zod';
import { Id, IdParams, Name, route, Version } from './common.ts';
import { roles } from './rights.ts';

export const Person = z.object({ id: Id, name: z.string(), initials: z.string(), role: z.enum(roles) });
export type Person = z.infer<typeof Person>;

export const Company = z.object({
  name: z.string(),
  currency: z.string(),
  locale: z.string(),
  /** As orders print it. */
  address: z.string(),
  email: z.string(),
  /** Days of the week on which it works; Monday is 1. */
  workDays: z.array(z.number().int()),
  /** Minutes of labour that its benches do on a working day. */
  benchMinutes: z.number().int(),
  /** The step of its set-up that is next; null once it is over. */
  setupStep: z.number().int().nullable(),
  /** How papers for customers look. */
  papers: z.object({
    size: z.enum(paperSizes),
    head: z.string(),
    foot: z.string(),
    columns: z.array(z.enum(paperColumns)),
    /** Names the logo's content; null where there is none. */
    logo: z.string().nullable(),
  }),
  version: Version,
});
export type Company = z.infer<typeof Company>;

/** Somebody who works here, also when they may not sign in any more. */
export const Worker = Person.extend({ active: z.boolean(), version: Version });
export type Worker = z.infer<typeof Worker>;
export const WorkerInput = z.object({
  name: Name,
  initials: z.string().trim().min(1).max(3),
  role: z.enum(roles),
  active: z.boolean().default(true),
});

const Session = z.object({
  person: Person.nullable(),
  company: Company,
  /** Where days are counted, as an IANA zone: a browser elsewhere counts the same. */
  timeZone: z.string(),
});
export type Session = z.infer<typeof Session>;

export const peopleRoutes = {
  health: route({
    method: 'GET',
    path: '/api/health',
    tag: 'System',
    right: 'anyone',
    summary: 'Whether the server and its database answer',
    response: z.object({ status: z.literal('ok'), schema: z.string() }),
  }),
  people: route({
    method: 'GET',
    path: '/api/people',
    tag: 'People',
    right: 'anyone',
    summary: 'Everyone who can be chosen at sign-in',
    response: z.array(Person),
  }),
  session: route({
    method: 'GET',
    path: '/api/session',
    tag: 'People',
    right: 'anyone',
    summary: 'Who is signed in, and the company',
    response: Session,
  }),
  updateCompany: route({
    method: 'PUT',
    path: '/api/company',
    tag: 'People',
    right: 'set-up',
    summary: 'Change the company’s name and address, as printed on papers',
    body: z.object({
      name: Name,
      address: z.string().trim().max(500),
      email: z.union([z.literal(''), z.email().max(200)]),
      /** What is left out stays as it is. */
      currency: z.string().trim().refine(isCurrency, 'Enter the three letters of a currency, like EUR.').optional(),
      locale: z.string().trim().refine(isLocale, 'Enter a language and a country, like en-GB.').optional(),
      workDays: z.array(z.number().int().min(1).max(7)).min(1).max(7).optional(),
      benchMinutes: z.number().int().min(1).max(100_000).optional(),
      version: Version,
    }),
    response: Company,
  }),
  setUp: route({
    method: 'PUT',
    path: '/api/company/setup',
    tag: 'People',
    right: 'set-up',
    summary: 'Go to a step of the setup, or end it',
    body: z.object({ step: z.number().int().min(1).max(SETUP_STEPS).nullable() }),
    response: Company,
  }),
  workers: route({
    method: 'GET',
    path: '/api/workers',
    tag: 'People',
    right: 'look',
    summary: 'Everyone who works here or did',
    response: z.array(Worker),
  }),
  createWorker: route({
    method: 'POST',
    path: '/api/workers',
    tag: 'People',
    right: 'set-up',
    summary: 'Add a person who works here',
    body: WorkerInput,
    response: Worker,
  }),
  updateWorker: route({
    method: 'PUT',
    path: '/api/workers/:id',
    tag: 'People',
    right: 'set-up',
    summary: 'Change someone’s name or role, or stop them signing in',
    params: IdParams,
    body: WorkerInput.extend({ version: Version }),
    response: Worker,
  }),
  updatePapers: route({
    method: 'PUT',
    path: '/api/company/papers',
    tag: 'People',
    right: 'set-up',
    summary: 'Change how papers for customers look',
    body: z.object({
      size: z.enum(paperSizes),
      /** Over the first line and under the last one. */
      head: z.string().trim().max(1000),
      foot: z.string().trim().max(1000),
      columns: z.array(z.enum(paperColumns)).max(paperColumns.length),
      version: Version,
    }),
    response: Company,
  }),
  removeLogo: route({
    method: 'DELETE',
    path: '/api/company/logo',
    tag: 'People',
    right: 'set-up',
    summary: 'Print papers without a logo',
    response: Company,
  }),
  signIn: route({
    method: 'POST',
    path: '/api/session',
    tag: 'People',
    right: 'anyone',
    summary: 'Choose who is working here',
    body: z.object({ personId: Id }),
    response: Session,
  }),
};
