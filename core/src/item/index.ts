export * from './barcode.ts';
export * from './tile.ts';
