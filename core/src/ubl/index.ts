export * from './despatch.ts';
export * from './order.ts';
export * from './response.ts';
export { ublKind } from './xml.ts';
