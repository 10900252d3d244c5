export { readShipment } from './read.ts';
