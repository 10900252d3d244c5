import swagger, { type SwaggerTransform } from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import { IDEMPOTENCY_HEADER, type Right } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { jsonSchemaTransform } from 'fastify-type-provider-zod';
import { SESSION_COOKIE } from './session.ts';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** What whoever calls the route must be allowed. */
    right?: Right;
    /** Whether it changes something, and is carried out once under its key. */
    isCommand?: boolean;
  }
}

const KEY = { type: 'string', minLength: 8, maxLength: 100 } as const;

/** What Zod cannot say of a route: the key of a command, and that it needs somebody signed in. */
const described: SwaggerTransform = (route) => {
  const { schema, url } = jsonSchemaTransform(route as never);
  const { right, isCommand } = (route.route as { config?: { right?: Right; isCommand?: boolean } }).config ?? {};
  return {
    url,
    schema: {
      ...schema,
      ...(isCommand
        ? { headers: { type: 'object', properties: { [IDEMPOTENCY_HEADER]: KEY }, required: [IDEMPOTENCY_HEADER] } }
        : {}),
      ...(right && right !== 'anyone' ? { security: [{ person: [] }] } : {}),
    },
  };
};

/** The description of everything that can be asked and done, browsable at `/api/docs`. */
export async function describeApi(app: FastifyInstance): Promise<void> {
  await app.register(swagger, {
    openapi: {
      info: { title: 'Yosegi', version: '1', description: 'Everything the Yosegi application can ask and do.' },
      components: {
        securitySchemes: {
          person: { type: 'apiKey', in: 'cookie', name: SESSION_COOKIE, description: 'Set by signing in.' },
        },
      },
    },
    transform: described,
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs', staticCSP: true });
}
