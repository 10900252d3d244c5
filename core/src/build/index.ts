export * from './finish.ts';
export * from './needs.ts';
export * from './post.ts';
