import type { CountGroup, Numbered } from '@yosegi/contract';
import { Posting, postAdjustment, type Spot, spotOf } from '@yosegi/core/ledger';
import { countedIn, type Money, negated, ONE, pieces, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Op } from 'sequelize';
import { type BodyOf, type Doing, required as recordOf, found as required } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { type ItemRow, itemRow } from '../items/index.ts';
import { balancesOf, nextNumber, ownCostsOf, readStock, spotIn, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { clashesOf, lotFor } from '../tracking/index.ts';
import {
  binsByName,
  bookedAt,
  type CountInput,
  countedSince,
  movedSince,
  newestMovement,
  spotsToCount,
} from './booked.sql.ts';
import { type CountLineRow, countRow, readCount } from './sql.ts';
import { settleCounted } from './wishes.sql.ts';

const GROUP_NAMES: Record<CountGroup, string> = {
  bought: 'bought items',
  made: 'made items',
  lot: 'items tracked by lot',
  serial: 'items tracked by serial number',
};

/** Begins a count: a line for everything that stands in the bins and fits. */
export async function beginCount(doing: Doing, input: CountInput): Promise<Numbered> {
  const { tx, person } = doing;
  for (const [index, binId] of input.binIds.entries()) await requireShelf(tx, binId, `binIds.${index}`);
  const spots = await spotsToCount(tx, input);
  if (spots.length === 0) throw new Refusal('nothing-to-count', {}, 'binIds');
  const id = await tx.insert('stock_count', {
    number: await nextNumber(tx, 'CT'),
    scope: await scopeOf(tx, input),
    state: 'open',
    begun_at: doing.now.toISOString(),
    begun_by: person.id,
  });
  await tx.insertMany(
    'stock_count_line',
    spots.map((spot) => ({ count_id: id, ...spot })),
  );
  doing.changed('stock');
  return numbered(tx, 'stock_count', id);
}

/** What a count is of, in a few words. */
async function scopeOf(db: Reader, input: CountInput): Promise<string> {
  const { binIds, q, notSince, group, supplierId } = input;
  if (input.wishes) return 'bins where less was found';
  const bins = await binsByName(db, binIds);
  const byStore = new Map<string, typeof bins>();
  for (const bin of bins) byStore.set(bin.store, [...(byStore.get(bin.store) ?? []), bin]);
  const spots = [...byStore].map(([store, own]) =>
    own.length === own[0]?.all_of ? store : `${store} ${own.map((bin) => bin.code).join(', ')}`,
  );
  const supplier = supplierId === null ? null : await db.models.supplier.findByPk(supplierId);
  const parts = [
    spots.join('; ').slice(0, 300),
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
  { counted, serials }: BodyOf<'countLine'>,
): Promise<Numbered> {
  const { tx, person, now } = doing;
  const line = recordOf(await tx.models.stock_count_line.findByPk(lineId));
  await requireOpen(tx, line.count_id);
  const item = required(await itemRow(tx, line.item_id));
  const there = await bookedAt(tx, line);
  const bySerial = item.tracking === 'serial';
  if (bySerial) await refuseSeen(tx, item, serials);
  const found = bySerial ? pieces(serials.length) : countedIn(counted ?? ZERO, item.decimals, 'counted');
  const nothing = { counted: null, expected: null, counted_at: null, counted_by: null, seen: null, booked: null };
  const values = {
    counted: found,
    expected: there?.quantity ?? ZERO,
    counted_at: now.toISOString(),
    counted_by: person.id,
    seen: bySerial ? JSON.stringify(serials) : null,
    booked: bySerial ? (there?.booked ?? '[]') : null,
    counted_after: await newestMovement(tx),
  };
  await line.update({ ...(counted === null ? { ...nothing, counted_after: null } : values), unit_cost: null });
  doing.changed('stock');
  return numbered(tx, 'stock_count', line.count_id);
}

/** Says what one of what was found on a line is worth. */
export async function countCost(doing: Doing, lineId: number, unitCost: Money | null): Promise<Numbered> {
  const { tx } = doing;
  const line = recordOf(await tx.models.stock_count_line.findByPk(lineId));
  await requireOpen(tx, line.count_id);
  if (line.counted === null) throw new Refusal('nothing-counted', {}, 'unitCost');
  await line.update({ unit_cost: unitCost });
  doing.changed('stock');
  return numbered(tx, 'stock_count', line.count_id);
}

/** Adds an item that was found in a bin where the books have none. */
export async function addCountLine(doing: Doing, countId: number, input: BodyOf<'addCountLine'>) {
  const { tx } = doing;
  await requireOpen(tx, countId);
  const item = await itemRow(tx, input.itemId);
  if (!item) throw new Refusal('unknown-item', {}, 'itemId');
  if (item.archived_at !== null) throw new Refusal('item-archived', { name: item.name }, 'itemId');
  await requireShelf(tx, input.binId, 'binId');
  const lotId = item.tracking === 'lot' ? await lotFor(doing, item, input, (name) => name) : null;
  await tx.models.stock_count_line
    .findOrBuild({
      where: { count_id: countId, item_id: input.itemId, bin_id: input.binId, lot_id: lotId },
    })
    .then(([line]) => line.save());
  doing.changed('stock');
  return numbered(tx, 'stock_count', countId);
}

/**
 * Posts the differences of everything counted in one document. Each difference was taken at the moment of its counting,
 * so what has moved since is still right; lines that nobody counted are left as they are.
 * @throws Refusal `nothing-counted`; `counted-since` where another count has put the same right already; `cost-unknown` naming the line whose find nobody has put a worth on; `stock-short`
 * when what was missing has been taken since
 */
export async function approveCount(doing: Doing, id: number, version: number) {
  const { tx } = doing;
  const count = await requireOpen(tx, id);
  const lines = await tx.models.stock_count_line.findAll({
    where: { count_id: id, counted: { [Op.ne]: null } },
    order: ['id'],
  });
  if (lines.length === 0) throw new Refusal('nothing-counted');
  const posting = new Posting(
    await readStock(
      tx,
      lines.map((line) => line.item_id),
    ),
  );
  for (const line of lines) {
    const spot = { ...spotOf(line.item_id, line.bin_id), lotId: line.lot_id };
    const change = ((line.counted ?? 0) - (line.expected ?? 0)) as Quantity;
    const unitCost = line.unit_cost;
    const since = change === 0 || line.seen !== null ? undefined : await countedSince(tx, line);
    if (since) throw new Refusal('counted-since', since, `sheet.${line.id}.counted`);
    try {
      if (line.seen !== null) await postSeen(tx, posting, spot, line);
      else if (change !== 0) postAdjustment(posting, { spot, change, unitCost });
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
  await settleCounted(tx, id, doing.now.toISOString());
  const values = { state: 'approved' as const, document_id: documentId };
  await updateVersioned(tx, 'stock_count', id, version, values, () => readCount(tx, id));
  doing.changed('stock', 'items', 'picks');
  return { ...(await numbered(tx, 'stock_count', id)), documentId };
}

/**
 * Posts what was seen of serials and differs from the books of that moment: those the books had here and nobody saw are
 * gone, those seen come here from where the books have them, or are found at their own cost. What has moved since the
 * counting is where it moved to, and is left alone.
 * @throws Refusal `serial-on-bench` for one that is booked on a bench
 */
async function postSeen(tx: Writer, posting: Posting, spot: Spot, line: CountLineRow): Promise<void> {
  const codes = JSON.parse(line.seen ?? '[]') as string[];
  const booked = new Set(JSON.parse(line.booked ?? '[]') as number[]);
  const ids = new Map((await clashesOf(tx, line.item_id, codes)).map((known) => [known.code.toLowerCase(), known.id]));
  const there = (await balancesOf(tx, [line.item_id])).filter((row) => row.serial_id !== null);
  const moved = await movedSince(tx, [...booked, ...ids.values()], line);
  const own = await ownCostsOf(tx, [...ids.values()]);
  const seen = new Set<number>();
  for (const code of codes) {
    const id = ids.get(code.toLowerCase()) ?? (await tx.insert('serial', { item_id: line.item_id, code }));
    seen.add(id);
    if (booked.has(id) || moved.has(id)) continue;
    const now = there.find((row) => row.serial_id === id);
    const here = { ...spot, serialId: id };
    if (now?.holder) throw new Refusal('serial-on-bench', { code, build: now.holder });
    const unitCost = line.unit_cost ?? own.get(id) ?? null;
    if (now && now.bin_id !== spot.binId) posting.move(spotIn(now), here, ONE);
    if (!now) postAdjustment(posting, { spot: here, change: ONE, unitCost });
  }
  for (const id of booked) {
    const here = { ...spot, serialId: id };
    if (!seen.has(id) && !moved.has(id) && posting.at(here) > 0)
      postAdjustment(posting, { spot: here, change: negated(ONE), unitCost: null });
  }
}

/** @throws Refusal `serial-twice`, `unit-in-repair` for what a customer left here */
async function refuseSeen(tx: Writer, item: Pick<ItemRow, 'id'>, codes: readonly string[]): Promise<void> {
  refuseSerialTwice(codes);
  const theirs = (await clashesOf(tx, item.id, codes)).find(({ inRepair }) => inRepair);
  if (theirs) throw new Refusal('unit-in-repair', { code: theirs.code, says: theirs.says }, 'serials');
}

function refuseSerialTwice(codes: readonly string[]): void {
  const seen = new Set<string>();
  for (const code of codes) {
    if (seen.has(code.toLowerCase())) throw new Refusal('serial-twice', { code }, 'serials');
    seen.add(code.toLowerCase());
  }
}

export async function cancelCount(doing: Doing, id: number, version: number): Promise<Numbered> {
  const { tx } = doing;
  await requireOpen(tx, id);
  await updateVersioned(tx, 'stock_count', id, version, { state: 'cancelled' }, () => readCount(tx, id));
  doing.changed('stock');
  return numbered(tx, 'stock_count', id);
}

async function requireOpen(db: Reader, id: number) {
  const count = required(await countRow(db, id));
  if (count.state !== 'open')
    throw new Refusal('wrong-state', { kind: 'count', number: count.number, state: count.state });
  return count;
}
