export * from './adjust.ts';
export * from './arrive.ts';
export * from './last-cost.ts';
export * from './ledger.ts';
export * from './promise.ts';
export * from './state.ts';
export * from './worth.ts';
