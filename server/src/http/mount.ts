import { createHash } from 'node:crypto';
import { api, IDEMPOTENCY_HEADER, type Person, Problem, type Route, type Topic } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Database, Writer } from '../db/database.ts';
import type { Calendar } from '../definitions/calendar.ts';
import { admits } from './admission.ts';
import type { Clock, Doing, Handler, HandlersOf } from './context.ts';
import type { Live } from './live.ts';
import { remember } from './session.ts';

export interface Mounting {
  readonly database: Database;
  readonly clock: Clock;
  readonly live: Live;
  readonly calendar: Calendar;
}

/** Registers every route of the contract with its handler. */
export function mountRoutes(app: FastifyInstance, handlers: HandlersOf<typeof api>, mounting: Mounting): void {
  for (const [name, definition] of Object.entries<Route>(api)) {
    const handler = handlers[name as keyof typeof api] as unknown as Handler<Route>;
    const isQuestion = definition.method === 'GET' || definition.asks;
    app.route({
      method: definition.method,
      url: definition.path,
      schema: {
        operationId: name,
        tags: [definition.tag],
        summary: definition.summary,
        ...(definition.params ? { params: definition.params } : {}),
        ...(definition.query ? { querystring: definition.query } : {}),
        ...(definition.body ? { body: definition.body } : {}),
        response: { 200: definition.response, default: Problem },
      },
      ...admits(mounting, definition.access),
      handler: async (request, reply) => {
        const { person, params, query, body } = request;
        const asked = { params, query, body, now: mounting.clock.now() };
        if (isQuestion) return handler({ ...asked, db: mounting.database.reader, person } as never);
        const answer = await carryOut(name, {
          request,
          body,
          person,
          mounting,
          run: (doing) => handler({ ...asked, ...doing } as never),
        });
        if (name === ('signIn' satisfies keyof typeof api)) rememberPerson(reply, answer);
        return answer;
      },
    });
  }
}

function rememberPerson(reply: FastifyReply, answer: unknown): void {
  const { person } = answer as { person: Person };
  remember(reply, person.id);
}

interface CarryingOut {
  readonly request: FastifyRequest;
  /** What the audit keeps of what was sent, and what tells one command from another under the same key. */
  readonly body: unknown;
  readonly person: Person | null;
  readonly mounting: Mounting;
  run(doing: Pick<Doing, 'tx' | 'changed' | 'settled'> & { person: Person | null }): Promise<unknown>;
}

/**
 * Carries a command out once: its rows, its answer under the idempotency key, the audit entry and the event for other
 * browsers stand in one transaction. The same key again gets the first answer.
 */
export async function carryOut(name: string, { request, body, person, mounting, run }: CarryingOut): Promise<unknown> {
  const key = request.headers[IDEMPOTENCY_HEADER];
  if (typeof key !== 'string' || key.length < 8 || key.length > 100) throw new Refusal('key-missing');
  const { params } = request;
  const told = JSON.stringify(body ?? null);
  const hash = createHash('sha256')
    .update(JSON.stringify([name, person?.id ?? null, params]))
    .update(told)
    .digest('base64');
  const at = mounting.clock.now().toISOString();
  const topics = new Set<Topic>();
  const waiting: ((committed: boolean) => void)[] = [];
  const settle = (committed: boolean) => {
    for (const then of waiting) then(committed);
  };
  const work = async (tx: Writer) => {
    const before = await tx.one<{ request_hash: string; response: string }>(
      'SELECT request_hash, response FROM command WHERE key = $1',
      [key],
    );
    if (before && before.request_hash !== hash) throw new Refusal('key-reused');
    if (before) return { answer: JSON.parse(before.response), eventId: 0 };
    const answer = await run({
      tx,
      person,
      changed: (...more) => {
        for (const topic of more) topics.add(topic);
      },
      settled: (then) => void waiting.push(then),
    });
    const person_id = person?.id ?? null;
    await tx.insert('command', {
      key,
      route: name,
      person_id,
      request_hash: hash,
      response: JSON.stringify(answer),
      at,
    });
    const entry = {
      at,
      person_id,
      action: name,
      params: JSON.stringify(params ?? null),
      body: told,
      request_id: request.id,
    };
    await tx.insert('audit', entry);
    const eventId = topics.size > 0 ? await tx.insert('event', { at, topics: JSON.stringify([...topics]) }) : 0;
    return { answer, eventId };
  };
  const done = await mounting.database.write(work).catch((error: unknown) => {
    settle(false);
    throw error;
  });
  settle(true);
  if (done.eventId > 0) mounting.live.announce(done.eventId, [...topics]);
  return done.answer;
}
