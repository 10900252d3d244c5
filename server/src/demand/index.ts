export {
  readCalendar,
  readComing,
  readComingOf,
  readPegging,
  readPeggingToBuy,
  readPicture,
  readWhole,
} from './sql.ts';
