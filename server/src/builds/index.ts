export { keepLines, type LineChange } from './keep.ts';
export { type BuildRecord, buildLines, buildRecord, openBuilds, readBuild, readShares, toBuildRows } from './sql.ts';
export { requireState } from './state.ts';
