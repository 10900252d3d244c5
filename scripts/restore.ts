import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { Database } from '@yosegi/server/db/database';
import { lockData } from '@yosegi/server/db/lock';
import { migrate } from '@yosegi/server/db/migrate';
import { explained, refuseForeign, UnusableData } from '@yosegi/server/db/open';
import { verifyDatabase } from '@yosegi/server/db/verify';
import { databaseFile, fileArgument, tellAndExit } from './data.ts';

/** Puts a backup in place of the data, once it is known to be one; what was there is kept beside it under a name of its own. */
const argument = fileArgument();
if (!argument || !existsSync(argument)) {
  console.error('Say which backup: npm run restore -- backups/yosegi-….sqlite');
  process.exit(2);
}
const backup = resolve(argument);
const file = databaseFile();
const ENDS = ['', '-wal', '-shm'] as const;
const copy = `${file}.restoring-${process.pid}`;
const unlock = await lockData(file).catch(tellAndExit);
try {
  await checkCopy();
  const kept = keepWhatIsThere();
  renameSync(copy, file);
  console.log(`Restored ${backup} to ${file}.${kept ? ` What was there is now ${kept}.` : ''}`);
} catch (error) {
  for (const end of ENDS) rmSync(copy + end, { force: true });
  console.error(`Nothing was replaced. ${(error as Error).message}`);
  process.exitCode = 1;
} finally {
  await unlock();
}

/** A copy of the backup, brought up to date and checked: the backup itself stays as it is. */
async function checkCopy(): Promise<void> {
  if (statSync(backup).size === 0) throw new UnusableData(backup, 'is empty, so it is no backup.');
  mkdirSync(dirname(file), { recursive: true });
  copyFileSync(backup, copy);
  let database: Database | undefined;
  try {
    database = await Database.open(copy);
    await refuseForeign(database, backup);
    await migrate(database);
    if (!(await database.reader.one('SELECT 1 FROM company')))
      throw new UnusableData(backup, 'has no company in it, so it is no backup.');
    const drifts = await verifyDatabase(database.reader);
    if (drifts.length > 0)
      throw new UnusableData(backup, `does not add up: ${drifts.map(({ check }) => check).join('; ')}.`);
  } catch (error) {
    throw explained(backup, error);
  } finally {
    await database?.close();
  }
  for (const end of ENDS.slice(1)) rmSync(copy + end, { force: true });
}

/** Moves the data that is there aside. @returns its new name */
function keepWhatIsThere(): string | undefined {
  if (!existsSync(file)) return undefined;
  const stamp = new Date().toISOString().slice(0, 19).replace(/[:T]/g, '-');
  let kept = `${file}.before-restore-${stamp}`;
  for (let n = 2; existsSync(kept); n += 1) kept = `${file}.before-restore-${stamp}-${n}`;
  for (const end of ENDS) if (existsSync(file + end)) renameSync(file + end, kept + end);
  return kept;
}
