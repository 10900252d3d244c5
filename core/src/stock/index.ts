export * from './ledger.ts';
export * from './state.ts';
