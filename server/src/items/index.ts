export { shrinkPicture } from './pictures.ts';
export { refuseTwice } from './service.ts';
export {
  averageCostOf,
  freeOf,
  HAS_STOCK,
  HISTORY,
  IS_PACKED,
  IS_PROMISED,
  ITEM_SQL,
  type ItemRow,
  itemRow,
  itemRows,
  knownCostOf,
  refuseTooMuch,
  toItem,
  toMeasures,
} from './sql.ts';
