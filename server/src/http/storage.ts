import { type BareCode, Refusal } from '@yosegi/core/refusal';

/** What the disk or SQLite can answer with that a person can do something about. */
const CODES: readonly (readonly [start: string, BareCode])[] = [
  ['SQLITE_FULL', 'disk-full'],
  ['ENOSPC', 'disk-full'],
  ['EDQUOT', 'disk-full'],
  ['SQLITE_READONLY', 'data-read-only'],
  ['SQLITE_PERM', 'data-read-only'],
  ['SQLITE_CANTOPEN', 'data-read-only'],
  ['EROFS', 'data-read-only'],
  ['SQLITE_CORRUPT', 'data-damaged'],
  ['SQLITE_NOTADB', 'data-damaged'],
  ['SQLITE_IOERR', 'data-damaged'],
  ['SQLITE_BUSY', 'data-busy'],
];

/** The refusal that a fault of the storage is told as; undefined for any other error. */
export function storageRefusal(error: unknown): Refusal | undefined {
  const told = codeOf(error);
  const found = CODES.find(([start]) => told.startsWith(start));
  return found && new Refusal(found[1]);
}

/** The code of an error, or of the one that Sequelize has wrapped. */
function codeOf(error: unknown): string {
  const { code, original, parent } = (error ?? {}) as { code?: unknown; original?: unknown; parent?: unknown };
  if (typeof code === 'string') return code;
  return original || parent ? codeOf(original ?? parent) : '';
}
