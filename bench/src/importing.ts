import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, type FileKindName, IMPORTS_PATH, type ImportJob } from '@yosegi/contract';
import { type Fetch, send } from '@yosegi/contract/client';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import sqlite3 from 'sqlite3';
import { median, ms, type Result } from './result.ts';

const ITEMS = 20_000;
const DEFINITIONS = 3_000;
const LINES = 8;
const ROUNDS = 3;

/**
 * Files of 20,000 items and 3,000 definitions sent over HTTP, read, judged row by row and brought in, against bare
 * inserts of the rows that came of them: one prepared statement a table, one transaction, through sqlite3 on a file of
 * the same schema and durability.
 */
export async function importBench(): Promise<Result> {
  const whole: number[] = [];
  const bare: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
    const served = await open(join(folder, 'served.sqlite'));
    const app = await buildApp({ database: served });
    const address = await app.listen({ host: '127.0.0.1', port: 0 });
    whole.push(await importAll(address));
    const tables = await tablesOf(served);
    await app.close();
    await served.close();
    const byHand = join(folder, 'by-hand.sqlite');
    await (await open(byHand)).close();
    bare.push(await insertBare(byHand, tables));
    rmSync(folder, { recursive: true });
  }
  const ratio = median(whole) / median(bare);
  return {
    name: `import of ${ITEMS} items and ${DEFINITIONS} definitions of ${LINES} lines`,
    measured: `${ms(median(whole))} over HTTP`,
    baseline: `${ms(median(bare))} for bare inserts of the same rows through sqlite3`,
    ratio: `ratio ${ratio.toFixed(2)}`,
    promise: 'at most 4',
    holds: ratio <= 4,
  };
}

async function open(file: string): Promise<Database> {
  const database = await Database.open(file);
  await migrate(database);
  const people = [{ name: 'Owner', initials: 'OW', role: 'owner' as const }];
  await ensureCompany(database, { name: 'Bench', currency: 'EUR', locale: 'en', people });
  return database;
}

const itemsFile = () =>
  [
    'Code,Name,Unit,How it comes,Sell price,Reorder point,Standard cost,Note',
    ...Array.from({ length: ITEMS }, (_, n) => {
      const made = n < DEFINITIONS;
      return `I-${n},"Item number ${n}, ${made ? 'made' : 'bought'}",${n % 7 === 0 ? 'kg' : 'each'},${made ? 'made' : 'bought'},${(n % 90) + 0.99},${n % 40},${(n % 60) / 4},`;
    }),
  ].join('\n');

const definitionsFile = () =>
  [
    'Product,Makes,Part,Quantity,Waste %,Taken',
    ...Array.from({ length: DEFINITIONS * LINES }, (_, n) => {
      const product = Math.floor(n / LINES);
      const part = DEFINITIONS + ((product * 13 + (n % LINES) * 977) % (ITEMS - DEFINITIONS));
      return `I-${product},1,I-${part},${(n % 9) + 1},${n % 3},${n % 2 ? 'picked first' : 'when finished'}`;
    }),
  ].join('\n');

export async function importAll(address: string): Promise<number> {
  let cookie = '';
  const call: Fetch = async (url, init) => {
    const response = await fetch(address + url, { ...init, headers: { ...init.headers, cookie } });
    cookie ||= response.headers.get('set-cookie')?.split(';')[0] ?? '';
    return response;
  };
  await send(call, api.signIn, { body: { personId: 1 } });
  const files = [itemsFile(), definitionsFile()] as const;
  const started = performance.now();
  await importOne(call, 'items', files[0]);
  await importOne(call, 'definitions', files[1]);
  return performance.now() - started;
}

async function importOne(call: Fetch, kind: FileKindName, body: string): Promise<void> {
  const response = await call(`${IMPORTS_PATH}?kind=${kind}`, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/octet-stream' },
  });
  let job = (await response.json()) as ImportJob;
  const params = { id: job.id };
  while (job.state === 'reading') job = await send(call, api.importJob, { params, query: { seen: job.step } });
  if (job.state !== 'ready' || job.counts.refused > 0) throw new Error(`the ${kind} were refused: ${job.problem}`);
  await send(call, api.applyImport, { params, body: {} });
}

interface TableRows {
  readonly table: string;
  readonly rows: readonly Record<string, unknown>[];
}

/** What came of the files, table by table. */
async function tablesOf(database: Database): Promise<TableRows[]> {
  const tables: TableRows[] = [];
  for (const table of ['item', 'definition', 'revision', 'revision_line'])
    tables.push({ table, rows: await database.reader.all<Record<string, unknown>>(`SELECT * FROM ${table}`) });
  const count = tables.reduce((sum, { rows }) => sum + rows.length, 0);
  if (count !== ITEMS + DEFINITIONS * (2 + LINES)) throw new Error(`${count} rows came in`);
  return tables;
}

async function insertBare(file: string, tables: readonly TableRows[]): Promise<number> {
  const handle = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, (error) => (error ? reject(error) : resolve(opened)));
  });
  const exec = (sql: string) =>
    new Promise<void>((resolve, reject) => handle.exec(sql, (error) => (error ? reject(error) : resolve())));
  await exec('PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;');
  const started = performance.now();
  await exec('BEGIN IMMEDIATE');
  for (const { table, rows } of tables) {
    const columns = Object.keys(rows[0] ?? {});
    const statement = handle.prepare(
      `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`,
    );
    for (const row of rows)
      await new Promise<void>((resolve, reject) =>
        statement.run(Object.values(row), (error: Error | null) => (error ? reject(error) : resolve())),
      );
    await new Promise<void>((resolve) => statement.finalize(() => resolve()));
  }
  await exec('COMMIT');
  const took = performance.now() - started;
  await new Promise<void>((resolve) => handle.close(() => resolve()));
  return took;
}
