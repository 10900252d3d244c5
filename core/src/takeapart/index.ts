export * from './as-built.ts';
export * from './kinds.ts';
export * from './split.ts';
