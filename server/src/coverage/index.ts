export { sourcesOf } from './pegs.sql.ts';
export { readSnapshot } from './sql.ts';
