import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import sqlite3 from 'sqlite3';
import { median, ms, type Result } from './result.ts';

/** A server on a file of its own in `folder`, and how its owner calls it. */
export async function serve(folder: string) {
  const file = join(folder, 'served.sqlite');
  const database = await Database.open(file);
  await migrate(database);
  await ensureCompany(database, {
    name: 'Bench',
    currency: 'EUR',
    locale: 'en',
    people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
  });
  const app = await buildApp({ database });
  const address = await app.listen({ host: '127.0.0.1', port: 0 });
  let cookie = '';
  const call: Fetch = async (url, init) => {
    const response = await fetch(address + url, { ...init, headers: { ...init.headers, cookie } });
    cookie ||= response.headers.get('set-cookie')?.split(';')[0] ?? '';
    return response;
  };
  await send(call, api.signIn, { body: { personId: 1 } });
  const close = async () => {
    await app.close();
    await database.close();
  };
  return { file, database, call, close };
}

/** Something that is asked or posted again and again. */
interface Replayed<State> {
  readonly name: string;
  readonly rounds: number;
  readonly prepare: (call: Fetch) => Promise<State>;
  /** What is measured. */
  readonly post: (call: Fetch, state: State) => Promise<unknown>;
  /** What the next round needs to know; not measured. */
  readonly next: (call: Fetch, state: State) => Promise<State>;
  /** How many times its statements by hand it may take. */
  readonly most: number;
}

/**
 * A request over HTTP, against the very statements that it runs, replayed in the same order by hand through sqlite3 on a
 * copy of the same file with the same durability.
 */
export async function replayed<State>({ name, rounds, prepare, post, next, most }: Replayed<State>): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
  const { file, database, call, close: closeServer } = await serve(folder);
  let state = await prepare(call);
  await database.maintain(({ script }) => script('PRAGMA wal_checkpoint(TRUNCATE)'));
  const byHand = join(folder, 'by-hand.sqlite');
  copyFileSync(file, byHand);
  const handle = await open(byHand);

  const served: number[] = [];
  const raw: number[] = [];
  let statements = 0;
  for (let round = 0; round < rounds; round += 1) {
    const recorded: string[] = [];
    const end = database.trace((sql) => recorded.push(sql));
    const started = performance.now();
    await post(call, state);
    served.push(performance.now() - started);
    // Traces come a turn after the answers.
    await new Promise((resolve) => setImmediate(resolve));
    end();
    state = await next(call, state);
    // Turn about, so that both meet the same moods of the disk.
    const begun = performance.now();
    for (const sql of recorded) await run(handle, sql);
    raw.push(performance.now() - begun);
    statements = recorded.length;
  }
  const drift = await difference(handle, database);
  await close(handle);
  await closeServer();
  rmSync(folder, { recursive: true });
  if (drift !== 0) throw new Error('the replay by hand did not come to the same books');
  const ratio = median(served) / median(raw);
  return {
    name: `${name}, ${statements} statements`,
    measured: `${ms(median(served))} over HTTP`,
    baseline: `${ms(median(raw))} by hand through sqlite3`,
    ratio: `ratio ${ratio.toFixed(2)}`,
    promise: `at most ${most}`,
    holds: ratio <= most,
  };
}

const open = (file: string) =>
  new Promise<sqlite3.Database>((resolve, reject) => {
    const handle = new sqlite3.Database(file, (error) => {
      if (error) return reject(error);
      const pragmas = 'PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;';
      handle.exec(pragmas, (fault) => (fault ? reject(fault) : resolve(handle)));
    });
  });
const rows = (handle: sqlite3.Database, sql: string) =>
  new Promise<unknown[]>((resolve, reject) => {
    handle.all(sql, (error, found) => (error ? reject(error) : resolve(found)));
  });
const run = (handle: sqlite3.Database, sql: string) => rows(handle, sql);
const close = (handle: sqlite3.Database) =>
  new Promise<void>((resolve, reject) => {
    handle.close((error) => (error ? reject(error) : resolve()));
  });

/** The replay is only a baseline if it does the same work: both files must hold the same stock. */
async function difference(handle: sqlite3.Database, database: Database): Promise<number> {
  const sql = 'SELECT item_id, quantity, value FROM item_stock ORDER BY item_id';
  const [hand, server] = [await rows(handle, sql), await database.reader.all(sql)];
  return JSON.stringify(hand) === JSON.stringify(server) ? 0 : 1;
}
