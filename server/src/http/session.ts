import type { Person } from '@yosegi/contract';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Reader } from '../db/database.ts';

const COOKIE = 'yosegi-person';

/** The person chosen in this browser, from its signed cookie; null when none or no longer here. */
export async function personOf(request: FastifyRequest, db: Reader): Promise<Person | null> {
  const cookie = request.cookies[COOKIE];
  const unsigned = cookie ? request.unsignCookie(cookie) : undefined;
  if (!unsigned?.valid || unsigned.value === null) return null;
  const sql = 'SELECT id, name, initials, role FROM person WHERE id = $1 AND active = 1';
  return (await db.one<Person>(sql, [Number(unsigned.value)])) ?? null;
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
