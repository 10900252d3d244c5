export { daysIfBought } from './leads.ts';
export { boughtFor } from './needs.sql.ts';
export { receive } from './receipts.ts';
export { countLateOrders } from './sql.ts';
