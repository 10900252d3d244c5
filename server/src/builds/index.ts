export { cancelBuild } from './cancel.ts';
export { finishBuild } from './finish.ts';
export { keepLines, type LineChange } from './keep.ts';
export { leftoversOf } from './leftovers.ts';
export { noteRepair } from './of-repair.ts';
export { planBuilds } from './plan.ts';
export {
  type BuildRecord,
  buildLines,
  buildRecord,
  buildRecords,
  isOpen,
  needOf,
  openBuilds,
  readBuild,
  readShares,
  toBuildRows,
} from './sql.ts';
export { startBuild } from './start.ts';
export { requireOpen, requireState } from './state.ts';
export { costNow } from './used.ts';
