export { mountPictureCommand, sendPicture } from './picture-files.ts';
export { refuseTwice } from './service.ts';
export {
  averageCostOf,
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
  knownCostOf,
  refuseTooMuch,
  toBreak,
  toItem,
  toMeasures,
} from './sql.ts';
