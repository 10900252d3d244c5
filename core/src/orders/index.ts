export * from './contents.ts';
export * from './kinds.ts';
export * from './line.ts';
export * from './price.ts';
export * from './ship.ts';
