export { comesOn, readComing, readComingOf, readPegging, readPeggingToBuy, readPicture } from './sql.ts';
