export * from './bars.ts';
export * from './gs1.ts';
