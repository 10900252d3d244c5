import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from './app.ts';
import { BadConfiguration, type Config, databaseIn, readConfig } from './config.ts';
import { DataInUse, lockData } from './db/lock.ts';
import { ensureCompany, migrate } from './db/migrate.ts';
import { openData, UnusableData } from './db/open.ts';

/** Starts the server on the data folder's database, on this machine only, until told to stop. */
export async function serve(config: Config): Promise<void> {
  const logger = pino({ level: config.log });
  const file = databaseIn(config);
  const unlock = await lockData(file);
  const database = await openData(file);
  await migrate(database);
  await ensureCompany(database, {
    name: 'My company',
    currency: 'EUR',
    locale: 'en-GB',
    setUp: true,
    people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
  });
  const webRoot = fileURLToPath(new URL('../../web/dist', import.meta.url));
  if (!existsSync(webRoot)) logger.warn('the web application is not built; only the API is served');
  const app = await buildApp({ database, logger, webRoot });
  const address = await app.listen({ host: '127.0.0.1', port: config.port });
  process.stdout.write(`\nYosegi is at ${address}\n\n`);

  const stop = async () => {
    await app.close();
    await database.close();
    await unlock();
    process.exit(0);
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void stop());
}

/** Ends the program with what to do where the data or the settings cannot be used, instead of a trace of calls. */
export function tellAndExit(error: unknown): never {
  if (!(error instanceof UnusableData || error instanceof DataInUse || error instanceof BadConfiguration)) throw error;
  process.stderr.write(`\n${error.message}\n\n`);
  process.exit(1);
}

const start = async () => serve(readConfig());

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  await start().catch(tellAndExit);
}
