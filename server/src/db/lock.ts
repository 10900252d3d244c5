import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import sqlite3 from 'sqlite3';

/** Somebody has the data open. */
export class DataInUse extends Error {
  constructor(file: string) {
    super(`${file} is in use by a running server, or by another command on it. Stop that first.`);
    this.name = 'DataInUse';
  }
}

/**
 * Takes the data for oneself until it is let go or the process ends, however it ends. The lock is one of SQLite's own on a
 * file beside the data, so the system frees it with the process and nothing stale can stay behind.
 * @returns how to let it go
 * @throws DataInUse
 */
export async function lockData(file: string): Promise<() => Promise<void>> {
  mkdirSync(dirname(file), { recursive: true });
  const handle = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(`${file}.lock`, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  const close = () => new Promise<void>((resolve) => handle.close(() => resolve()));
  try {
    await new Promise<void>((resolve, reject) => {
      handle.exec('PRAGMA journal_mode = DELETE; BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve()));
    });
  } catch (error) {
    await close();
    if (String((error as { code?: string }).code).startsWith('SQLITE_BUSY')) throw new DataInUse(file);
    throw error;
  }
  return close;
}
