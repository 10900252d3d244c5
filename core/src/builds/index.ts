export * from './finish.ts';
export * from './kinds.ts';
export * from './needs.ts';
export * from './post.ts';
export * from './words.ts';
