export { jobOfBuild, jobOfOrder, type PickJob } from './job.ts';
export { stepsOf } from './steps.ts';
export { slotsOf } from './view.ts';
export { whereItIs } from './words.ts';
