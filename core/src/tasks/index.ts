export * from './board.ts';
export * from './task.ts';
