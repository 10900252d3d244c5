export * from './kinds.ts';
export * from './part.ts';
export * from './pick.ts';
export * from './propose.ts';
export * from './stops.ts';
