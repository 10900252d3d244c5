export * from './comes-back.ts';
export * from './kinds.ts';
export * from './owed.ts';
export * from './returned.ts';
export * from './words.ts';
