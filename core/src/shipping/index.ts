export * from './keep.ts';
export * from './kinds.ts';
export * from './ship.ts';
