import { Readable } from 'node:stream';
import type { Person, Right } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { refuseUnprintable } from '@yosegi/core/text';
import type { FastifyRequest } from 'fastify';
import { requireRight } from '../command/doing.ts';
import type { Mounting } from './mounting.ts';
import { personOf } from './session.ts';

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks; set before anything of the request is read. */
    person: Person | null;
    /** The body as it was sent, before its schema read it. */
    sent: unknown;
  }
}

/** Hooks that let a request in or not: who asks is settled before its body is read, and every text before it is used. */
export const admits = (mounting: Mounting, right: Right) => ({
  onRequest: async (request: FastifyRequest) => {
    request.person = await admit(request, mounting, right);
  },
  preValidation: async (request: FastifyRequest) => {
    request.sent = request.body;
    for (const part of ['params', 'query', 'body'] as const) refuseUnprintableIn(request[part], []);
  },
});

/** Who is asking, if they may. @throws Refusal `sign-in` or `owner-only` */
async function admit(request: FastifyRequest, { database, calendar }: Mounting, right: Right): Promise<Person | null> {
  await calendar.reach();
  const person = await personOf(request, database.reader);
  requireRight(person, right);
  return person;
}

/** Looks at every text that was sent. @throws Refusal `unprintable` naming its field */
function refuseUnprintableIn(value: unknown, path: readonly string[]): void {
  if (typeof value === 'string') refuseUnprintable(value, path.join('.'));
  if (value === null || typeof value !== 'object' || Buffer.isBuffer(value) || value instanceof Readable) return;
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
