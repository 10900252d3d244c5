import { databaseIn, readConfig } from '@yosegi/server/config';

/** The database that a command is about: `--demo`, or YOSEGI_DATA, or ./data. */
export const databaseFile = () => databaseIn(readConfig(process.argv.includes('--demo') ? 'data/demo' : 'data'));

/** The first argument that is not an option. */
export const fileArgument = () => process.argv.slice(2).find((text) => !text.startsWith('--'));

/** Ends a command that cannot do its work, with what to do about it. */
export function tellAndExit(error: unknown): never {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
