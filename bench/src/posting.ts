import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, type BuildDetail } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import sqlite3 from 'sqlite3';
import { median, ms, type Result } from './result.ts';

const LINES = 12;
const ROUNDS = 60;

/**
 * A build finish of 12 part lines over HTTP, against the very statements that it runs, replayed in the same order by
 * hand through sqlite3 on a copy of the same file with the same durability.
 */
export async function postingBench(): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
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
  let build = await prepare(call);
  await database.maintain(({ script }) => script('PRAGMA wal_checkpoint(TRUNCATE)'));
  const byHand = join(folder, 'by-hand.sqlite');
  copyFileSync(file, byHand);
  const handle = await open(byHand);

  const served: number[] = [];
  const raw: number[] = [];
  let statements = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const recorded: string[] = [];
    const end = database.trace((sql) => recorded.push(sql));
    const body = { version: build.version, good: '1', outputBinId: build.outputBinId, lines: [] };
    const started = performance.now();
    await send(call, api.finish, { params: { id: build.id }, body });
    served.push(performance.now() - started);
    build = await send(call, api.build, { params: { id: build.id } });
    // Traces come a turn after the answers.
    await new Promise((resolve) => setImmediate(resolve));
    end();
    // Turn about, so that both meet the same moods of the disk.
    const begun = performance.now();
    for (const sql of recorded) await run(handle, sql);
    raw.push(performance.now() - begun);
    statements = recorded.length;
  }
  const drift = await difference(handle, database);
  await close(handle);
  await app.close();
  await database.close();
  rmSync(folder, { recursive: true });
  if (drift !== 0) throw new Error('the replay by hand did not come to the same books');
  const ratio = median(served) / median(raw);
  return {
    name: `finish of ${LINES} lines over HTTP, ${statements} statements`,
    measured: `${ms(median(served))} over HTTP`,
    baseline: `${ms(median(raw))} by hand through sqlite3`,
    ratio: `ratio ${ratio.toFixed(2)}`,
    promise: 'at most 3',
    holds: ratio <= 3,
  };
}

/** A product of twelve parts, in stock, with one large build of it on the bench and a few others open beside it. */
async function prepare(call: Fetch): Promise<BuildDetail> {
  const store = await send(call, api.createStore, { body: { code: 'S', name: 'Store' } });
  const bin = await send(call, api.createBin, { params: { id: store.id }, body: { code: 'A', walkOrder: 1 } });
  const item = (code: string) => {
    const nothing = { sellPrice: null, reorderPoint: null, standardCost: null, note: '' };
    return send(call, api.createItem, {
      body: { code, name: code, unitId: 1, source: 'both', homeBinId: bin.id, ...nothing },
    });
  };
  const parts = [];
  for (let n = 0; n < LINES; n += 1) parts.push(await item(`PART-${n}`));
  const product = await item('PRODUCT');
  const lines = parts.map((part) => ({ itemId: part.id, binId: bin.id, quantity: '100000', unitCost: '1.37' }));
  await send(call, api.receive, { body: { kind: 'receipt', lines } });
  const { id } = await send(call, api.createDefinition, { body: { itemId: product.id } });
  const part = {
    kind: 'part',
    basis: 'per-output',
    quantity: '2',
    waste: '0',
    taken: 'when-finished',
    share: null,
    comesBack: true,
  } as const;
  const body = { version: 0, outputQuantity: '1', lines: parts.map((one) => ({ ...part, itemId: one.id })) };
  const saved = await send(call, api.saveRevision, { params: { id }, body });
  await send(call, api.putInUse, { params: { id }, body: { version: saved.version } });
  const plan = (quantity: string) => ({ itemId: product.id, quantity, due: null });
  const { builds } = await send(call, api.planBuilds, {
    body: { builds: [plan('1000'), plan('5'), plan('8'), plan('3')] },
  });
  const [first] = builds;
  if (!first) throw new Error('nothing was planned');
  await send(call, api.startBuild, { params: { id: first.id }, body: { version: first.version } });
  return send(call, api.build, { params: { id: first.id } });
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
