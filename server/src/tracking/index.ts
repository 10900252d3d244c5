export { choosePieces, inOrder } from './pieces.ts';
export { clashesOf } from './sql.ts';
export { heapsIn, heapsOut, lotFor, type Named, type NamedIn } from './tracked.ts';
