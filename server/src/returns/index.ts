export { creditsOf } from './figures.sql.ts';
export { mountReturnPictures } from './picture.ts';
export { listReturns } from './read.ts';
export { spotsOf, worthOf, writeOutcomes } from './settle.ts';
export { countWaiting, type PieceRecord, piecesById, returnRecord } from './sql.ts';
