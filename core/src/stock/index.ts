export * from './adjust.ts';
export * from './ledger.ts';
export * from './state.ts';
