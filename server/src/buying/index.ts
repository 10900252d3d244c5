export { receive } from './receipts.ts';
export { countLateOrders } from './sql.ts';
