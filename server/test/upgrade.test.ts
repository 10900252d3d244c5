import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { documentKinds } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Database, type SqlRow, type Writer } from '../src/db/database.ts';
import { migrate } from '../src/db/migrate.ts';
import { verifyDatabase } from '../src/db/verify.ts';
import { everyKind } from './every-kind.ts';
import { TestServer } from './harness.ts';

// A business with every kind of document, put into each earlier schema as far as that knew what it has, and brought up
// from there again.

const SCHEMAS = readdirSync('server/src/db/migrations').map((file) => file.replace('.sql', ''));
const FIRST_KINDS = ['opening', 'receipt', 'pick', 'put-back', 'finish', 'take-apart', 'undo'];

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
  await everyKind(server);
}, 60_000);
afterAll(() => server.close());

type Row = Record<string, string | number | null>;
const rowsOf = (table: string) => server.database.reader.all<Row>(`SELECT * FROM ${table}`);

/** What a schema before the ninth called the columns that say whom something is for. */
function inOlderWords(row: Row): Row {
  const { holder_id, for_id, line_id, ...rest } = row;
  return {
    ...rest,
    ...(holder_id === undefined ? {} : { build_id: holder_id }),
    ...(for_id === undefined ? {} : { build_id: for_id }),
    ...(line_id === undefined ? {} : { build_line_id: line_id }),
  };
}

// Counts are of a later word; the rest is reckoned below, or kept by triggers.
const KEPT_ANEW = ['balance', 'item_stock', 'stock_count', 'stock_count_line', 'numbered'];

async function fillOld(tx: Writer, from: Database): Promise<number[]> {
  await tx.run('PRAGMA defer_foreign_keys = ON');
  const tables = await tx.all<{ name: string }>(
    "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT IN ('migrations', 'sqlite_sequence')",
  );
  const has = new Set(tables.map(({ name }) => name));
  const kinds = new Set(
    has.has('document_kind')
      ? (await tx.all<{ code: string }>('SELECT code FROM document_kind')).map(({ code }) => code)
      : FIRST_KINDS,
  );
  // Before there were parcels, nothing was picked for an order.
  const hasParcels = has.has('parcel');
  const documents = (await rowsOf('document')).filter(
    ({ kind, for_kind }) => kinds.has(String(kind)) && (kind !== 'pick' || for_kind !== 'order' || hasParcels),
  );
  const known = new Set(documents.map(({ id }) => id));
  const movements = (await rowsOf('movement')).filter((row) => known.has(row.document_id ?? 0));
  // What is packed and shipped for an order is of what nothing else is about: without it the books agree just as well.
  const left = (await rowsOf('document')).filter(({ id }) => !known.has(id));
  const whole = left.every(({ for_kind }) => for_kind === 'order' || for_kind === 'return');
  const isNinth = has.has('holder_kind');
  const seeded = ['unit', 'unit_related', 'reason', 'document_kind', 'value_kind', 'holder_kind'];
  for (const { name } of tables) {
    if (seeded.includes(name) || KEPT_ANEW.includes(name)) continue;
    if (!(await from.reader.one("SELECT 1 AS one FROM sqlite_schema WHERE type = 'table' AND name = $1", [name])))
      continue;
    const columns = new Set(
      (await tx.all<{ name: string }>(`SELECT name FROM pragma_table_info('${name}')`)).map((c) => c.name),
    );
    const rows = name === 'document' ? documents : name === 'movement' ? movements : await rowsOf(name);
    for (const row of rows) {
      // The bin where returns wait was made with the first of them.
      if (name === 'bin' && row.code === 'Returns' && !has.has('goods_return')) continue;
      if ('document_id' in row && row.document_id !== null && !known.has(row.document_id ?? 0)) continue;
      // Of what is named in the ninth schema's own words there may be others in the row, like a finish's own build.
      const asIs = isNinth || name === 'purchase_need' || name === 'finish' || name === 'finish_line';
      const old = asIs ? row : inOlderWords(row);
      // The picking order of bins was called so in the last schema only.
      const named = name === 'bin' ? { ...old, walk_order: row.picking_order ?? null } : old;
      const kept = Object.entries(named).filter(([column]) => columns.has(column));
      await tx.driver.insertMany(name, [Object.fromEntries(kept) as SqlRow]);
    }
  }
  const sums = new Map<string, SqlRow & { quantity: number }>();
  const items = new Map<number, { quantity: number; value: number }>();
  const returned = new Map<number, { returned_quantity: number; returned_value: number }>();
  const isApart = (await tx.all<{ name: string }>("SELECT name FROM pragma_table_info('item_stock')")).some(
    ({ name }) => name === 'returned_value',
  );
  for (const row of movements) {
    const at = (column: string) => row[column] ?? null;
    const { item_id, quantity, value } = row;
    const holder: SqlRow = isNinth
      ? { holder_kind: at('holder_kind'), holder_id: at('holder_id') }
      : { build_id: at('holder_id') };
    const spot: SqlRow = {
      item_id: at('item_id'),
      bin_id: at('bin_id'),
      lot_id: at('lot_id'),
      serial_id: at('serial_id'),
      ...holder,
    };
    const key = JSON.stringify(spot);
    sums.set(key, { ...spot, quantity: (sums.get(key)?.quantity ?? 0) + Number(quantity) });
    if (isApart && row.holder_kind === 'return') {
      const own = returned.get(Number(item_id)) ?? { returned_quantity: 0, returned_value: 0 };
      returned.set(Number(item_id), {
        returned_quantity: own.returned_quantity + Number(quantity),
        returned_value: own.returned_value + Number(value),
      });
      continue;
    }
    const item = items.get(Number(item_id)) ?? { quantity: 0, value: 0 };
    items.set(Number(item_id), { quantity: item.quantity + Number(quantity), value: item.value + Number(value) });
  }
  for (const row of sums.values()) if (row.quantity !== 0) await tx.driver.insert('balance', row);
  for (const [item_id, item] of items)
    await tx.driver.insert('item_stock', { item_id, ...item, last_cost: 1e6, ...returned.get(item_id) });
  return whole ? [...known].map(Number) : [];
}

