export { JobTagField } from './JobTagField.tsx';
export { jobPath } from './paths.ts';
