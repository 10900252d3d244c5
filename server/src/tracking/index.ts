export { choosePieces, inOrder } from './pieces.ts';
export { clashesOf, customersUnit, sayingWhere } from './sql.ts';
export { heapsIn, heapsOut, lotFor, type Named, type NamedIn } from './tracked.ts';
export { warrantyOf } from './warranty.sql.ts';
