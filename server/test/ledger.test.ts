import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { api } from '@yosegi/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Database, type SqlRow } from '../src/db/database.ts';
import { migrate } from '../src/db/migrate.ts';
import { verifyDatabase } from '../src/db/verify.ts';
import { TestServer, Workshop } from './harness.ts';

describe('the ledger', () => {
  let server: TestServer;
  let shop: Workshop;
  beforeAll(async () => {
    server = await TestServer.start();
    shop = await Workshop.open(server);
    await shop.receive(await shop.item('PART'), '5', '2');
  });
  afterAll(() => server.close());

  it.each(['movement', 'document', 'document_value'])('refuses UPDATE and DELETE of %s', async (table) => {
    for (const sql of [`UPDATE ${table} SET id = id`, `DELETE FROM ${table}`]) {
      await expect(server.database.write((tx) => tx.run(sql))).rejects.toThrow('append-only');
    }
  });

  it('is durable: write-ahead log, full synchronisation, foreign keys on the writer', async () => {
    const pragmas = await server.database.write(async (tx) => [
      await tx.one('PRAGMA journal_mode'),
      await tx.one('PRAGMA synchronous'),
      await tx.one('PRAGMA foreign_keys'),
    ]);
    expect(pragmas).toEqual([{ journal_mode: 'wal' }, { synchronous: 2 }, { foreign_keys: 1 }]);
  });

  it('a statement that cannot be prepared says why, each time, and harms no other', async () => {
    for (let n = 0; n < 2; n += 1)
      await expect(server.database.reader.all('SELECT one FROM nowhere')).rejects.toThrow('no such table: nowhere');
    expect(await server.database.reader.one('SELECT 1 AS one')).toEqual({ one: 1 });
  });

  it('a failing command leaves no trace, and the next one goes on', async () => {
    await expect(
      server.database.write(async (tx) => {
        await tx.driver.insert('store', { code: 'GHOST', name: 'Ghost' });
        throw new Error('half-way');
      }),
    ).rejects.toThrow('half-way');
    expect(await server.database.reader.one("SELECT 1 FROM store WHERE code = 'GHOST'")).toBeUndefined();
    expect(await server.call(api.stores, {})).toHaveLength(1);
  });
});

describe('migrations', () => {
  it('bring an empty file to the newest schema, once', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
    const database = await Database.open(join(folder, 'new.sqlite'));
    const first = await migrate(database);
    expect(await migrate(database)).toBe(first);
    const files = readdirSync('server/src/db/migrations').map((file) => ({ name: file.replace('.sql', '') }));
    expect(await database.reader.all('SELECT name FROM migrations')).toEqual(
      files.sort((a, b) => a.name.localeCompare(b.name)),
    );
    expect(first).toBe(files.at(-1)?.name);
    expect(await verifyDatabase(database.reader)).toEqual([]);
    await database.close();
    rmSync(folder, { recursive: true });
  });
});

describe('upgrades', () => {
  it('from the first schema keep everything there was', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
    const database = await Database.open(join(folder, 'old.sqlite'));
    expect(await migrate(database, '0001-first')).toBe('0001-first');
    await database.write(async (tx) => {
      await tx.driver.insert('person', { name: 'Mo', initials: 'MO', role: 'owner' });
      for (const code of ['KIT', 'PART'])
        await tx.driver.insert('item', { code, name: code, unit_id: 2, source: 'both' });
      await tx.driver.insert('item_field', { item_id: 1, name: 'Warranty months', value: '24' });
      await tx.driver.insert('definition', { item_id: 1 });
      await tx.driver.insert('revision', { definition_id: 1, number: 1, state: 'in-use', output_quantity: 1e6 });
      const line = { revision_id: 1, position: 0, kind: 'part', item_id: 2, amount: 250_000, taken: 'picked-first' };
      await tx.driver.insert('revision_line', line);
      await tx.driver.insert('store', { code: 'S', name: 'Store' });
      await tx.driver.insert('bin', { store_id: 1, code: 'A' });
      const document = { number: 'RC-0001', kind: 'receipt', at: '2026-01-02T08:00:00.000Z', person_id: 1 };
      await tx.driver.insert('document', document);
      await tx.driver.insert('document', { ...document, number: 'UN-0001', kind: 'undo', reverses_id: 1 });
      for (const [document_id, sign] of [
        [1, 1],
        [2, -1],
      ] as const) {
        const movement = { document_id, item_id: 2, bin_id: 1, quantity: sign * 5e6, value: sign * 10e6 };
        await tx.driver.insert('movement', movement);
        await tx.driver.insert('document_value', { document_id, kind: 'supplier', amount: sign * 10e6, item_id: 2 });
      }
    });
    await migrate(database);
    const { reader } = database;
    expect(await reader.one('SELECT * FROM item_field')).toEqual({ item_id: 1, name: 'Warranty months', value: '24' });
    expect(await reader.one('SELECT amount FROM revision_line')).toEqual({ amount: 250_000 });
    const behaviour = 'SELECT made, swap_for, price_from, discount, version FROM definition';
    expect(await reader.one(behaviour)).toEqual({
      made: 'ahead',
      swap_for: 'listed',
      price_from: 'own',
      discount: 0,
      version: 0,
    });
    const grams =
      "SELECT r.one FROM unit_related r JOIN unit u ON u.id = r.unit_id WHERE u.code = 'kg' AND r.name = 'G'";
    expect(await reader.one(grams)).toEqual({ one: 1000 });
    const documents = 'SELECT number, kind, reverses_id FROM document ORDER BY id';
    expect(await reader.all(documents)).toEqual([
      { number: 'RC-0001', kind: 'receipt', reverses_id: null },
      { number: 'UN-0001', kind: 'undo', reverses_id: 1 },
    ]);
    expect(await reader.one('SELECT sum(amount) AS sum, count(*) AS n FROM document_value')).toEqual({ sum: 0, n: 2 });
    await expect(database.write((tx) => tx.run('DELETE FROM document'))).rejects.toThrow('append-only');
    await expect(
      database.write((tx) =>
        tx.driver.insert('movement', { document_id: 99, item_id: 2, bin_id: 1, quantity: 1, value: 0 }),
      ),
    ).rejects.toThrow('FOREIGN KEY');
    expect(await verifyDatabase(reader)).toEqual([]);
    await database.close();
    rmSync(folder, { recursive: true });
  });
});

