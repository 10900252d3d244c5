export { earnedBy } from './earned.sql.ts';
