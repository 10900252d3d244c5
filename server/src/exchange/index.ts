export { readInThread } from './message.ts';
export { WorkThreads } from './thread.ts';
