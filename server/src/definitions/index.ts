export { packedAmong } from './around.sql.ts';
export { newDraft } from './drafts.ts';
export { balancedShares } from './revisions.ts';
export {
  type AlternateRow,
  LINE_SQL,
  type LineRow,
  linesOfRevisions,
  REVISION_SQL,
  type RevisionRow,
  readDefinition,
  revisionInUse,
  revisionLines,
  revisionRow,
  revisionsInUse,
  savedRevision,
  toCoreLine,
} from './sql.ts';
