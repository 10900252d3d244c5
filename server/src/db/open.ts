import { chmodSync, existsSync, statSync } from 'node:fs';
import { Database, type Reader } from './database.ts';
import { knownMigrations } from './migrate.ts';

/** The data cannot be used as it is; the message says what to do. */
export class UnusableData extends Error {
  constructor(file: string, why: string) {
    super(`${file} ${why}`);
    this.name = 'UnusableData';
  }
}

const RESTORE = 'Restore a backup with: npm run restore -- backups/…';

/**
 * Opens data that is to be worked with. What is there already must be whole: an empty or damaged file is never taken for a
 * new company.
 * @throws UnusableData
 */
export async function openData(file: string): Promise<Database> {
  const isNew = !existsSync(file);
  if (!isNew && statSync(file).size === 0)
    throw new UnusableData(file, `is empty, though there was data in it once. ${RESTORE}, or delete it to start over.`);
  let database: Database | undefined;
  try {
    database = await Database.open(file);
    if (isNew) keepPrivate(file);
    else await refuseUnusable(database, file);
    return database;
  } catch (error) {
    await database?.close().catch(() => undefined);
    throw error instanceof UnusableData ? error : explained(file, error);
  }
}

/** What is in the books is for whoever runs them, and nobody else on the machine. */
function keepPrivate(file: string): void {
  for (const one of [file, `${file}-wal`, `${file}-shm`]) if (existsSync(one)) chmodSync(one, 0o600);
}

async function refuseUnusable(database: Database, file: string): Promise<void> {
  const faults = await database.maintain(({ all }) => all('PRAGMA quick_check(5)'));
  const found = faults.map((fault) => Object.values(fault)[0]).filter((fault) => fault !== 'ok');
  if (found.length > 0) throw new UnusableData(file, `is damaged (${String(found[0]).slice(0, 200)}). ${RESTORE}`);
  await refuseForeign(database, file);
}

/** @throws UnusableData for a file of another program, or of a version that this one does not know */
export async function refuseForeign(database: Database, file: string): Promise<void> {
  const has = async (table: string) =>
    (await database.reader.one("SELECT 1 AS one FROM sqlite_schema WHERE type = 'table' AND name = $1", [table])) !==
    undefined;
  if (!(await has('migrations')) || !(await has('company')))
    throw new UnusableData(file, 'is not the data of a company. Choose another file.');
  const applied = await database.reader.all<{ name: string }>('SELECT name FROM migrations ORDER BY name');
  const known = new Set(knownMigrations());
  const newer = applied.find(({ name }) => !known.has(name));
  if (newer)
    throw new UnusableData(
      file,
      `was written by a newer version (${newer.name}). Start that version, or restore a backup.`,
    );
}

/** What SQLite says of a file, in words that tell what to do. */
export function explained(file: string, error: unknown): Error {
  const { code: own, original } = error as { code?: unknown; original?: { code?: unknown } };
  const code = String(own ?? original?.code ?? '');
  if (code.startsWith('SQLITE_NOTADB')) return new UnusableData(file, `is no data of ours. ${RESTORE}`);
  if (code.startsWith('SQLITE_CORRUPT')) return new UnusableData(file, `is damaged. ${RESTORE}`);
  if (code.startsWith('SQLITE_READONLY') || code.startsWith('SQLITE_CANTOPEN') || code.startsWith('SQLITE_PERM'))
    return new UnusableData(file, 'cannot be written. Check the rights of the file, its folder and its disk.');
  if (code.startsWith('SQLITE_FULL') || code === 'ENOSPC' || code === 'EDQUOT')
    return new UnusableData(file, 'cannot be opened: the disk is full.');
  return error instanceof Error ? error : new Error(String(error));
}

/** The newest migration that was applied to a file; undefined before the first. */
export const newestMigration = async (db: Reader): Promise<string | undefined> =>
  (await db.one<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1'))?.name;
