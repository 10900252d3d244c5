export * from './barcode.ts';
export * from './proposal.ts';
export * from './rules.ts';
export * from './tile.ts';
export * from './words.ts';
