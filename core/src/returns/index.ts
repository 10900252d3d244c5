export * from './returned.ts';
