import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { peg } from '@yosegi/core/demand';
import { Database } from '@yosegi/server/db/database';
import { ensureCompany, migrate } from '@yosegi/server/db/migrate';
import { readPicture } from '@yosegi/server/demand/sql';
import { median, ms, type Result } from './result.ts';

const [ITEMS, DEMANDS, SUPPLIES, LINES] = [20_000, 5_000, 2_000, 10];
const ROUNDS = 20;
const MOST = 100;
const TODAY = '2026-11-25';

/**
 * Who is served by what over a whole company, reading included, as every posting would have to tell it anew. The baseline
 * beside it sums the same rows by item in SQL and says nothing of turn or day.
 */
export async function peggingBench(): Promise<Result> {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-bench-'));
  const database = await Database.open(join(folder, 'pegging.sqlite'), { durable: false });
  await migrate(database);
  await ensureCompany(database, {
    name: 'Bench',
    currency: 'EUR',
    locale: 'en',
    people: [{ name: 'Owner', initials: 'OW', role: 'owner' }],
  });
  await fill(database);
  const { reader } = database;
  const [whole, alone, plain]: number[][] = [[], [], []];
  let [demands, supplies] = [0, 0];
  for (let round = 0; round < ROUNDS; round += 1) {
    const started = performance.now();
    const picture = await readPicture(reader, TODAY);
    const read = performance.now();
    peg(picture);
    const ended = performance.now();
    whole?.push(ended - started);
    alone?.push(ended - read);
    [demands, supplies] = [picture.demands.length, picture.supplies.length];
    const begun = performance.now();
    for (const table of ['demand', 'usable', 'coming'])
      await reader.all(`SELECT item_id, sum(quantity) FROM ${table} GROUP BY item_id`);
    plain?.push(performance.now() - begun);
  }
  await database.close();
  rmSync(folder, { recursive: true });
  const [all, core, sums] = [median(whole ?? []), median(alone ?? []), median(plain ?? [])];
  return {
    name: `pegging of ${demands} demands and ${supplies} supplies, shelves among them, over ${ITEMS} items`,
    measured: `${ms(all)} with reading, ${ms(core)} of it reckoning`,
    baseline: `${ms(sums)} for sums by item in SQL`,
    ratio: `ratio ${(all / sums).toFixed(2)}, ${(all / MOST).toFixed(2)} of ${MOST} ms`,
    promise: `under ${MOST} ms`,
    holds: all < MOST,
  };
}

function fill(database: Database): Promise<void> {
  const upTo = (n: number) => `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${n})`;
  return database.write(async (tx) => {
    await tx.run("INSERT INTO store (id, code, name) VALUES (1, 'S', 'Store'), (2, 'T', 'Other store')");
    await tx.run(
      `${upTo(40)} INSERT INTO bin (id, store_id, code, picking_order) SELECT i, 1 + i % 2, 'A' || i, i FROM n`,
    );
    await tx.run(`${upTo(ITEMS)} INSERT INTO item (id, code, name, unit_id, source, home_bin_id)
      SELECT i, printf('IT-%05d', i), 'Part number ' || i, 1, 'both', 1 + i % 40 FROM n`);
    await tx.run(`${upTo(ITEMS)} INSERT INTO balance (item_id, bin_id, quantity)
      SELECT i, 1 + i % 40, (i % 23 - 2) * 1000000 FROM n WHERE i % 23 <> 2`);
    await tx.run(`INSERT INTO item_stock (item_id, quantity, value, last_cost)
      SELECT item_id, sum(quantity), max(0, sum(quantity)), 1000000 FROM balance GROUP BY item_id`);
    await tx.run('INSERT INTO definition (id, item_id) VALUES (1, 1)');
    await tx.run(
      "INSERT INTO revision (id, definition_id, number, state, output_quantity) VALUES (1, 1, 1, 'in-use', 1000000)",
    );
    await tx.run(`${upTo(DEMANDS / LINES)} INSERT INTO build
        (id, number, item_id, revision_id, output_quantity, quantity, state, due, output_bin_id, planned_at, planned_by)
      SELECT i, printf('B-%04d', i), i, 1, 1000000, 5000000, iif(i % 4 = 0, 'on-bench', 'planned'),
        date('2026-12-01', '+' || (i % 60) || ' days'), 1, '2026-11-01', 1 FROM n`);
    await tx.run(`${upTo(DEMANDS)} INSERT INTO build_line (build_id, position, kind, item_id, basis, amount, taken, open)
      SELECT 1 + (i - 1) / ${LINES}, i % ${LINES}, 'part', 1 + i * 37 % ${ITEMS / 4}, 'per-output', 1000000, 'picked-first',
        (1 + i % 9) * 1000000 FROM n`);
    await tx.run("INSERT INTO supplier (id, code, name) VALUES (1, 'ONE', 'One')");
    await tx.run(`INSERT INTO purchase_order (id, number, supplier_id, state, made_at, made_by, sent_at)
      VALUES (1, 'PO-1', 1, 'sent', '2026-11-01', 1, '2026-11-01')`);
    await tx.run(`${upTo(SUPPLIES - DEMANDS / LINES)} INSERT INTO purchase_order_line (order_id, position, item_id, quantity, price, open, expected_on)
      SELECT 1, i, 1 + i * 37 % ${ITEMS / 4}, 9000000, 1, 9000000, date('2026-11-20', '+' || (i % 40) || ' days') FROM n`);
    await tx.run('ANALYZE');
  });
}
