export * from './came-out.ts';
export * from './finish.ts';
export * from './kinds.ts';
export * from './last-uses.ts';
export * from './needs.ts';
export * from './post.ts';
export * from './tolerance.ts';
export * from './words.ts';
