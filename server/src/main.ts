import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { buildApp } from './app.ts';
import { Database } from './db/database.ts';
import { ensureCompany, migrate } from './db/migrate.ts';

/** Starts the server on the data folder's database, on this machine only, until told to stop. */
export async function serve(folder: string, port: number): Promise<void> {
  const logger = pino({ level: process.env.YOSEGI_LOG ?? 'info' });
  const database = await Database.open(join(folder, 'yosegi.sqlite'));
  await migrate(database);
  await ensureCompany(database, {
    name: 'My company',
    currency: 'EUR',
    locale: 'en',
    people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
  });
  const webRoot = fileURLToPath(new URL('../../web/dist', import.meta.url));
  if (!existsSync(webRoot)) logger.warn('the web application is not built; only the API is served');
  const app = await buildApp({ database, logger, webRoot });
  const address = await app.listen({ host: '127.0.0.1', port });
  process.stdout.write(`\nYosegi is at ${address}\n\n`);

  const stop = async () => {
    await app.close();
    await database.close();
    process.exit(0);
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void stop());
}

if (process.argv[1] && resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  await serve(resolve(process.env.YOSEGI_DATA ?? 'data'), Number(process.env.PORT ?? 4170));
}
