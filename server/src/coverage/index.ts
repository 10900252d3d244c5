export { readSnapshot } from './sql.ts';
