export { receive } from './receipts.ts';
