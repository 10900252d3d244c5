export { benchBinOf, requireShelf, usualBin } from './sql.ts';
