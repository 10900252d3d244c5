import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { files, type importRoutes, ShownTable, XLSX_TYPE } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { LARGEST_FILE } from '@yosegi/core/exchange';
import { Refusal } from '@yosegi/core/refusal';
import type { FastifyInstance } from 'fastify';
import { type HandlersOf, signedIn } from '../command/doing.ts';
import { mountFile, sendFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import type { ImportJobs } from './jobs.ts';
import type { WorkThreads } from './thread.ts';

export const importHandlers = (jobs: ImportJobs): HandlersOf<typeof importRoutes> => ({
  importJob: ({ person, params, query }) => jobs.follow(signedIn(person).id, params.id, query.seen),
  importRows: async ({ person, params, query }) => jobs.rows(signedIn(person).id, params.id, query),
  matchColumns: async ({ person, params, body }) =>
    jobs.rematch(signedIn(person).id, params.id, body.matching, body.decimalSign),
  applyImport: (command) => jobs.apply(command, command.params.id),
  cancelImport: async ({ person, params }) => jobs.cancel(signedIn(person).id, params.id),
});

/** Files go up as they are, straight to disk, and come down made in a thread. */
export function mountExchange(app: FastifyInstance, mounting: Mounting, jobs: ImportJobs, threads: WorkThreads): void {
  app.register(async (scope) => {
    // The stream itself: a file is never held in memory whole.
    scope.removeAllContentTypeParsers();
    scope.addContentTypeParser('application/octet-stream', (_request, payload, done) => done(null, payload));
    mountFile(scope, mounting, files.upload, async ({ query: { kind, name }, request }) => {
      const person = signedIn(request.person);
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

  mountFile(app, mounting, files.download, async ({ query: { kind, format }, request }, reply) => {
    const ask = { ask: 'list', kind, format, data: mounting.database.file } as const;
    const content = await threads.run(signedIn(request.person).id, async () => ask);
    const name = `yosegi-${kind}-${dayOf(mounting.clock.now())}.${format}`;
    return sendFile(reply, format === 'csv' ? 'text/csv; charset=utf-8' : XLSX_TYPE, name, Buffer.from(content));
  });

  // Whatever a person sees of a list, their columns in their order.
  mountFile(app, mounting, files.table, async ({ query: { format }, request }, reply) => {
    const { name, columns, rows, day = dayOf(mounting.clock.now()) } = shownTable(request.body);
    const keyed = columns.map((column, index) => ({ ...column, key: String(index) }));
    const records = rows.map((row) => Object.fromEntries(keyed.map(({ key }, index) => [key, row[index] ?? ''])));
    const content = await threads.run(signedIn(request.person).id, async () => ({
      ask: 'write',
      format,
      // Any name of a list may be one that a workbook keeps for itself.
      sheet: { name: 'List', columns: keyed, records },
    }));
    const file = `yosegi-${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-${day}.${format}`;
    return sendFile(reply, format === 'csv' ? 'text/csv; charset=utf-8' : XLSX_TYPE, file, Buffer.from(content));
  });
}

/** @throws Refusal `invalid` for what is no table */
function shownTable(content: unknown): ShownTable {
  try {
    return ShownTable.parse(JSON.parse(String(content)));
  } catch {
    throw new Refusal('invalid', { message: 'This is not a list as it is shown: a name, its columns and its rows.' });
  }
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
