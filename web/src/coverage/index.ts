export { PegsOf } from './PegsOf.tsx';
export { coverOf } from './want.ts';
