import { chmodSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { openData } from '@yosegi/server/db/open';
import { databaseFile, fileArgument, tellAndExit } from './data.ts';

/** Writes a whole, consistent copy of the database, also while the server runs. */
const from = databaseFile();
const stamp = new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-');
const to = resolve(fileArgument() ?? `backups/yosegi-${stamp}.sqlite`);
if (!existsSync(from)) tellAndExit(`There is no data at ${from}.`);
if (existsSync(to)) tellAndExit(`${to} is there already; choose another name.`);
mkdirSync(dirname(to), { recursive: true });
const database = await openData(from).catch(tellAndExit);
try {
  await database.maintain(({ script }) => script(`VACUUM INTO '${to.replaceAll("'", "''")}'`));
  chmodSync(to, 0o600);
  console.log(`Backed up ${from} to ${to}.`);
} catch (error) {
  // Half a copy is no backup.
  rmSync(to, { force: true });
  console.error(`Nothing was backed up: ${(error as Error).message}`);
  process.exitCode = 1;
} finally {
  await database.close();
}
