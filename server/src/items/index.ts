export { withBuiltCosts } from './built-costs.sql.ts';
export { averageCostOf, type Costs, costFrom, knownCostOf } from './costs.ts';
export { mountPictureCommand, sendPicture } from './picture-files.ts';
export { refuseTwice } from './service.ts';
export {
  breaksOf,
  freeOf,
  HAS_STOCK,
  HISTORY,
  IS_PACKED,
  IS_PROMISED,
  ITEM_SQL,
  type ItemRow,
  itemRow,
  itemRows,
  refuseTooMuch,
  toBreak,
  toItem,
  toMeasures,
} from './sql.ts';
