import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Database } from '@yosegi/server/db/database';
import { verifyDatabase } from '@yosegi/server/db/verify';
import { expect, it } from 'vitest';
import { demoOnce } from './once.ts';

it('makes a whole business whose books add up, ending today', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-demo-'));
  const file = join(folder, 'demo.sqlite');
  copyFileSync(await demoOnce(), file);
  const { reader, ...database } = await openDemo(file);
  const one = async (sql: string) => Object.values((await reader.one<Record<string, number>>(sql)) ?? {})[0];
  expect(await verifyDatabase(reader)).toEqual([]);
  expect(await one('SELECT count(*) FROM item')).toBeGreaterThanOrEqual(70);
  expect(await one('SELECT count(*) FROM definition')).toBeGreaterThanOrEqual(30);
  expect(await one('SELECT count(*) FROM customer')).toBeGreaterThanOrEqual(15);
  expect(await one("SELECT count(*) FROM revision WHERE state = 'in-use'")).toBeGreaterThanOrEqual(10);
  expect(await one('SELECT count(*) FROM store')).toBe(3);
  expect(await one("SELECT count(*) FROM document WHERE kind = 'undo'")).toBeGreaterThan(0);
  expect(await one('SELECT count(*) FROM put_right WHERE settled_at IS NULL')).toBe(1);
  const richest = `SELECT count(DISTINCT l.kind) + count(DISTINCT i.unit_id) FROM revision_line l LEFT JOIN item i ON i.id = l.item_id
    GROUP BY l.revision_id ORDER BY 1 DESC LIMIT 1`;
  expect(await one(richest)).toBe(4 + 5);
  expect(await one('SELECT count(DISTINCT state) FROM sales_order')).toBe(3);
  expect(await one('SELECT count(*) FROM shipment')).toBeGreaterThan(60);
  expect(
    await one(
      'SELECT count(*) FROM parcel WHERE shipped_id IS NULL AND EXISTS (SELECT 1 FROM balance WHERE holder_id = parcel.id)',
    ),
  ).toBeGreaterThan(0);
  expect(await one("SELECT count(*) FROM sales_order WHERE came_by = 'message'")).toBe(1);
  expect(await one('SELECT count(*) FROM built_for')).toBeGreaterThan(0);
  expect(await one('SELECT count(*) FROM order_part WHERE item_id <> base_item_id AND open > 0')).toBeGreaterThan(0);
  for (const state of ['document_id IS NULL AND called_off IS NULL', 'called_off IS NOT NULL'])
    expect(await one(`SELECT count(*) FROM goods_return WHERE ${state}`)).toBe(1);
  expect(await one('SELECT count(DISTINCT return_id) FROM return_standing WHERE quantity > settled')).toBe(3);
  expect(await one('SELECT count(DISTINCT return_id) FROM return_standing WHERE quantity = settled')).toBeGreaterThan(
    2,
  );
  expect(await one("SELECT count(*) FROM return_outcome WHERE outcome = 'not-ours'")).toBe(1);
  expect(await one("SELECT count(*) FROM lot WHERE attributes <> '{}'")).toBeGreaterThan(0);
  expect(await one('SELECT count(*) FROM pick_run_pick')).toBeGreaterThan(0);
  const months = 'SELECT julianday(max(at)) - julianday(min(at)) FROM document';
  expect(await one(months)).toBeGreaterThan(400);
  // The run of tests may go past midnight after it was made.
  expect(await one("SELECT julianday('now') - julianday(max(at)) FROM document")).toBeLessThan(1);
  await database.close();
  rmSync(folder, { recursive: true });
});

async function openDemo(file: string) {
  const database = await Database.open(file);
  return { reader: database.reader, close: () => database.close() };
}
