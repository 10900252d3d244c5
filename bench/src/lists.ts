import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, get } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api, IDEMPOTENCY_HEADER } from '@yosegi/contract';
import { buildApp } from '@yosegi/server/app';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import { verifyDatabase } from '@yosegi/server/db/verify';
import sqlite3 from 'sqlite3';
import { fillMillion, MOVEMENTS, SALES } from './million.ts';
import { median, ms, type Result } from './result.ts';

const ROUNDS = 15;
/** Until both run as they do in the middle of a working day. */
const WARM_UP_MS = 1000;
const DAY = '2025-03-01';

/** A question to the server, and the plainest SQL for it. */
interface Pair {
  readonly name: string;
  readonly path: string;
  /** Null: the statements that it runs, by hand. */
  readonly sql: string | null;
  /** How many times its bare SQL it may take. */
  readonly most?: number;
}

/** Everything a list shows of movements; which ones is a question of its own, so that the planner takes no detour. */
const movesOf = (
  ids: string,
) => `SELECT m.id, d.number, d.kind, d.at, p.name, i.code, i.name AS item, u.code AS unit, n.code AS bin, s.code AS store,
    l.code AS lot, c.code AS serial, b.number AS build, m.quantity, m.value
  FROM movement m JOIN document d ON d.id = m.document_id JOIN person p ON p.id = d.person_id JOIN item i ON i.id = m.item_id
  JOIN unit u ON u.id = i.unit_id JOIN bin n ON n.id = m.bin_id JOIN store s ON s.id = n.store_id
  LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial c ON c.id = m.serial_id LEFT JOIN build b ON b.id = m.holder_id AND m.holder_kind = 'build'
  WHERE m.id IN (${ids}) ORDER BY m.id DESC`;

const pairs: readonly Pair[] = [
  {
    name: 'movements, first page',
    path: '/api/movements',
    sql: movesOf('SELECT id FROM movement ORDER BY id DESC LIMIT 101'),
  },
  {
    name: 'movements by text and kind, first page',
    path: '/api/movements?q=number%20777&kind=receipt',
    sql: movesOf(`SELECT m.id FROM movement m JOIN document d ON d.id = m.document_id JOIN item i ON i.id = m.item_id
      LEFT JOIN lot l ON l.id = m.lot_id LEFT JOIN serial c ON c.id = m.serial_id
      WHERE d.kind = 'receipt' AND (i.name LIKE '%number 777%' OR i.code LIKE '%number 777%' OR d.number LIKE '%number 777%'
        OR d.remark LIKE '%number 777%' OR l.code LIKE '%number 777%' OR c.code LIKE '%number 777%')
      ORDER BY m.id DESC LIMIT 101`),
  },
  {
    name: 'history of one item',
    path: '/api/movements?itemId=777',
    sql: movesOf('SELECT id FROM movement WHERE item_id = 777 ORDER BY id DESC LIMIT 101'),
  },
  {
    name: 'documents, first page',
    path: '/api/documents',
    sql: `SELECT d.*, p.name, (SELECT sum(value) FROM movement WHERE document_id = d.id) AS value,
        EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone,
        (SELECT i.code || i.name || sum(m.quantity) FROM movement m JOIN item i ON i.id = m.item_id
          WHERE m.document_id = d.id GROUP BY m.item_id ORDER BY sum(abs(m.value)) DESC LIMIT 1) AS about,
        (SELECT count(DISTINCT item_id) FROM movement WHERE document_id = d.id) AS items,
        (SELECT number FROM numbered WHERE kind = d.for_kind AND id = d.for_id) AS for_number
      FROM document d JOIN person p ON p.id = d.person_id ORDER BY d.id DESC LIMIT 101`,
  },
  {
    name: `stock on ${DAY}, first page`,
    path: `/api/stock-on?day=${DAY}`,
    sql: `SELECT i.code, i.name, sum(m.quantity) AS quantity, sum(m.value) AS value FROM movement m
      JOIN document d ON d.id = m.document_id JOIN item i ON i.id = m.item_id WHERE d.at < '2025-03-02'
      GROUP BY i.id ORDER BY i.code LIMIT 101`,
  },
  {
    name: 'value of stock over time',
    path: '/api/stock-value',
    sql: `SELECT substr(d.at, 1, 10) AS day, sum(m.value) AS value FROM movement m JOIN document d ON d.id = m.document_id GROUP BY day`,
  },
  {
    name: 'items, first page',
    path: '/api/items',
    sql: `SELECT i.*, u.code, b.code, s.quantity, s.value,
        (SELECT sum(quantity) FROM balance WHERE item_id = i.id AND holder_id IS NOT NULL) AS benches,
        (SELECT sum(quantity) FROM usable WHERE item_id = i.id) AS usable,
        (SELECT sum(open) FROM build_line WHERE item_id = i.id AND open > 0) AS promised,
        (SELECT sum(quantity) FROM coming_bought WHERE item_id = i.id) AS ordered
      FROM item i JOIN unit u ON u.id = i.unit_id LEFT JOIN bin b ON b.id = i.home_bin_id LEFT JOIN item_stock s ON s.item_id = i.id
      ORDER BY i.code COLLATE NOCASE LIMIT 101`,
  },
  {
    name: 'where stock stands, first page',
    path: '/api/stock-places?limit=40',
    sql: `SELECT i.code, i.name, n.code AS bin, s.code AS store, n.kind, l.code AS lot, l.best_before, c.code AS serial, b.quantity,
        (SELECT sum(open) FROM build_line WHERE item_id = i.id AND open > 0) AS promised,
        (SELECT sum(quantity) FROM coming_bought WHERE item_id = i.id) AS ordered,
        (SELECT sum(quantity) FROM usable WHERE item_id = i.id) AS usable
      FROM (SELECT id, code, name FROM item i WHERE EXISTS (SELECT 1 FROM balance WHERE item_id = i.id) ORDER BY code COLLATE NOCASE LIMIT 41) i
      JOIN balance b ON b.item_id = i.id JOIN bin n ON n.id = b.bin_id JOIN store s ON s.id = n.store_id
      LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial c ON c.id = b.serial_id
      ORDER BY i.code COLLATE NOCASE, s.id, n.picking_order, l.best_before`,
  },
  {
    name: 'lots, first page',
    path: '/api/lots',
    sql: `SELECT l.*, i.code, i.name, sum(b.quantity) AS quantity FROM lot l JOIN item i ON i.id = l.item_id JOIN balance b ON b.lot_id = l.id
      GROUP BY l.id ORDER BY l.best_before, l.id LIMIT 101`,
  },
  {
    name: 'purchase orders, first page',
    path: '/api/purchase-orders',
    sql: `SELECT o.*, s.name, (SELECT json_group_array(json_array(l.id, i.code, l.quantity, l.price, l.open)) FROM purchase_order_line l
        JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id) AS lines
      FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
      WHERE EXISTS (SELECT 1 FROM purchase_order_line l WHERE l.order_id = o.id AND l.open > 0) ORDER BY o.id DESC LIMIT 101`,
  },
  {
    name: `orders of customers still open, of ${SALES.toLocaleString('en')}`,
    path: '/api/orders',
    sql: null,
    most: 2,
  },
  {
    name: `orders of customers that are shipped, first page of ${SALES.toLocaleString('en')}`,
    path: '/api/orders?show=shipped',
    sql: null,
    most: 2,
  },
];

