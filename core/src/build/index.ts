export * from './finish.ts';
export * from './needs.ts';
