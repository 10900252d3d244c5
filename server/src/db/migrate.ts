import { randomBytes } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Database, Maintenance } from './database.ts';

const FOLDER = fileURLToPath(new URL('./migrations', import.meta.url));
const MIGRATIONS = `${FOLDER}/*.sql`;

/** The names of all migrations that this version has. */
export const knownMigrations = () => readdirSync(FOLDER).map((name) => name.replace(/\.sql$/, ''));

/**
 * Brings the schema up to date, forward only; each migration is one transaction.
 * @param to stop after this migration, for tests of upgrades
 * @returns the name of the newest migration applied
 */
export function migrate(database: Database, to?: string): Promise<string> {
  return database.maintain(async (maintenance) => {
    const { sequelize } = maintenance;
    const umzug = new Umzug({
      storage: new SequelizeStorage({ sequelize, modelName: 'migration' }),
      logger: undefined,
      migrations: {
        glob: MIGRATIONS,
        resolve: ({ name, path }) => ({
          name: name.replace(/\.sql$/, ''),
          up: () => applyFile(maintenance, path ?? ''),
        }),
      },
    });
    await umzug.up(to ? { to } : {});
    return (await umzug.executed()).at(-1)?.name ?? '';
  });
}

/**
 * One migration in one transaction. References are not enforced meanwhile, because a table that others refer to can only
 * be changed by putting another in its place (SQLite, “Making Other Kinds Of Table Schema Changes”); they are checked
 * before it takes effect.
 */
async function applyFile({ script, all }: Pick<Maintenance, 'script' | 'all'>, path: string): Promise<void> {
  await script('PRAGMA foreign_keys = OFF');
  try {
    await script(`BEGIN IMMEDIATE;\n${readFileSync(path, 'utf8')}`);
    const broken = await all('PRAGMA foreign_key_check');
    if (broken.length > 0) throw new Error(`${path} breaks references: ${JSON.stringify(broken.slice(0, 5))}`);
    await script('COMMIT');
  } catch (error) {
    await script('ROLLBACK');
    throw error;
  } finally {
    await script('PRAGMA foreign_keys = ON');
  }
}

export interface CompanyStart {
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  /** Begins with its set-up, which a business that is made whole does without. */
  readonly setUp?: true;
  readonly people: readonly { name: string; initials: string; role: 'owner' | 'bench' }[];
}

/** The company and its people, when the database is new. @returns whether it was */
export function ensureCompany(database: Database, start: CompanyStart): Promise<boolean> {
  return database.write(async (tx) => {
    if (await tx.one('SELECT 1 FROM company')) return false;
    const { name, currency, locale } = start;
    const cookie_secret = randomBytes(32).toString('base64');
    await tx.insert('company', { id: 1, name, currency, locale, cookie_secret, setup_step: start.setUp ? 1 : null });
    await tx.insertMany(
      'person',
      start.people.map((person) => ({ ...person })),
    );
    return true;
  });
}
