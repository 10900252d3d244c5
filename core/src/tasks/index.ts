export * from './task.ts';
