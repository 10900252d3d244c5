import type { Item, ItemInput, ItemQuery } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { z } from 'zod';
import type { Reader, SqlRow, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { decimal, moneyFromZero, moneyOrNull, quantityFromZero } from '../http/amounts.ts';
import { type Doing, found } from '../http/context.ts';
import { containing, page } from '../http/pages.ts';
import { requireShelf } from '../places/store.ts';
import { ITEM_SQL, type ItemRow, itemRow, toItem } from './store.ts';

/** Items by code, found by any part of code or name. */
export async function listItems(db: Reader, query: z.output<typeof ItemQuery>) {
  const where = ['i.archived_at IS NULL', 'i.code > $1 COLLATE NOCASE'];
  const bind: (string | number)[] = [query.cursor ?? ''];
  const having: string[] = [];
  if (query.q) {
    bind.push(containing(query.q));
    where.push(`(i.code LIKE $${bind.length} ESCAPE '\\' OR i.name LIKE $${bind.length} ESCAPE '\\')`);
  }
  if (query.source) {
    bind.push(query.source);
    where.push(`i.source = $${bind.length}`);
  }
  if (query.show === 'in-stock') having.push('quantity <> 0');
  if (query.show === 'overdrawn') having.push('quantity - on_bench < promised');
  bind.push(query.limit + 1);
  const sql = `SELECT * FROM (${ITEM_SQL} WHERE ${where.join(' AND ')}) ${having.length ? `WHERE ${having.join(' AND ')}` : ''}
    ORDER BY code COLLATE NOCASE LIMIT $${bind.length}`;
  const rows = await db.all<ItemRow>(sql, bind);
  const { rows: shown, next } = page(rows, query.limit, (row) => row.code);
  return { rows: shown.map(toItem), next };
}

export async function createItem(doing: Doing, input: ItemInput): Promise<Item> {
  const { tx } = doing;
  await refuseTakenCode(tx, input.code, null);
  const id = await tx.insert('item', await columns(tx, input));
  doing.changed('items');
  return toItem(found(await itemRow(tx, id)));
}

export async function updateItem(doing: Doing, id: number, input: ItemInput & { version: number }): Promise<Item> {
  const { tx } = doing;
  const before = found(await itemRow(tx, id));
  await refuseTakenCode(tx, input.code, id);
  if (before.unit_id !== input.unitId && (await hasHistory(tx, id))) throw new Refusal('unit-in-use', {}, 'unitId');
  await updateVersioned(tx, 'item', id, input.version, await columns(tx, input), async () => toItem(before));
  doing.changed('items', 'stock');
  return toItem(found(await itemRow(tx, id)));
}

async function columns(tx: Writer, input: ItemInput): Promise<SqlRow> {
  const unit = await tx.one<{ decimals: number }>('SELECT decimals FROM unit WHERE id = $1', [input.unitId]);
  if (!unit) throw new Refusal('unknown-choice', {}, 'unitId');
  if (input.homeBinId !== null) await requireShelf(tx, input.homeBinId, 'homeBinId');
  return {
    code: input.code,
    name: input.name,
    unit_id: input.unitId,
    source: input.source,
    home_bin_id: input.homeBinId,
    sell_price: moneyOrNull(input.sellPrice, 'sellPrice'),
    reorder_point:
      input.reorderPoint === null ? null : quantityFromZero(input.reorderPoint, unit.decimals, 'reorderPoint'),
    standard_cost: moneyOrNull(input.standardCost, 'standardCost'),
    note: input.note,
  };
}

async function refuseTakenCode(tx: Writer, code: string, exceptId: number | null): Promise<void> {
  const other = await tx.one<{ id: number; name: string }>('SELECT id, name FROM item WHERE code = $1 COLLATE NOCASE', [
    code,
  ]);
  if (other && other.id !== exceptId) throw new Refusal('code-taken', { code, by: other.name, id: other.id }, 'code');
}

/** Adds a labour rate, per hour. */
export async function createRate(doing: Doing, input: { name: string; perHour: string }) {
  const taken = await doing.tx.one('SELECT 1 FROM rate WHERE name = $1', [input.name]);
  if (taken) throw new Refusal('code-taken', { code: input.name, by: 'another rate' }, 'name');
  const perHour = moneyFromZero(input.perHour, 'perHour');
  const id = await doing.tx.insert('rate', { name: input.name, per_hour: perHour });
  doing.changed('items');
  return { id, name: input.name, perHour: decimal(perHour) };
}

/** A unit may change only while nothing has been counted, defined or planned in it. */
const hasHistory = async (tx: Writer, id: number) =>
  (await tx.one(
    `SELECT 1 FROM movement WHERE item_id = $1 UNION ALL SELECT 1 FROM revision_line WHERE item_id = $1
     UNION ALL SELECT 1 FROM definition WHERE item_id = $1 LIMIT 1`,
    [id],
  )) !== undefined;
