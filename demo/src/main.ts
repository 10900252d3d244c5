import { existsSync, renameSync, rmSync } from 'node:fs';
import { type Config, databaseIn, readConfig } from '@yosegi/server/config';
import { lockData } from '@yosegi/server/db/lock';
import { serve, tellAndExit } from '@yosegi/server/main';
import { makeDemo } from './make.ts';

/** Starts the demo business, made anew with `--fresh` or when missing. */
const config = configured();
const file = databaseIn(config);
const fresh = process.argv.includes('--fresh');
if (fresh) {
  // Data that somebody works with is not thrown away under them.
  const unlock = await lockData(file).catch(tellAndExit);
  for (const end of ['', '-wal', '-shm', '.part', '.part-wal', '.part-shm']) rmSync(file + end, { force: true });
  await unlock();
}
if (!existsSync(file)) await makeAside();
if (!process.argv.includes('--only-data')) await serve(config).catch(tellAndExit);

function configured(): Config {
  try {
    return readConfig('data/demo');
  } catch (error) {
    return tellAndExit(error);
  }
}

/** Makes the data beside its place and moves it there when whole, so that a stop half-way leaves nothing half made. */
async function makeAside(): Promise<void> {
  process.stdout.write('Making the demo business, half a minute at most…\n');
  const part = `${file}.part`;
  for (const end of ['', '-wal', '-shm']) rmSync(part + end, { force: true });
  await makeDemo(part, new Date());
  renameSync(part, file);
}
