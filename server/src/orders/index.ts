export { openOrderRows } from './read.ts';
