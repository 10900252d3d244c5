export * from './lots.ts';
export * from './serials.ts';
