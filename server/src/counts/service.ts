import type { CountDetail } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, placeOf, postAdjustment } from '@yosegi/core/stock';
import type { Reader } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { quantityFromZero } from '../http/amounts.ts';
import { type Doing, found, startOf } from '../http/context.ts';
import { containing } from '../http/pages.ts';
import { itemRow } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { nextNumber, readStock, writeDocument } from '../stock/posting.ts';
import { withNames } from '../stock/shortage.ts';
import { type CountLineRow, countRow, readCount } from './store.ts';

interface CountInput {
  readonly binIds: readonly number[];
  readonly q: string;
  readonly notSince: string | null;
}

/** Begins a count: a line for everything that stands in the bins and fits. */
export async function beginCount(doing: Doing, input: CountInput): Promise<CountDetail> {
  const { tx, person } = doing;
  for (const [index, binId] of input.binIds.entries()) await requireShelf(tx, binId, `binIds.${index}`);
  const bins = JSON.stringify(input.binIds);
  const places = await tx.all<{ item_id: number; bin_id: number }>(
    `SELECT b.item_id, b.bin_id FROM balance b JOIN item i ON i.id = b.item_id
     WHERE b.build_id IS NULL AND b.bin_id IN (SELECT value FROM json_each($1))
       AND (i.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\')
       AND ($3 IS NULL OR NOT EXISTS (SELECT 1 FROM stock_count_line l JOIN stock_count c ON c.id = l.count_id
         WHERE l.item_id = b.item_id AND l.bin_id = b.bin_id AND c.state = 'approved' AND l.counted_at >= $3))
     GROUP BY b.item_id, b.bin_id HAVING sum(b.quantity) <> 0`,
    [bins, containing(input.q), input.notSince === null ? null : startOf(input.notSince)],
  );
  if (places.length === 0) throw new Refusal('nothing-to-count', {}, 'binIds');
  const id = await tx.insert('stock_count', {
    number: await nextNumber(tx, 'CT'),
    scope: await scopeOf(tx, input),
    state: 'open',
    begun_at: doing.now.toISOString(),
    begun_by: person.id,
  });
  await tx.insertMany(
    'stock_count_line',
    places.map((place) => ({ count_id: id, ...place })),
  );
  doing.changed('stock');
  return readCount(tx, id);
}

/** What a count is of, in a few words. */
async function scopeOf(db: Reader, { binIds, q, notSince }: CountInput): Promise<string> {
  const bins = await db.all<{ code: string; store: string; all_of: number }>(
    `SELECT b.code, s.name AS store, (SELECT count(*) FROM bin WHERE store_id = s.id AND kind = 'shelf') AS all_of
     FROM bin b JOIN store s ON s.id = b.store_id WHERE b.id IN (SELECT value FROM json_each($1)) ORDER BY s.id, b.walk_order`,
    [JSON.stringify(binIds)],
  );
  const byStore = new Map<string, typeof bins>();
  for (const bin of bins) byStore.set(bin.store, [...(byStore.get(bin.store) ?? []), bin]);
  const places = [...byStore].map(([store, own]) =>
    own.length === own[0]?.all_of ? store : `${store} ${own.map((bin) => bin.code).join(', ')}`,
  );
  return [places.join('; ').slice(0, 300), q && `“${q}”`, notSince && `not counted since ${notSince}`]
    .filter(Boolean)
    .join(' · ');
}

/** Takes what was counted, with what the books say at this very moment; null takes it back to be counted again. */
export async function countLine(doing: Doing, lineId: number, counted: string | null): Promise<CountDetail> {
  const { tx, person, now } = doing;
  const line = found(await tx.one<CountLineRow>('SELECT * FROM stock_count_line WHERE id = $1', [lineId]));
  await requireOpen(tx, line.count_id);
  const item = found(await itemRow(tx, line.item_id));
  const there = await tx.one<{ quantity: number }>(
    'SELECT ifnull(sum(quantity), 0) AS quantity FROM balance WHERE item_id = $1 AND bin_id = $2 AND build_id IS NULL',
    [line.item_id, line.bin_id],
  );
  const values =
    counted === null
      ? [null, null, null, null]
      : [quantityFromZero(counted, item.decimals, 'counted'), there?.quantity ?? 0, now.toISOString(), person.id];
  await tx.run(
    'UPDATE stock_count_line SET counted = $2, expected = $3, counted_at = $4, counted_by = $5 WHERE id = $1',
    [lineId, ...values],
  );
  doing.changed('stock');
  return readCount(tx, line.count_id);
}

/** Adds an item that was found in a bin where the books have none. */
export async function addCountLine(doing: Doing, countId: number, input: { itemId: number; binId: number }) {
  const { tx } = doing;
  await requireOpen(tx, countId);
  if (!(await itemRow(tx, input.itemId))) throw new Refusal('unknown-item', {}, 'itemId');
  await requireShelf(tx, input.binId, 'binId');
  await tx.run('INSERT INTO stock_count_line (count_id, item_id, bin_id) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
    countId,
    input.itemId,
    input.binId,
  ]);
  doing.changed('stock');
  return readCount(tx, countId);
}

/**
 * Posts the differences of everything counted in one document. Each difference was taken at the moment of its counting,
 * so what has moved since is still right; lines that nobody counted are left as they are.
 * @throws Refusal `nothing-counted`, or `stock-short` when what was missing has been taken since
 */
export async function approveCount(doing: Doing, id: number, version: number): Promise<CountDetail> {
  const { tx } = doing;
  const count = await requireOpen(tx, id);
  const lines = await tx.all<CountLineRow>(
    'SELECT * FROM stock_count_line WHERE count_id = $1 AND counted IS NOT NULL ORDER BY id',
    [id],
  );
  if (lines.length === 0) throw new Refusal('nothing-counted');
  const changes = lines.flatMap(({ item_id, bin_id, counted, expected }) => {
    const change = (counted ?? 0) - (expected ?? 0);
    return change === 0 ? [] : [{ place: placeOf(item_id, bin_id), change: change as Quantity, unitCost: null }];
  });
  let documentId: number | null = null;
  if (changes.length > 0) {
    const itemIds = changes.map(({ place }) => place.itemId);
    const posting = new Posting(await readStock(tx, itemIds));
    for (const change of changes) postAdjustment(posting, change);
    const remark = `${count.number}: ${count.scope}`;
    const posted = await withNames(tx, () => posting.close());
    documentId = (await writeDocument(doing, { kind: 'count', remark }, posted)).id;
  }
  const values = { state: 'approved', document_id: documentId };
  await updateVersioned(tx, 'stock_count', id, version, values, () => readCount(tx, id));
  doing.changed('stock', 'items');
  return readCount(tx, id);
}

export async function cancelCount(doing: Doing, id: number, version: number): Promise<CountDetail> {
  const { tx } = doing;
  await requireOpen(tx, id);
  await updateVersioned(tx, 'stock_count', id, version, { state: 'cancelled' }, () => readCount(tx, id));
  doing.changed('stock');
  return readCount(tx, id);
}

async function requireOpen(db: Reader, id: number) {
  const count = found(await countRow(db, id));
  if (count.state !== 'open') throw new Refusal('wrong-state', { is: count.state, must: 'open' });
  return count;
}
