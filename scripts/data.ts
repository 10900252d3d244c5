import { join, resolve } from 'node:path';

/** The database that a command is about: `--demo`, or YOSEGI_DATA, or ./data. */
export const databaseFile = () =>
  join(resolve(process.env.YOSEGI_DATA ?? (process.argv.includes('--demo') ? 'data/demo' : 'data')), 'yosegi.sqlite');

/** The first argument that is not an option. */
export const fileArgument = () => process.argv.slice(2).find((text) => !text.startsWith('--'));
