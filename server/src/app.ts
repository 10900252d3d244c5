import { randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import compress from '@fastify/compress';
import cookie from '@fastify/cookie';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import staticFiles from '@fastify/static';
import type { api, importRoutes } from '@yosegi/contract';
import type { RefusedIssue } from '@yosegi/contract/amounts';
import { Refusal, refusalOf } from '@yosegi/core/refusal';
import Fastify, { type FastifyBaseLogger, type FastifyInstance, type FastifyReply } from 'fastify';
import { hasZodFastifySchemaValidationErrors, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import { buildLedger } from './builds/ledger.ts';
import { buildHandlers } from './builds/routes.ts';
import { buyingLedger } from './buying/ledger.ts';
import { mountOrderFiles } from './buying/order-files.ts';
import { buyingHandlers } from './buying/routes.ts';
import { Calendar } from './command/calendar.ts';
import { forgetOldAnswers } from './command/carryout.ts';
import { type Clock, systemClock } from './command/clock.ts';
import type { HandlersOf } from './command/doing.ts';
import { Live } from './command/live.ts';
import { Slots } from './command/slots.ts';
import { countLedger } from './counts/ledger.ts';
import { countHandlers } from './counts/routes.ts';
import { coverageHandlers } from './coverage/routes.ts';
import type { Database } from './db/database.ts';
import { takeDueRevisions } from './definitions/revisions.ts';
import { definitionHandlers } from './definitions/routes.ts';
import { deviceHandlers, mountLabels } from './devices/routes.ts';
import { ImportJobs } from './exchange/jobs.ts';
import { importHandlers, mountExchange } from './exchange/routes.ts';
import { WorkThreads } from './exchange/thread.ts';
import { refuseForeignOrigin } from './http/admission.ts';
import { describeApi } from './http/describe.ts';
import { mountEvents } from './http/events.ts';
import { answerUnreadable, BARE_HEADERS, frameworkRefusal } from './http/framework.ts';
import { mountRoutes } from './http/mount.ts';
import { problemOf } from './http/problems.ts';
import { signedId } from './http/session.ts';
import { storageRefusal } from './http/storage.ts';
import { mountPictures } from './items/picture-files.ts';
import { itemHandlers } from './items/routes.ts';
import { jobHandlers } from './jobs/routes.ts';
import { ledgerHandlers } from './ledger/routes.ts';
import { mountAnswers } from './messages/answer-files.ts';
import { messageHandlers } from './messages/routes.ts';
import { orderLedger } from './orders/ledger.ts';
import { orderHandlers } from './orders/routes.ts';
import { mountLogo } from './people/logo.ts';
import { peopleHandlers } from './people/routes.ts';
import { pickHandlers } from './picking/routes.ts';
import { placeHandlers } from './places/routes.ts';
import { repairHandlers } from './repairs/routes.ts';
import { returnLedger } from './returns/ledger.ts';
import { mountReturnPictures } from './returns/picture.ts';
import { returnHandlers } from './returns/routes.ts';
import { shippingHandlers } from './shipping/routes.ts';
import { stockLedger } from './stock/ledger.ts';
import { stockHandlers } from './stock/routes.ts';
import { apartHandlers } from './takeapart/routes.ts';
import { taskHandlers } from './tasks/routes.ts';
import { todayHandlers } from './today/routes.ts';
import { holdPassed, trackedHandlers } from './tracking/lots.ts';

export interface AppOptions {
  readonly database: Database;
  readonly clock?: Clock;
  readonly logger?: FastifyBaseLogger | boolean;
  /** The built web application; without it only the API is served. */
  readonly webRoot?: string;
  /** How a request is named in logs and problems. */
  readonly newRequestId?: () => string;
  /** How long a request may take to arrive, in milliseconds. */
  readonly timeouts?: { readonly headers: number; readonly request: number };
}

const handlers: Omit<
  HandlersOf<typeof api>,
  keyof typeof importRoutes | keyof ReturnType<typeof buyingHandlers> | keyof ReturnType<typeof messageHandlers>
> = {
  ...peopleHandlers,
  ...itemHandlers,
  ...definitionHandlers,
  ...countHandlers,
  ...coverageHandlers,
  ...taskHandlers,
  ...repairHandlers,
  ...jobHandlers,
  ...buildHandlers,
  ...orderHandlers,
  ...shippingHandlers,
  ...deviceHandlers,
  ...stockHandlers,
  ...todayHandlers,
  ...trackedHandlers,
  ...pickHandlers,
  ...placeHandlers,
  ...ledgerHandlers([buildLedger, buyingLedger, countLedger, orderLedger, stockLedger, returnLedger]),
  ...apartHandlers,
  ...returnHandlers,
};

/** What a new day brings about. */
const DAY_TURNS = [takeDueRevisions, holdPassed, forgetOldAnswers];
/** Where the data cannot be written now, it can still be read as it was yesterday. */
const goesOn = (log: FastifyBaseLogger) => (error: unknown) => {
  if (!storageRefusal(error)) return false;
  log.error({ err: error }, 'the day could not be started');
  return true;
};

/** Names this server may be called by; any other means a page elsewhere has bent a name to this machine. */
const HOSTS = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
const CSP_NONCE = '__csp_nonce__';
/** Files and labels that are read or made at once, and how many more each person may have waiting. */
const THREADS = 2;
const MOST_WAITING = 20;

/** The whole server on one database, ready to listen or to be called in tests. */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const { database } = options;
  const logger = options.logger ?? false;
  const timeouts = options.timeouts ?? { headers: 20_000, request: 120_000 };
  const app = Fastify({
    ...(typeof logger === 'boolean' ? { logger } : { loggerInstance: logger }),
    genReqId: options.newRequestId ?? (() => randomUUID()),
    bodyLimit: 1024 * 1024,
    routerOptions: { maxParamLength: 200 },
    // A connection that never finishes its headers or its body is given up.
    requestTimeout: timeouts.request,
    http: { headersTimeout: timeouts.headers, connectionsCheckingInterval: Math.min(2000, timeouts.headers) },
    clientErrorHandler: answerUnreadable,
    frameworkErrors: (error, request, reply) => {
      const refusal = frameworkRefusal(error.statusCode ?? 400);
      const problem = problemOf(refusal, request.id);
      void (reply as unknown as FastifyReply)
        .code(problem?.status ?? 400)
        .headers(BARE_HEADERS)
        .send(problem);
    },
  });
  app.decorateRequest('person', null);
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  answerWithProblems(app, database);

  const company = await database.reader.models.company.findByPk(1);
  app.addHook('onRequest', async (request, reply) => {
    reply.header('x-request-id', request.id);
    if (!HOSTS.test(request.headers.host ?? '')) throw new Refusal('bad-host');
    refuseForeignOrigin(request);
  });
  await app.register(helmet, {
    enableCSPNonces: true,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        styleSrc: ["'self'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
    },
    strictTransportSecurity: false,
  });
  // Files are made small once and kept by browsers; answers stay on this machine, where making them small only costs time.
  await app.register(compress, { threshold: 1024, customTypes: /^(text\/(html|css|javascript)|image\/svg)/ });
  await app.register(cookie, { secret: company?.cookie_secret ?? randomUUID() });
  // Several people work on one machine: each has a measure of their own, and whoever is not signed in shares one.
  await app.register(rateLimit, {
    max: 6000,
    timeWindow: '1 minute',
    keyGenerator: (request) => `${signedId(request) ?? request.ip}`,
  });
  await describeApi(app);

  const live = new Live();
  const clock = options.clock ?? systemClock;
  const mounting = { database, clock, live, calendar: new Calendar(database, clock, live, DAY_TURNS, goesOn(app.log)) };
  mountEvents(app, mounting);
  mountPictures(app, mounting);
  mountLogo(app, mounting);
  mountReturnPictures(app, mounting);
  mountOrderFiles(app, mounting);
  mountAnswers(app, mounting);
  const slots = new Slots(THREADS, MOST_WAITING);
  const imports = new ImportJobs(database, app.log, slots);
  app.addHook('onClose', () => imports.close());
  const threads = new WorkThreads(slots);
  app.addHook('onClose', () => threads.end());
  mountExchange(app, mounting, imports, threads);
  mountLabels(app, mounting, threads);
  const reading = new WorkThreads(new Slots(1, MOST_WAITING));
  app.addHook('onClose', () => reading.end());
  const threaded = { ...importHandlers(imports), ...buyingHandlers(reading), ...messageHandlers(reading) };
  mountRoutes(app, { ...handlers, ...threaded }, mounting);
  if (options.webRoot && existsSync(options.webRoot)) await serveWeb(app, options.webRoot);
  else
    app.setNotFoundHandler(() => {
      throw new Refusal('not-found');
    });
  return app;
}

/** The worker that searches runs a solver in WebAssembly; nothing else may. */
const SOLVER = /[\\/]solver\.worker-[\w-]+\.js$/;
const SOLVER_POLICY = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'";

/** The built files, and the one page for every address that is not a file or the API. */
async function serveWeb(app: FastifyInstance, root: string): Promise<void> {
  const page = readFileSync(join(root, 'index.html'), 'utf8');
  await app.register(staticFiles, {
    root: join(root, 'assets'),
    prefix: '/assets/',
    immutable: true,
    maxAge: '365d',
    setHeaders: (reply, path) => {
      if (SOLVER.test(path)) reply.setHeader('content-security-policy', SOLVER_POLICY);
    },
  });
  const worker = readFileSync(join(root, 'sw.js'), 'utf8');
  app.get('/sw.js', (_, reply) => reply.header('cache-control', 'no-cache').type('text/javascript').send(worker));
  app.setNotFoundHandler((request, reply) => {
    if (request.method !== 'GET' || /^\/(api|assets)\//.test(request.url)) throw new Refusal('not-found');
    reply.header('cache-control', 'no-store').type('text/html');
    return page.replaceAll(CSP_NONCE, reply.cspNonce.style);
  });
}

function answerWithProblems(app: FastifyInstance, { reader }: Database): void {
  /** Undefined where the data cannot be read, which is then what is said. */
  const localeOf = async () => (await reader.models.company.findByPk(1).catch(() => undefined))?.locale;
  app.setErrorHandler(async (error, request, reply) => {
    const known = storageRefusal(error);
    if (known) request.log.error({ err: error }, 'the storage refuses');
    const { statusCode = 500 } = error as { statusCode?: number };
    const problem =
      problemOf(known ?? refusedBySchema(error), request.id, await localeOf()) ??
      problemOf(frameworkRefusal(statusCode), request.id);
    if (problem) return reply.code(problem.status).type('application/problem+json').send(problem);
    request.log.error({ err: error }, 'unexpected');
    const broke = problemOf(new Refusal('unexpected', { requestId: request.id }), request.id);
    return reply.code(500).type('application/problem+json').send(broke);
  });
}

/** What a request schema refuses, as a refusal naming the field. */
function refusedBySchema(error: unknown): unknown {
  if (!hasZodFastifySchemaValidationErrors(error)) return error;
  const [first] = error.validation;
  const field = first?.instancePath.replace(/^\//, '').replaceAll('/', '.');
  const refused = (first?.params as { params?: Partial<RefusedIssue> } | undefined)?.params?.refused;
  if (refused) return refusalOf(refused, field);
  return new Refusal('invalid', { message: first?.message ?? 'Check what was sent.' }, field || undefined);
}
