export * from './cost.ts';
export * from './cycle.ts';
export * from './lines.ts';
export * from './shares.ts';
