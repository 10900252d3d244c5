export * from './barcode.ts';
