export * from './agreed.ts';
export * from './ahead.ts';
export * from './built.ts';
export * from './changes.ts';
export * from './contents.ts';
export * from './kinds.ts';
export * from './line.ts';