/** Lists, an item's history and stock on a past date over a million movements, each against the plainest SQL for it. */
export async function listBench(): Promise<Result[]> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
  const file = join(folder, 'million.sqlite');
  const database = await Database.open(file, { durable: false });
  await migrate(database);
  await ensureCompany(database, {
    name: 'Bench',
    currency: 'EUR',
    locale: 'en',
    people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
  });
  await fillMillion(database);
  const drifts = await verifyDatabase(database.reader);
  if (drifts.length > 0) throw new Error(`the made-up books do not add up: ${JSON.stringify(drifts[0])}`);
  const app = await buildApp({ database });
  const address = await app.listen({ host: '127.0.0.1', port: 0 });
  const session = await fetch(address + api.signIn.path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', [IDEMPOTENCY_HEADER]: crypto.randomUUID() },
    body: JSON.stringify({ personId: 1 }),
  });
  const cookie = session.headers.get('set-cookie')?.split(';')[0] ?? '';
  const agent = new Agent({ keepAlive: true });
  const ask = (path: string) =>
    new Promise<string>((resolve, reject) => {
      get(address + path, { agent, headers: { cookie } }, (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (chunk) => (text += chunk));
        response.on('end', () => (response.statusCode === 200 ? resolve(text) : reject(new Error(text))));
      }).on('error', reject);
    });
  const bare = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
  const query = (sql: string) =>
    new Promise<unknown[]>((resolve, reject) => {
      bare.all(sql, (error, rows) => (error ? reject(error) : resolve(rows)));
    });
  const results: Result[] = [];
  for (const pair of pairs) {
    const statements = pair.sql === null ? await statementsOf(database, () => ask(pair.path)) : [pair.sql];
    results.push(await compare(pair, statements, ask, query));
  }
  await new Promise((resolve) => bare.close(resolve));
  agent.destroy();
  await app.close();
  await database.close();
  rmSync(folder, { recursive: true });
  return results;
}

/** What the server asks of the database for an answer. */
async function statementsOf(database: Database, ask: () => Promise<unknown>): Promise<string[]> {
  const recorded: string[] = [];
  const end = database.trace((sql) => recorded.push(sql));
  await ask();
  // Traces come a turn after the answers.
  await new Promise((resolve) => setImmediate(resolve));
  end();
  return recorded;
}

async function compare(
  { name, path, most = 3 }: Pair,
  statements: readonly string[],
  ask: (path: string) => Promise<string>,
  query: (sql: string) => Promise<unknown[]>,
): Promise<Result> {
  const [served, bare]: [number[], number[]] = [[], []];
  const timed = async (work: () => Promise<unknown>, into: number[]) => {
    const started = performance.now();
    await work();
    into.push(performance.now() - started);
  };
  const warm = performance.now() + WARM_UP_MS;
  const byHand = async () => {
    const found: unknown[] = [];
    for (const sql of statements) found.push(await query(sql));
    return JSON.stringify(found);
  };
  while (performance.now() < warm) JSON.stringify([await byHand(), await ask(path)]);
  for (let round = 0; round < ROUNDS; round += 1) {
    // Turn about, so that both meet the same moods of the machine; the answer is text either way.
    await timed(byHand, bare);
    await timed(() => ask(path), served);
  }
  const ratio = median(served) / median(bare);
  return {
    name: `${name}, of ${MOVEMENTS.toLocaleString('en')} movements`,
    measured: `${ms(median(served))} over HTTP`,
    baseline: `${ms(median(bare))} for the bare SQL`,
    ratio: `ratio ${ratio.toFixed(2)}`,
    promise: `at most ${most}`,
    holds: ratio <= most,
  };
}
