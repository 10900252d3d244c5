import type { FileRoute } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { FastifyInstance, FastifyReply, FastifyRequest, RouteOptions } from 'fastify';
import { z } from 'zod';
import { admits } from './admission.ts';
import type { Mounting } from './mounting.ts';

type Part<R extends FileRoute, K extends 'params' | 'query'> = R[K] extends z.ZodType ? z.output<R[K]> : undefined;

/** What was asked of a file route, read by its schemas. */
export interface FileAsked<R extends FileRoute> {
  readonly params: Part<R, 'params'>;
  readonly query: Part<R, 'query'>;
  readonly request: FastifyRequest;
}

/** Mounts a route of the contract whose body or answer is no JSON. */
export function mountFile<const R extends FileRoute>(
  app: FastifyInstance,
  mounting: Mounting,
  route: R,
  answer: (asked: FileAsked<R>, reply: FastifyReply) => unknown,
): void {
  const { method, path, params, query, right, isCommand = false } = route;
  const options: RouteOptions = {
    method,
    url: path,
    config: { right, isCommand },
    schema: {
      tags: [route.tag],
      summary: route.summary,
      ...(params ? { params } : {}),
      ...(query ? { querystring: query } : {}),
      ...(route.takes ? { consumes: ['application/octet-stream'] } : {}),
      response: { 200: { description: route.summary, content: contentOf(route.gives) } },
    },
    ...(route.takes ? { bodyLimit: route.takes } : {}),
    ...admits(mounting, right),
    handler: (request, reply) =>
      answer({ params: request.params, query: request.query, request } as FileAsked<R>, reply),
  };
  app.route(options);
}

const contentOf = (types: readonly string[]) =>
  Object.fromEntries(types.map((type) => [type, { schema: z.any().describe('The file itself') }]));

/** A body that was read whole. @throws Refusal `picture-unreadable` for none */
export function bytesOf(request: FastifyRequest): Buffer {
  if (!Buffer.isBuffer(request.body) || request.body.length === 0) throw new Refusal('picture-unreadable');
  return request.body;
}

/** Sends a file that nobody keeps. */
export const sendFile = (
  reply: FastifyReply,
  type: string,
  name: string,
  content: string | Buffer,
  how = 'attachment',
) =>
  reply
    .type(type)
    .header('content-disposition', `${how}; filename="${name}"`)
    .header('cache-control', 'no-store')
    .send(content);
