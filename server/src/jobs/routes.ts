import type { jobRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { listJobs, readJob, setJobTag } from './job.ts';

export const jobHandlers: HandlersOf<typeof jobRoutes> = {
  jobs: ({ db }) => listJobs(db),
  job: ({ db, query }) => readJob(db, query.tag),
  setJobTag: (command) => setJobTag(command, command.body),
};
