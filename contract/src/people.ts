import { paperColumns, paperSizes } from '@yosegi/core/people';
import { z } from 'zod';
import { Id, Name, route, Version } from './common.ts';
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

const Session = z.object({ person: Person.nullable(), company: Company });
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
    summary: 'Change the company’s name and address, as its papers say them',
    body: z.object({
      name: Name,
      address: z.string().trim().max(500),
      email: z.union([z.literal(''), z.email().max(200)]),
      version: Version,
    }),
    response: Company,
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
