export * from './lead.ts';
export * from './line.ts';
export * from './need.ts';
