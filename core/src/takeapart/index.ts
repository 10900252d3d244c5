export * from './kinds.ts';
export * from './split.ts';
