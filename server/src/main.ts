import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from './app.ts';
import { BadConfiguration, type Config, databaseIn, readConfig } from './config.ts';
import { DataInUse, lockData } from './db/lock.ts';
import { ensureCompany, migrate } from './db/migrate.ts';
import { explained, openData, UnusableData } from './db/open.ts';

/** Starts the server on the data folder's database, on this machine only, until told to stop. */
export async function serve(config: Config): Promise<void> {
  const logger = pino({ level: config.log });
  const file = databaseIn(config);
  const unlock = await lockData(file);
  const database = await openData(file);
  try {
    await migrate(database);
    await ensureCompany(database, {
      name: 'My company',
      currency: 'EUR',
      locale: 'en-GB',
      setUp: true,
      people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
    });
  } catch (error) {
    throw explained(file, error);
  }
  const webRoot = fileURLToPath(new URL('../../web/dist', import.meta.url));
  if (!existsSync(webRoot)) logger.warn('the web application is not built; only the API is served');
  const app = await buildApp({ database, logger, webRoot });
  const address = await app.listen({ host: '127.0.0.1', port: config.port }).catch((error: unknown) => {
    throw portTaken(config.port, error);
  });
  process.stdout.write(`\nYosegi is at ${address}\n\n`);

  const stop = async () => {
    await app.close();
    await database.close();
    await unlock();
    process.exit(0);
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void stop());
}

/** Nobody can be served at the port that was asked for; the message says what to do. */
export class PortTaken extends Error {
  constructor(port: number, why: string) {
    super(`Port ${port} ${why}. Choose another: PORT=${port + 1} npm start`);
    this.name = 'PortTaken';
  }
}

function portTaken(port: number, error: unknown): unknown {
  const code = (error as { code?: unknown }).code;
  if (code === 'EADDRINUSE') return new PortTaken(port, 'is used by another program, or by another server of this one');
  return code === 'EACCES' ? new PortTaken(port, 'may not be used by you') : error;
}

const TOLD = [UnusableData, DataInUse, BadConfiguration, PortTaken];

/** Ends the program with what to do where the data or the settings cannot be used, instead of a trace of calls. */
export function tellAndExit(error: unknown): never {
  if (!TOLD.some((kind) => error instanceof kind)) throw error;
  process.stderr.write(`\n${(error as Error).message}\n\n`);
  process.exit(1);
}

const start = async () => serve(readConfig());

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  await start().catch(tellAndExit);
}
