import { api, IDEMPOTENCY_HEADER, type Person, Problem, type Route } from '@yosegi/contract';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { carryOut } from '../command/carryout.ts';
import { type Handler, type HandlersOf, Prepared } from '../command/doing.ts';
import { admits } from './admission.ts';
import type { Mounting } from './mounting.ts';
import { remember } from './session.ts';
import { storageRefusal } from './storage.ts';

/** Registers every route of the contract with its handler. */
export function mountRoutes(app: FastifyInstance, handlers: HandlersOf<typeof api>, mounting: Mounting): void {
  for (const [name, definition] of Object.entries<Route>(api)) {
    const handler = handlers[name as keyof typeof api] as unknown as Handler<Route> | Prepared<Route>;
    const isSignIn = name === ('signIn' satisfies keyof typeof api);
    const isQuestion = definition.method === 'GET' || definition.asks;
    app.route({
      method: definition.method,
      url: definition.path,
      config: { right: definition.right, isCommand: !isQuestion },
      schema: {
        operationId: name,
        tags: [definition.tag],
        summary: definition.summary,
        ...(definition.params ? { params: definition.params } : {}),
        ...(definition.query ? { querystring: definition.query } : {}),
        ...(definition.body ? { body: definition.body } : {}),
        response: { 200: definition.response, default: Problem },
      },
      ...admits(mounting, definition.right),
      handler: async (request, reply) => {
        const { person, params, query, body } = request;
        const asked = { params, query, body, now: mounting.clock.now() };
        const run = handler instanceof Prepared ? await handler.prepare({ ...asked, person } as never) : handler;
        if (isQuestion) return run({ ...asked, db: mounting.database.reader, person } as never);
        const answer = await carryOut(mounting, {
          name,
          key: request.headers[IDEMPOTENCY_HEADER],
          requestId: request.id,
          params,
          body: request.sent,
          person,
          run: (doing) => run({ ...asked, ...doing } as never),
        }).catch((error: unknown) => {
          // Where nothing can be written, everything can still be read: by whoever can come in.
          if (!isSignIn || !storageRefusal(error)) throw error;
          return run({ ...asked, person, tx: mounting.database.reader } as never);
        });
        if (isSignIn) rememberPerson(reply, answer);
        return answer;
      },
    });
  }
}

function rememberPerson(reply: FastifyReply, answer: unknown): void {
  const { person } = answer as { person: Person };
  remember(reply, person.id);
}
