export { WritingThreads } from './thread.ts';
