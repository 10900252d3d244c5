export { servedBy } from './run.ts';
