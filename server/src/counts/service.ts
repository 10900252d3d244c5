import type { CountDetail, CountGroup } from '@yosegi/contract';
import { type Money, type Quantity, SCALE } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type Place, Posting, placeOf, postAdjustment } from '@yosegi/core/stock';
import type { Reader, Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { moneyOrNull, quantityFromZero } from '../http/amounts.ts';
import { type Doing, found as required, startOf } from '../http/context.ts';
import { containing } from '../http/pages.ts';
import { itemRow } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { ownCostsOf } from '../stock/costs.ts';
import { nextNumber, readStock, writeDocument } from '../stock/posting.ts';
import { clashesOf } from '../stock/serials.ts';
import { withNames } from '../stock/shortage.ts';
import { placeIn, standingOf } from '../stock/standing.ts';
import { lotFor } from '../stock/tracked.ts';
import { type CountLineRow, countRow, readCount } from './store.ts';

interface CountInput {
  readonly binIds: readonly number[];
  readonly q: string;
  readonly notSince: string | null;
  readonly group: CountGroup | null;
  readonly supplierId: number | null;
}

const IN_GROUP: Record<CountGroup, string> = {
  bought: "i.source <> 'made'",
  made: "i.source <> 'bought'",
  lot: "i.tracking = 'lot'",
  serial: "i.tracking = 'serial'",
};
const GROUP_NAMES: Record<CountGroup, string> = {
  bought: 'what is bought',
  made: 'what is made',
  lot: 'what is kept by lot',
  serial: 'what is kept by serial',
};

/** Begins a count: a line for everything that stands in the bins and fits. */
export async function beginCount(doing: Doing, input: CountInput): Promise<CountDetail> {
  const { tx, person } = doing;
  for (const [index, binId] of input.binIds.entries()) await requireShelf(tx, binId, `binIds.${index}`);
  const bins = JSON.stringify(input.binIds);
  const places = await tx.all<{ item_id: number; bin_id: number; lot_id: number | null }>(
    `SELECT b.item_id, b.bin_id, b.lot_id FROM balance b JOIN item i ON i.id = b.item_id
     WHERE b.build_id IS NULL AND b.bin_id IN (SELECT value FROM json_each($1))
       AND (i.code LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\')
       AND ($3 IS NULL OR NOT EXISTS (SELECT 1 FROM stock_count_line l JOIN stock_count c ON c.id = l.count_id
         WHERE l.item_id = b.item_id AND l.bin_id = b.bin_id AND l.lot_id IS b.lot_id AND c.state = 'approved'
           AND l.counted_at >= $3))
       AND ($4 = 0 OR EXISTS (SELECT 1 FROM item_supplier WHERE item_id = i.id AND supplier_id = $4))
       ${input.group ? `AND ${IN_GROUP[input.group]}` : ''}
     GROUP BY b.item_id, b.bin_id, b.lot_id HAVING sum(b.quantity) <> 0`,
    [bins, containing(input.q), input.notSince === null ? null : startOf(input.notSince), input.supplierId ?? 0],
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
async function scopeOf(db: Reader, input: CountInput): Promise<string> {
  const { binIds, q, notSince, group, supplierId } = input;
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
  const supplier = await db.one<{ name: string }>('SELECT name FROM supplier WHERE id = $1', [supplierId]);
  const parts = [
    places.join('; ').slice(0, 300),
    group && GROUP_NAMES[group],
    supplier && `what ${supplier.name} sells`,
    q && `“${q}”`,
    notSince && `not counted since ${notSince}`,
  ];
  return parts.filter(Boolean).join(' · ');
}

/** Takes what was counted, with what the books say at this very moment; null takes it back to be counted again. */
export async function countLine(
  doing: Doing,
  lineId: number,
  { counted, serials }: { counted: string | null; serials: readonly string[] },
): Promise<CountDetail> {
  const { tx, person, now } = doing;
  const line = required(await tx.one<CountLineRow>('SELECT * FROM stock_count_line WHERE id = $1', [lineId]));
  await requireOpen(tx, line.count_id);
  const item = required(await itemRow(tx, line.item_id));
  const there = await tx.one<{ quantity: number; booked: string }>(
    `SELECT ifnull(sum(quantity), 0) AS quantity, json_group_array(serial_id) AS booked FROM balance
     WHERE item_id = $1 AND bin_id = $2 AND lot_id IS $3 AND build_id IS NULL`,
    [line.item_id, line.bin_id, line.lot_id],
  );
  const bySerial = item.tracking === 'serial';
  if (bySerial) refuseSerialTwice(serials);
  const found = bySerial
    ? ((serials.length * SCALE) as Quantity)
    : quantityFromZero(counted ?? '0', item.decimals, 'counted');
  const newest = await tx.one<{ id: number }>('SELECT ifnull(max(id), 0) AS id FROM movement');
  const values =
    counted === null
      ? [null, null, null, null, null, null, null]
      : [
          found,
          there?.quantity ?? 0,
          now.toISOString(),
          person.id,
          bySerial ? JSON.stringify(serials) : null,
          bySerial ? (there?.booked ?? '[]') : null,
          newest?.id ?? 0,
        ];
  await tx.run(
    `UPDATE stock_count_line SET counted = $2, expected = $3, counted_at = $4, counted_by = $5, seen = $6, booked = $7,
       counted_after = $8, unit_cost = NULL WHERE id = $1`,
    [lineId, ...values],
  );
  doing.changed('stock');
  return readCount(tx, line.count_id);
}

/** Says what one of what was found on a line is worth. */
export async function countCost(doing: Doing, lineId: number, unitCost: string | null): Promise<CountDetail> {
  const { tx } = doing;
  const line = required(await tx.one<CountLineRow>('SELECT * FROM stock_count_line WHERE id = $1', [lineId]));
  await requireOpen(tx, line.count_id);
  if (line.counted === null) throw new Refusal('nothing-counted', {}, 'unitCost');
  await tx.run('UPDATE stock_count_line SET unit_cost = $2 WHERE id = $1', [lineId, moneyOrNull(unitCost, 'unitCost')]);
  doing.changed('stock');
  return readCount(tx, line.count_id);
}

/** Adds an item that was found in a bin where the books have none. */
export async function addCountLine(
  doing: Doing,
  countId: number,
  input: { itemId: number; binId: number; lot: string | null; bestBefore: string | null },
) {
  const { tx } = doing;
  await requireOpen(tx, countId);
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  await requireShelf(tx, input.binId, 'binId');
  const lotId = item.tracking === 'lot' ? await lotFor(doing, item, input, (name) => name) : null;
  await tx.run(
    'INSERT INTO stock_count_line (count_id, item_id, bin_id, lot_id) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING',
    [countId, input.itemId, input.binId, lotId],
  );
  doing.changed('stock');
  return readCount(tx, countId);
}

/**
 * Posts the differences of everything counted in one document. Each difference was taken at the moment of its counting,
 * so what has moved since is still right; lines that nobody counted are left as they are.
 * @throws Refusal `nothing-counted`; `cost-unknown` naming the line whose find nobody has put a worth on; `stock-short`
 * when what was missing has been taken since
 */
export async function approveCount(doing: Doing, id: number, version: number): Promise<CountDetail> {
  const { tx } = doing;
  const count = await requireOpen(tx, id);
  const lines = await tx.all<CountLineRow>(
    'SELECT * FROM stock_count_line WHERE count_id = $1 AND counted IS NOT NULL ORDER BY id',
    [id],
  );
  if (lines.length === 0) throw new Refusal('nothing-counted');
  const posting = new Posting(
    await readStock(
      tx,
      lines.map((line) => line.item_id),
    ),
  );
  for (const line of lines) {
    const place = { ...placeOf(line.item_id, line.bin_id), lotId: line.lot_id };
    const change = ((line.counted ?? 0) - (line.expected ?? 0)) as Quantity;
    const unitCost = line.unit_cost as Money | null;
    try {
      if (line.seen !== null) await postSeen(tx, posting, place, line);
      else if (change !== 0) postAdjustment(posting, { place, change, unitCost });
    } catch (error) {
      if (!(error instanceof Refusal) || error.code !== 'cost-unknown') throw error;
      const item = required(await itemRow(tx, line.item_id));
      throw new Refusal('cost-unknown', { name: item.name }, `sheet.${line.id}.unitCost`);
    }
  }
  const posted = await withNames(tx, () => posting.close());
  const remark = `${count.number}: ${count.scope}`;
  const documentId =
    posted.movements.length > 0 ? (await writeDocument(doing, { kind: 'count', remark }, posted)).id : null;
  const values = { state: 'approved', document_id: documentId };
  await updateVersioned(tx, 'stock_count', id, version, values, () => readCount(tx, id));
  doing.changed('stock', 'items');
  return readCount(tx, id);
}

/**
 * Posts what was seen of serials and differs from the books of that moment: those the books had here and nobody saw are
 * gone, those seen come here from where the books have them, or are found at their own cost. What has moved since the
 * counting is where it moved to, and is left alone.
 * @throws Refusal `serial-on-bench` for one that is booked on a bench
 */
async function postSeen(tx: Writer, posting: Posting, place: Place, line: CountLineRow): Promise<void> {
  const codes = JSON.parse(line.seen ?? '[]') as string[];
  const booked = new Set(JSON.parse(line.booked ?? '[]') as number[]);
  const ids = new Map((await clashesOf(tx, line.item_id, codes)).map((known) => [known.code.toLowerCase(), known.id]));
  const there = (await standingOf(tx, [line.item_id])).filter((row) => row.serial_id !== null);
  const moved = await movedSince(tx, [...booked, ...ids.values()], line);
  const own = await ownCostsOf(tx, [...ids.values()]);
  const seen = new Set<number>();
  for (const code of codes) {
    const id = ids.get(code.toLowerCase()) ?? (await tx.insert('serial', { item_id: line.item_id, code }));
    seen.add(id);
    if (booked.has(id) || moved.has(id)) continue;
    const now = there.find((row) => row.serial_id === id);
    const here = { ...place, serialId: id };
    if (now?.build) throw new Refusal('serial-on-bench', { code, build: now.build });
    const unitCost = (line.unit_cost as Money | null) ?? own.get(id) ?? null;
    if (now && now.bin_id !== place.binId) posting.move(placeIn(now), here, SCALE as Quantity);
    if (!now) postAdjustment(posting, { place: here, change: SCALE as Quantity, unitCost });
  }
  for (const id of booked) {
    const here = { ...place, serialId: id };
    if (!seen.has(id) && !moved.has(id) && posting.at(here) > 0)
      postAdjustment(posting, { place: here, change: -SCALE as Quantity, unitCost: null });
  }
}

/** Which of these serials have moved since a line was counted. */
async function movedSince(tx: Writer, serialIds: readonly number[], line: CountLineRow): Promise<Set<number>> {
  const rows = await tx.all<{ serial_id: number }>(
    `SELECT DISTINCT serial_id FROM movement
     WHERE serial_id IN (SELECT value FROM json_each($1)) AND id > $2 AND quantity <> 0`,
    [JSON.stringify(serialIds), line.counted_after ?? Number.MAX_SAFE_INTEGER],
  );
  return new Set(rows.map(({ serial_id }) => serial_id));
}

function refuseSerialTwice(codes: readonly string[]): void {
  const seen = new Set<string>();
  for (const code of codes) {
    if (seen.has(code.toLowerCase())) throw new Refusal('serial-twice', { code }, 'serials');
    seen.add(code.toLowerCase());
  }
}

export async function cancelCount(doing: Doing, id: number, version: number): Promise<CountDetail> {
  const { tx } = doing;
  await requireOpen(tx, id);
  await updateVersioned(tx, 'stock_count', id, version, { state: 'cancelled' }, () => readCount(tx, id));
  doing.changed('stock');
  return readCount(tx, id);
}

async function requireOpen(db: Reader, id: number) {
  const count = required(await countRow(db, id));
  if (count.state !== 'open') throw new Refusal('wrong-state', { is: count.state, must: 'open' });
  return count;
}
