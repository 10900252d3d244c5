export {
  readCalendar,
  readComing,
  readComingOf,
  readPegging,
  readPeggingToBuy,
  readPicture,
  readStuck,
  readWhole,
} from './sql.ts';
