export * from './decimal.ts';
export * from './shares.ts';
