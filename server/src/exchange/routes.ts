import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { EXPORTS_PATH, FileKindName, IMPORTS_PATH, type importRoutes, LARGEST_FILE } from '@yosegi/contract';
import { fileKinds } from '@yosegi/core/exchange';
import { Refusal } from '@yosegi/core/refusal';
import { refuseUnprintable } from '@yosegi/core/text';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { admits } from '../http/admission.ts';
import { dayOf, type HandlersOf, signedIn } from '../http/context.ts';
import type { Mounting } from '../http/mount.ts';
import type { ImportJobs } from './jobs.ts';
import { readRecords } from './records.ts';
import type { WritingThreads } from './thread.ts';

export const importHandlers = (jobs: ImportJobs): HandlersOf<typeof importRoutes> => ({
  importJob: ({ person, params, query }) => jobs.follow(signedIn(person).id, params.id, query.seen),
  importRows: async ({ person, params, query }) => jobs.rows(signedIn(person).id, params.id, query),
  matchColumns: async ({ person, params, body }) =>
    jobs.rematch(signedIn(person).id, params.id, body.matching, body.decimalSign),
  applyImport: (command) => jobs.apply(command, command.params.id),
  cancelImport: async ({ person, params }) => jobs.cancel(signedIn(person).id, params.id),
});

const Upload = z.object({ kind: FileKindName, name: z.string().max(300).default('file') });
const Download = z.object({ kind: FileKindName, format: z.enum(['csv', 'xlsx']).default('csv') });
const TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** Files go up as they are, straight to disk, and come down made in a thread. */
export function mountExchange(
  app: FastifyInstance,
  mounting: Mounting,
  jobs: ImportJobs,
  threads: WritingThreads,
): void {
  app.register(async (files) => {
    // The stream itself: a file is never held in memory whole.
    files.removeAllContentTypeParsers();
    files.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
    const { onRequest } = admits(mounting, 'person');
    files.post(IMPORTS_PATH, { schema: { hide: true }, bodyLimit: LARGEST_FILE, onRequest }, async (request) => {
      const person = signedIn(request.person);
      refuseUnprintable(String((request.query as { name?: unknown }).name ?? ''), 'name');
      const { kind, name } = parse(Upload, request.query);
      if (Number(request.headers['content-length'] ?? 0) > LARGEST_FILE)
        throw new Refusal('file-too-large', { most: LARGEST_FILE });
      const path = jobs.newPath();
      try {
        await pipeline(limited(request.body as Readable), createWriteStream(path));
      } catch (error) {
        await rm(path, { force: true });
        // A connection that is gone is no fault of ours, and nobody is left to be told.
        throw (error as { code?: string }).code === 'ECONNRESET' ? new Refusal('import-cancelled') : error;
      }
      return jobs.begin(person.id, kind, name, path);
    });
  });

  app.get(EXPORTS_PATH, { schema: { hide: true }, ...admits(mounting, 'person') }, async (request, reply) => {
    const person = signedIn(request.person);
    const { kind, format } = parse(Download, request.query);
    const content = await threads.run(person.id, async () => {
      const records = [...(await readRecords(mounting.database.reader, kind)).values()].flat();
      const sheet = { name: kind, columns: fileKinds[kind].columns, records };
      return { ask: 'write', format, sheet };
    });
    const file = `yosegi-${kind}-${dayOf(mounting.clock.now())}.${format}`;
    return reply
      .type(TYPES[format])
      .header('content-disposition', `attachment; filename="${file}"`)
      .header('cache-control', 'no-store')
      .send(Buffer.from(content));
  });
}

function parse<T extends z.ZodType>(schema: T, query: unknown): z.output<T> {
  const result = schema.safeParse(query);
  if (result.success) return result.data;
  const [first] = result.error.issues;
  throw new Refusal('invalid', { message: first?.message }, first?.path.join('.'));
}

/** Passes a body on up to the largest file taken in, counting because a length header may be missing or lie. */
async function* limited(body: Readable): AsyncGenerator<Buffer> {
  let size = 0;
  for await (const chunk of body) {
    size += (chunk as Buffer).length;
    if (size > LARGEST_FILE) throw new Refusal('file-too-large', { most: LARGEST_FILE });
    yield chunk as Buffer;
  }
}
