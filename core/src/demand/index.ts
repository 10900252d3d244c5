export * from './alternates.ts';
export * from './demand.ts';
export * from './peg.ts';
export * from './spread.ts';
export * from './waiting.ts';
