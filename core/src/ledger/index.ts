export * from './adjust.ts';
export * from './arrive.ts';
export * from './kinds.ts';
export * from './last-cost.ts';
export * from './posting.ts';
export * from './state.ts';
export * from './take.ts';
export * from './worth.ts';
