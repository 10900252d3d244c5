export { listWishes } from './wishes.sql.ts';
export { wishCount } from './wishes.ts';
