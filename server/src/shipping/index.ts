export { packOrder } from './pack.ts';
export { readShipment } from './read.ts';
export { shippedLots } from './sql.ts';
