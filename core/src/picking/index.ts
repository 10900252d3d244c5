export * from './kinds.ts';
export * from './pick.ts';
