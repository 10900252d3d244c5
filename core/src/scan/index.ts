export * from './gs1.ts';
