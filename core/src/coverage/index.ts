export { canMakeWith } from './alternates.ts';
export * from './cover.ts';
export * from './make.ts';
