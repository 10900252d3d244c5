import type { Person, Route } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { refuseUnprintable } from '@yosegi/core/text';
import type { FastifyRequest } from 'fastify';
import type { Mounting } from './mount.ts';
import { personOf } from './session.ts';

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks; set before anything of the request is read. */
    person: Person | null;
  }
}

/** Hooks that let a request in or not: who asks is settled before its body is read, and every text before it is used. */
export const admits = (mounting: Mounting, access: Route['access']) => ({
  onRequest: async (request: FastifyRequest) => {
    request.person = await admit(request, mounting, access);
  },
  preValidation: async (request: FastifyRequest) => {
    for (const part of ['params', 'query', 'body'] as const) refuseUnprintableIn(request[part], []);
  },
});

/** Who is asking, if they may. @throws Refusal `sign-in` or `owner-only` */
async function admit(
  request: FastifyRequest,
  { database, calendar }: Mounting,
  access: Route['access'],
): Promise<Person | null> {
  await calendar.reach();
  const person = await personOf(request, database.reader);
  if (access === 'open') return person;
  if (!person) throw new Refusal('sign-in');
  if (access === 'owner' && person.role !== 'owner') throw new Refusal('owner-only');
  return person;
}

/** Looks at every text that was sent. @throws Refusal `unprintable` naming its field */
function refuseUnprintableIn(value: unknown, path: readonly string[]): void {
  if (typeof value === 'string') refuseUnprintable(value, path.join('.'));
  if (value === null || typeof value !== 'object' || Buffer.isBuffer(value)) return;
  for (const [name, entry] of Object.entries(value)) refuseUnprintableIn(entry, [...path, name]);
}

/**
 * Refuses commands that a page of another origin sends, also one from another port of this machine. What is no browser
 * says neither header and has no cookie that it did not ask for.
 * @throws Refusal `foreign-origin`
 */
export function refuseForeignOrigin(request: FastifyRequest): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return;
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const isOwn = site === undefined || site === 'same-origin' || site === 'none';
  if (!isOwn || (origin !== undefined && origin !== `http://${host}`)) throw new Refusal('foreign-origin');
}
