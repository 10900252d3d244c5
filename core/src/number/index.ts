export * from './decimal.ts';
export * from './shares.ts';
export * from './typed.ts';