describe('an upgrade', () => {
  it('is tried with every kind of document', async () => {
    const kinds = await server.database.reader.all<{ kind: string }>('SELECT DISTINCT kind FROM document');
    expect(kinds.map(({ kind }) => kind).sort()).toEqual(Object.keys(documentKinds).sort());
    expect(await server.verify()).toEqual([]);
  });

  it.each(SCHEMAS.slice(0, -1))('from %s keeps every movement, value and balance', async (schema) => {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
    const database = await Database.open(join(folder, 'old.sqlite'), { durable: false });
    await migrate(database, schema);
    const whole = await database.write((tx) => fillOld(tx, server.database));
    await migrate(database);
    const moved = 'SELECT * FROM movement WHERE document_id IN (SELECT id FROM document) ORDER BY id';
    const kept = await database.reader.all<Row>(moved);
    const known = new Set((await database.reader.all<{ id: number }>('SELECT id FROM document')).map(({ id }) => id));
    const was = (await rowsOf('movement')).filter(({ document_id }) => known.has(Number(document_id)));
    expect(kept).toEqual(was);
    expect(known.size).toBeGreaterThan(8);
    for (const table of ['document', 'document_value']) {
      const own = table === 'document' ? 'id' : 'document_id';
      const before = (await rowsOf(table)).filter((row) => known.has(Number(row[own])));
      const { reason_id: _, ...first } = before[0] ?? {};
      const after = await database.reader.all<Row>(`SELECT * FROM ${table} ORDER BY id`);
      expect(after.length).toBe(before.length);
      expect(after[0]).toMatchObject(first);
    }
    const holders = 'SELECT DISTINCT holder_kind FROM movement WHERE holder_id IS NOT NULL ORDER BY 1';
    const kinds = ['build', ...(schema < '0011' ? [] : ['parcel']), ...(schema < '0021' ? [] : ['return'])];
    expect((await database.reader.all<Row>(holders)).map((row) => row.holder_kind)).toEqual(kinds);
    // Where the schema knew everything, the books agree as they did; else what stands and what moved still do.
    const drifts = (await verifyDatabase(database.reader)).map(({ check }) => check);
    if (whole.length > 0 && schema >= '0008') expect(drifts).toEqual([]);
    for (const check of [
      'balances by place equal the ledger',
      'quantity and value by item equal the ledger',
      'references are whole',
    ])
      expect(drifts).not.toContain(check);
    await database.close();
    rmSync(folder, { recursive: true });
  });

  it('parts what returns are worth from the shelf, where some of it went back at the average', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
    const database = await Database.open(join(folder, 'old.sqlite'), { durable: false });
    await migrate(database, '0022-worth-of-returns');
    await database.write((tx) => fillOld(tx, server.database));
    await database.maintain(async ({ script }) => {
      await script('DROP TRIGGER movement_is_final_update');
      const arrived =
        "SELECT m.id FROM movement m JOIN document d ON d.id = m.document_id WHERE d.kind = 'return' LIMIT 1";
      await script(`INSERT INTO document (id, number, kind, at, person_id) VALUES (9000, 'X-1', 'return-settled', '2026-11-23', 1);
        INSERT INTO movement (document_id, item_id, bin_id, holder_kind, holder_id, quantity, value)
        SELECT 9000, item_id, bin_id, iif(side < 0, 'return', NULL), iif(side < 0, holder_id, NULL), 0, side * 700000
        FROM movement, (SELECT -1 AS side UNION ALL SELECT 1) WHERE id = (${arrived})`);
    });
    await migrate(database);
    expect((await verifyDatabase(database.reader)).map(({ check }) => check)).toEqual([]);
    const parted = await database.reader.all<Row>(
      "SELECT m.value FROM movement m JOIN document d ON d.id = m.document_id WHERE d.number = 'RV-RETURNS' ORDER BY value",
    );
    expect(parted).toEqual([{ value: -700000 }, { value: 700000 }].map(({ value }) => ({ value })));
    await database.close();
    rmSync(folder, { recursive: true });
  });
});
