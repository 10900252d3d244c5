import { createHash, randomUUID } from 'node:crypto';
import { keyOf, type Snapshot } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { type Rows, readRows } from './sql.ts';

/** Moments whose rows are remembered, so that changes since them can be told. */
const MOST_KEPT = 8;
const KINDS = ['items', 'definitions', 'demands', 'supplies'] as const;

interface Moment {
  readonly version: string;
  /** Of every row by its key, what it says in short. */
  readonly rows: ReadonlyMap<string, string>;
}

const kept = new WeakMap<Reader, Moment[]>();

/** What coverage is computed from: all of it, or what changed since a moment that is still remembered. */
export async function readChanges(db: Reader, today: string, since: string | undefined): Promise<Snapshot> {
  const rows = await readRows(db, today);
  const now = momentOf(rows);
  const moments = kept.get(db) ?? [];
  kept.set(db, moments);
  const newest = moments[0];
  const version = newest && isSame(newest.rows, now) ? newest.version : randomUUID();
  if (version !== newest?.version) moments.unshift({ version, rows: now });
  moments.splice(MOST_KEPT);
  const before = moments.find((moment) => moment.version === since);
  if (!before) return { ...rows, version, since: null, gone: [] };
  const isNew = (key: string) => before.rows.get(key) !== now.get(key);
  return {
    ...rows,
    version,
    since: before.version,
    items: rows.items.filter((row) => isNew(keyOf.items(row))),
    definitions: rows.definitions.filter((row) => isNew(keyOf.definitions(row))),
    demands: rows.demands.filter((row) => isNew(keyOf.demands(row))),
    supplies: rows.supplies.filter((row) => isNew(keyOf.supplies(row))),
    gone: [...before.rows.keys()].filter((key) => !now.has(key)),
  };
}

function momentOf(rows: Rows): Map<string, string> {
  const all = new Map<string, string>();
  for (const kind of KINDS)
    for (const row of rows[kind]) all.set((keyOf[kind] as (row: unknown) => string)(row), shortOf(row));
  return all;
}

/** A row in few bytes; short ones stay as they are. */
function shortOf(row: unknown): string {
  const text = JSON.stringify(row);
  return text.length <= 64 ? text : createHash('sha1').update(text).digest('base64');
}

function isSame(one: ReadonlyMap<string, string>, other: ReadonlyMap<string, string>): boolean {
  if (one.size !== other.size) return false;
  for (const [key, row] of one) if (other.get(key) !== row) return false;
  return true;
}
