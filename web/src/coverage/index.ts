export { coverOf } from './want.ts';
