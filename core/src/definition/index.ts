export * from './behaviour.ts';
export * from './compare.ts';
export * from './cost.ts';
export * from './cycle.ts';
export * from './faults.ts';
export * from './lines.ts';
export * from './price.ts';
export * from './shares.ts';
