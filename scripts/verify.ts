import { existsSync } from 'node:fs';
import { openData } from '@yosegi/server/db/open';
import { checkNames, verifyDatabase } from '@yosegi/server/db/verify';
import { databaseFile, tellAndExit } from './data.ts';

/** Compares balances with the ledger and checks that quantity and value are conserved. */
const file = databaseFile();
if (!existsSync(file)) {
  console.error(`There is no data at ${file}.`);
  process.exit(2);
}
const database = await openData(file).catch(tellAndExit);
const drifts = await verifyDatabase(database.reader);
await database.close();
for (const { check, rows } of drifts) console.error(`NOT SO: ${check}`, rows);
console.log(
  drifts.length === 0
    ? `All ${checkNames.length} checks hold for ${file}.`
    : `${drifts.length} of ${checkNames.length} checks fail for ${file}.`,
);
process.exitCode = drifts.length === 0 ? 0 : 1;
