import { type deviceRoutes, files } from '@yosegi/contract';
import type { FastifyInstance } from 'fastify';
import { type HandlersOf, signedIn } from '../command/doing.ts';
import type { WorkThreads } from '../exchange/index.ts';
import { mountFile, sendFile } from '../http/files.ts';
import type { Mounting } from '../http/mounting.ts';
import { createLabelJob, endLabelJob } from './labels.ts';
import { listLabelJobs, readLabelJob } from './sql.ts';

export const deviceHandlers: HandlersOf<typeof deviceRoutes> = {
  labelJobs: ({ db, query }) => listLabelJobs(db, query),
  labelJob: ({ db, params }) => readLabelJob(db, params.id),
  createLabelJob: (command) => createLabelJob(command, command.body.of),
  endLabelJob: (command) => endLabelJob(command, command.params.id, command.body.as),
};

/** What the label printer puts out. */
export function mountLabels(app: FastifyInstance, mounting: Mounting, threads: WorkThreads): void {
  mountFile(app, mounting, files.labelPdf, async ({ params: { id }, request }, reply) => {
    const { labels, title } = await readLabelJob(mounting.database.reader, id);
    const pdf = await threads.run(signedIn(request.person).id, async () => ({ ask: 'labels', labels, title }));
    return sendFile(reply, 'application/pdf', `labels-${id}.pdf`, Buffer.from(pdf), 'inline');
  });
}
