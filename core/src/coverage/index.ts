export { canMakeWith } from './alternates.ts';
export * from './case.ts';
export * from './cover.ts';
export * from './make.ts';
export * from './over-time.ts';
export { type Asked, pegAsked, sourceOf } from './question.ts';
export * from './world.ts';
