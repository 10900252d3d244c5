export * from './lots.ts';
export * from './serials.ts';
export * from './units.ts';
