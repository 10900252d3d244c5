import type { Person } from '@yosegi/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Reader } from '../db/database.ts';

const COOKIE = 'yosegi-person';

/** The id in a request's signed cookie; null when there is none, or it is not ours. */
export function signedId(request: FastifyRequest): number | null {
  const cookie = request.cookies[COOKIE];
  const unsigned = cookie ? request.unsignCookie(cookie) : undefined;
  return unsigned?.valid && unsigned.value !== null ? Number(unsigned.value) : null;
}

/** The person chosen in this browser, from its signed cookie; null when none or no longer here. */
export async function personOf(request: FastifyRequest, db: Reader): Promise<Person | null> {
  const id = signedId(request);
  if (id === null) return null;
  const sql = 'SELECT id, name, initials, role FROM person WHERE id = $1 AND active = 1';
  return (await db.one<Person>(sql, [id])) ?? null;
}

/** Keeps the choice in a signed cookie that no other site can send along. */
export function remember(reply: FastifyReply, personId: number): void {
  reply.setCookie(COOKIE, String(personId), {
    signed: true,
    httpOnly: true,
    sameSite: 'strict',
    path: '/',
    maxAge: 60 * 60 * 24 * 30,
  });
}
