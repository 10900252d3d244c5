export * from './allot.ts';
export * from './cover.ts';
export * from './make.ts';
