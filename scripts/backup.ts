import { existsSync, mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { Database } from '@yosegi/server/db/database';
import { databaseFile, fileArgument } from './data.ts';

/** Writes a whole, consistent copy of the database, also while the server runs. */
const from = databaseFile();
const stamp = new Date().toISOString().slice(0, 16).replace(/[:T]/g, '-');
const to = resolve(fileArgument() ?? `backups/yosegi-${stamp}.sqlite`);
if (!existsSync(from)) throw new Error(`There is no data at ${from}.`);
if (existsSync(to)) throw new Error(`${to} is there already; choose another name.`);
mkdirSync(dirname(to), { recursive: true });
const database = await Database.open(from);
await database.maintain(({ script }) => script(`VACUUM INTO '${to.replaceAll("'", "''")}'`));
await database.close();
console.log(`Backed up ${from} to ${to}.`);
