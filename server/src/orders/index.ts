export { lookAhead } from './ahead.ts';
export {
  beingBuilt,
  builtFor,
  endBuilt,
  makeAgain,
  partBuilt,
  rejectBuilt,
  setBuilt,
  toBuiltFor,
  wantingMore,
} from './built.sql.ts';
export { createCustomer } from './customers.ts';
export { type HeldUp, ordersHeldUp } from './held.ts';
export { promisedTo } from './items.sql.ts';
export { openParcels, parcelOf, sendParcels, standingFor } from './parcels.sql.ts';
export { backOf, keepForOrders, partsOfOrder, touched } from './parcels.ts';
export { pricesFor } from './prices.ts';
export { openOrderRows, readOrder, servedIn } from './read.ts';
export { cancelOrder, createOrder, saveOrder } from './save.ts';
export {
  addShipped,
  buildable,
  changeParts,
  keepOpen,
  needOf,
  type OrderLineRecord,
  type OrderPartRecord,
  orderLines,
  orderParts,
  orderRecord,
  orderRecords,
  type PartChange,
} from './sql.ts';
export { current, requireState } from './state.ts';
export { swapPart } from './swap.ts';
