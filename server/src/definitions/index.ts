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
  toCoreLine,
} from './sql.ts';
