import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Database } from './database.ts';

const MIGRATIONS = fileURLToPath(new URL('./migrations/*.sql', import.meta.url));

/**
 * Brings the schema up to date, forward only; each migration is one transaction.
 * @param to stop after this migration, for tests of upgrades
 * @returns the name of the newest migration applied
 */
export function migrate(database: Database, to?: string): Promise<string> {
  return database.maintain(async ({ sequelize, script }) => {
    const umzug = new Umzug({
      storage: new SequelizeStorage({ sequelize, modelName: 'migration' }),
      logger: undefined,
      migrations: {
        glob: MIGRATIONS,
        resolve: ({ name, path }) => ({
          name: name.replace(/\.sql$/, ''),
          up: () => applyFile(script, path ?? ''),
        }),
      },
    });
    await umzug.up(to ? { to } : {});
    return (await umzug.executed()).at(-1)?.name ?? '';
  });
}

async function applyFile(script: (sql: string) => Promise<void>, path: string): Promise<void> {
  try {
    await script(`BEGIN IMMEDIATE;\n${readFileSync(path, 'utf8')}\nCOMMIT;`);
  } catch (error) {
    await script('ROLLBACK');
    throw error;
  }
}

export interface CompanyStart {
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  readonly people: readonly { name: string; initials: string; role: 'owner' | 'bench' }[];
}

/** The company, its people, one store with a shelf and a bench, and a labour rate, when the database is new. */
export function ensureCompany(database: Database, start: CompanyStart): Promise<boolean> {
  return database.write(async (tx) => {
    if (await tx.one('SELECT 1 FROM company')) return false;
    const { name, currency, locale } = start;
    const cookie_secret = randomBytes(32).toString('base64');
    await tx.insert('company', { id: 1, name, currency, locale, cookie_secret });
    await tx.insertMany(
      'person',
      start.people.map((person) => ({ ...person })),
    );
    return true;
  });
}
