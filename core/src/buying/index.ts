export * from './kinds.ts';
export * from './lead.ts';
export * from './line.ts';
export * from './need.ts';
export * from './reorder.ts';
export * from './words.ts';
