import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { Database } from '@yosegi/server/db/database';
import { migrate } from '@yosegi/server/db/migrate';
import { verifyDatabase } from '@yosegi/server/db/verify';
import { databaseFile, fileArgument } from './data.ts';

/** Puts a backup in place of the data; what was there is kept beside it. Stop the server first. */
const backup = fileArgument();
if (!backup || !existsSync(backup)) {
  console.error('Say which backup: npm run restore -- backups/yosegi-….sqlite');
  process.exit(2);
}
const file = databaseFile();
const checked = `${file}.restoring`;
mkdirSync(dirname(file), { recursive: true });
for (const end of ['', '-wal', '-shm']) rmSync(checked + end, { force: true });
copyFileSync(resolve(backup), checked);
const database = await Database.open(checked);
await migrate(database);
const drifts = await verifyDatabase(database.reader);
await database.close();
if (drifts.length > 0) {
  console.error('This backup does not add up; nothing was replaced.', drifts);
  process.exit(1);
}
for (const end of ['', '-wal', '-shm'])
  if (existsSync(file + end)) renameSync(file + end, `${file}.before-restore${end}`);
for (const end of ['-wal', '-shm']) rmSync(checked + end, { force: true });
renameSync(checked, file);
console.log(`Restored ${backup} to ${file}. What was there is now ${file}.before-restore.`);
