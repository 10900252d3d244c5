export {
  type BalanceRow,
  balancesOf,
  byBin,
  heapAt,
  heldFor,
  heldForAll,
  partedPieces,
  spotIn,
  toPiece,
  usableOf,
} from './balances.ts';
export { ownCostsOf, STANDS } from './costs.ts';
export type { LedgerFeature, PostedDocument } from './features.ts';
export { heldLast, refuseHeld } from './held.ts';
export { mayGoBelow, type Override, readStock, writeDocument } from './posting.ts';
export { nextNumber } from './series.ts';
export { withNames } from './shortage.ts';
export { refusePickGone } from './undo.ts';