describe('an upgrade to buying', () => {
  it('finds what was received before, so that its price can still be put right', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'yosegi-'));
    const file = join(folder, 'yosegi.sqlite');
    const database = await Database.open(file);
    await migrate(database, '0005-tracking');
    await database.write(async (tx) => {
      const company = { id: 1, name: 'Old', currency: 'EUR', locale: 'en', cookie_secret: 'x'.repeat(40) };
      await tx.driver.insert('company', company);
      await tx.driver.insert('person', { name: 'Mo', initials: 'MO', role: 'owner' });
      await tx.driver.insert('store', { code: 'S', name: 'Store' });
      for (const code of ['A', 'B']) await tx.driver.insert('bin', { store_id: 1, code });
      for (const tracking of ['none', 'lot', 'serial'])
        await tx.driver.insert('item', { code: tracking, name: tracking, unit_id: 1, source: 'bought', tracking });
      await tx.driver.insert('lot', { item_id: 2, code: 'L' });
      for (const code of ['S1', 'S2']) await tx.driver.insert('serial', { item_id: 3, code, value: 30e6 });
      const at = '2026-01-02T08:00:00.000Z';
      await tx.driver.insert('document', { number: 'RC-0001', kind: 'receipt', at, person_id: 1 });
      const came: SqlRow[] = [
        { item_id: 1, bin_id: 1, quantity: 4e6, value: 8e6 },
        { item_id: 2, bin_id: 1, lot_id: 1, quantity: 3e6, value: 9e6 },
        { item_id: 3, bin_id: 2, serial_id: 1, quantity: 1e6, value: 30e6 },
        { item_id: 3, bin_id: 2, serial_id: 2, quantity: 1e6, value: 30e6 },
      ];
      for (const row of came) {
        await tx.driver.insert('movement', { document_id: 1, ...row });
        const { value: _, ...place } = row;
        await tx.driver.insert('balance', place);
      }
      await tx.driver.insert('document_value', { document_id: 1, kind: 'supplier', amount: 77e6 });
      for (const [item_id, quantity, value] of [
        [1, 4e6, 8e6],
        [2, 3e6, 9e6],
        [3, 2e6, 60e6],
      ] as const)
        await tx.driver.insert('item_stock', { item_id, quantity, value, last_cost: value / (quantity / 1e6) });
    });
    await database.close();
    const server = await TestServer.start(folder);
    const prices = await server.call(api.receiptPrices, { params: { id: 1 } });
    expect(
      prices.lines.map(({ code, piece, quantity, unitCost, here }) => [code, piece, quantity, unitCost, here]),
    ).toEqual([
      ['none', null, '4', '2', '4'],
      ['lot', 'L', '3', '3', '3'],
      ['serial', 'S1, S2', '2', '30', '2'],
    ]);
    const lines = prices.lines.map(({ lineId }) => ({ lineId, unitCost: '5' }));
    await server.posted(api.postPrices, { params: { id: 1 }, body: { lines } });
    expect(await server.verify()).toEqual([]);
    await server.close();
  });
});
