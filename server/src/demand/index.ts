export { comesOn, readComing, readComingOf, readPegging, readPeggingToBuy } from './sql.ts';
