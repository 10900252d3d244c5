import { Refusal } from '@yosegi/core/refusal';

/** What the disk or SQLite can answer with that a person can do something about. */
const CODES: readonly (readonly [start: string, { readonly code: string }])[] = [
  ['SQLITE_FULL', { code: 'disk-full' }],
  ['ENOSPC', { code: 'disk-full' }],
  ['EDQUOT', { code: 'disk-full' }],
  ['SQLITE_READONLY', { code: 'data-read-only' }],
  ['SQLITE_PERM', { code: 'data-read-only' }],
  ['SQLITE_CANTOPEN', { code: 'data-read-only' }],
  ['EROFS', { code: 'data-read-only' }],
  ['SQLITE_CORRUPT', { code: 'data-damaged' }],
  ['SQLITE_NOTADB', { code: 'data-damaged' }],
  ['SQLITE_IOERR', { code: 'data-damaged' }],
  ['SQLITE_BUSY', { code: 'data-busy' }],
];

/** The refusal that a fault of the storage is told as; undefined for any other error. */
export function storageRefusal(error: unknown): Refusal | undefined {
  const told = codeOf(error);
  const found = CODES.find(([start]) => told.startsWith(start));
  return found && new Refusal(found[1].code);
}

/** The code of an error, or of the one that Sequelize has wrapped. */
function codeOf(error: unknown): string {
  const { code, original, parent } = (error ?? {}) as { code?: unknown; original?: unknown; parent?: unknown };
  if (typeof code === 'string') return code;
  return original || parent ? codeOf(original ?? parent) : '';
}
