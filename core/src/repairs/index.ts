export * from './repair.ts';
