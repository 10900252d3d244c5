import type { Person } from '@yosegi/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Reader } from '../db/database.ts';
import { activePerson } from '../db/people.ts';

export const SESSION_COOKIE = 'yosegi-person';

/** The id in a request's signed cookie; null when there is none, or it is not ours. */
export function signedId(request: FastifyRequest): number | null {
  const cookie = request.cookies[SESSION_COOKIE];
  const unsigned = cookie ? request.unsignCookie(cookie) : undefined;
  return unsigned?.valid && unsigned.value !== null ? Number(unsigned.value) : null;
}

/** The person chosen in this browser, from its signed cookie; null when none or no longer here. */
export async function personOf(request: FastifyRequest, db: Reader): Promise<Person | null> {
  const id = signedId(request);
  if (id === null || !Number.isSafeInteger(id)) return null;
  return activePerson(db, id);
}

/** Keeps the choice in a signed cookie that no other site can send along. */
export function remember(reply: FastifyReply, personId: number): void {
  reply.setCookie(SESSION_COOKIE, String(personId), {
    signed: true,
    httpOnly: true,
    sameSite: 'strict',
    path: '/',
    maxAge: 60 * 60 * 24 * 30,
  });
}
