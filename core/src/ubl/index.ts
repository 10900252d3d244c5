export * from './despatch.ts';
export * from './message.ts';
export * from './order.ts';
export * from './response.ts';
export { type TradeParty, ublKind, unitCodeOf } from './xml.ts';
