import { type deviceRoutes, labelPdfPath } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import { printLabels } from '@yosegi/devices/labels';
import type { FastifyInstance } from 'fastify';
import { type HandlersOf, signedIn } from '../http/context.ts';
import { admit, type Mounting } from '../http/mount.ts';
import { createLabelJob, endLabelJob, listLabelJobs, readLabelJob } from './labels.ts';

export const deviceHandlers: HandlersOf<typeof deviceRoutes> = {
  labelJobs: ({ db, query }) => listLabelJobs(db, query),
  labelJob: ({ db, params }) => readLabelJob(db, params.id),
  createLabelJob: (command) => createLabelJob(command, command.body.of),
  endLabelJob: (command) => endLabelJob(command, command.params.id, command.body.as),
};

/** What the label printer puts out, beside the table of JSON routes. */
export function mountLabels(app: FastifyInstance, mounting: Mounting): void {
  app.get<{ Params: { id: string } }>(labelPdfPath(':id'), { schema: { hide: true } }, async (request, reply) => {
    signedIn(await admit(request, mounting, 'person'));
    const id = Number(request.params.id);
    if (!Number.isSafeInteger(id) || id <= 0) throw new Refusal('not-found');
    const job = await readLabelJob(mounting.database.reader, id);
    return reply
      .type('application/pdf')
      .header('content-disposition', `inline; filename="labels-${id}.pdf"`)
      .header('cache-control', 'no-store')
      .send(await printLabels(job.labels, job.title));
  });
}
