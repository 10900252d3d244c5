export * from './allot.ts';
export { canMakeWith, type StandIn } from './alternates.ts';
export * from './cover.ts';
export * from './make.ts';
