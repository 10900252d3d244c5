import { type deviceRoutes, labelPdfPath } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { FastifyInstance } from 'fastify';
import type { WritingThreads } from '../exchange/thread.ts';
import { admits } from '../http/admission.ts';
import { type HandlersOf, signedIn } from '../http/context.ts';
import type { Mounting } from '../http/mount.ts';
import { createLabelJob, endLabelJob, listLabelJobs, readLabelJob } from './labels.ts';

export const deviceHandlers: HandlersOf<typeof deviceRoutes> = {
  labelJobs: ({ db, query }) => listLabelJobs(db, query),
  labelJob: ({ db, params }) => readLabelJob(db, params.id),
  createLabelJob: (command) => createLabelJob(command, command.body.of),
  endLabelJob: (command) => endLabelJob(command, command.params.id, command.body.as),
};

/** What the label printer puts out, beside the table of JSON routes. */
export function mountLabels(app: FastifyInstance, mounting: Mounting, threads: WritingThreads): void {
  const options = { schema: { hide: true }, ...admits(mounting, 'person') };
  app.get<{ Params: { id: string } }>(labelPdfPath(':id'), options, async (request, reply) => {
    const person = signedIn(request.person);
    const id = Number(request.params.id);
    if (!Number.isSafeInteger(id) || id <= 0) throw new Refusal('not-found');
    const { labels, title } = await readLabelJob(mounting.database.reader, id);
    const pdf = await threads.run(person.id, async () => ({ ask: 'labels', labels, title }));
    return reply
      .type('application/pdf')
      .header('content-disposition', `inline; filename="labels-${id}.pdf"`)
      .header('cache-control', 'no-store')
      .send(Buffer.from(pdf));
  });
}
