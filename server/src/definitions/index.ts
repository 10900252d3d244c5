export { balancedShares } from './revisions.ts';
export {
  type AlternateRow,
  LINE_SQL,
  type LineRow,
  REVISION_SQL,
  type RevisionRow,
  readDefinition,
  revisionInUse,
  revisionLines,
  revisionRow,
  toCoreLine,
} from './sql.ts';
