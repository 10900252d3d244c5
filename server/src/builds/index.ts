export { finishBuild } from './finish.ts';
export { keepLines, type LineChange } from './keep.ts';
export { leftoversOf } from './leftovers.ts';
export { planBuilds } from './plan.ts';
export {
  type BuildRecord,
  buildLines,
  buildRecord,
  isOpen,
  openBuilds,
  readBuild,
  readShares,
  toBuildRows,
} from './sql.ts';
export { startBuild } from './start.ts';
export { requireState } from './state.ts';
