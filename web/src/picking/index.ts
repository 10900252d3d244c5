export { jobOfBuild, jobOfOrder, type PickJob } from './job.ts';
export { stepsOf } from './steps.ts';
