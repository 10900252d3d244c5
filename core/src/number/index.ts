export * from './amounts.ts';
export * from './decimal.ts';
export * from './local.ts';
export * from './paper.ts';
export * from './rules.ts';
export * from './shares.ts';
export * from './typed.ts';
