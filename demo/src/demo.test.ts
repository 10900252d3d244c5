import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Database } from '@yosegi/server/db/database';
import { verifyDatabase } from '@yosegi/server/db/verify';
import { expect, it } from 'vitest';
import { makeDemo } from './make.ts';

it('makes a whole business whose books add up, ending today', { timeout: 120_000 }, async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yosegi-demo-'));
  const file = join(folder, 'demo.sqlite');
  await makeDemo(file, new Date('2026-11-23T09:00:00'));
  const { reader, ...database } = await openDemo(file);
  const one = async (sql: string) => Object.values((await reader.one<Record<string, number>>(sql)) ?? {})[0];
  expect(await verifyDatabase(reader)).toEqual([]);
  expect(await one('SELECT count(*) FROM item')).toBeGreaterThanOrEqual(30);
  expect(await one("SELECT count(*) FROM revision WHERE state = 'in-use'")).toBeGreaterThanOrEqual(10);
  expect(await one('SELECT count(*) FROM store')).toBe(3);
  expect(await one("SELECT count(*) FROM document WHERE kind = 'undo'")).toBeGreaterThan(0);
  expect(await one('SELECT count(*) FROM put_right WHERE settled_at IS NULL')).toBe(1);
  const richest = `SELECT count(DISTINCT l.kind) + count(DISTINCT i.unit_id) FROM revision_line l LEFT JOIN item i ON i.id = l.item_id
    GROUP BY l.revision_id ORDER BY 1 DESC LIMIT 1`;
  expect(await one(richest)).toBe(4 + 5);
  expect(await one('SELECT count(DISTINCT state) FROM sales_order')).toBe(3);
  expect(await one('SELECT count(*) FROM shipment')).toBe(3);
  const months = 'SELECT julianday(max(at)) - julianday(min(at)) FROM document';
  expect(await one(months)).toBeGreaterThan(150);
  await database.close();
  rmSync(folder, { recursive: true });
});

async function openDemo(file: string) {
  const database = await Database.open(file);
  return { reader: database.reader, close: () => database.close() };
}
