import { dayOf } from '@yosegi/core/days';
import type { Heap, Posting, Spot } from '@yosegi/core/ledger';
import { takeFrom } from '@yosegi/core/ledger';
import { ONE, type Quantity, SCALE } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type LotAttributes, passedOver, withAttributes } from '@yosegi/core/tracking';
import type { Doing } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import type { ItemRow } from '../items/index.ts';
import { type BalanceRow, balancesOf, spotIn } from '../ledger/index.ts';
import { clashesOf, customersUnit, nextFree } from './sql.ts';

/** Which lot or serials a line names, by their codes. */
export interface Named {
  readonly lot: string | null;
  readonly serials: readonly string[];
}
export interface NamedIn extends Named {
  readonly bestBefore: string | null;
  /** What is written down of the lot. */
  readonly attributes?: LotAttributes | undefined;
}

type TrackedItem = Pick<ItemRow, 'id' | 'name' | 'tracking' | 'lot_order' | 'lot_fields' | 'serial_pattern'>;
/** The name of a line's field, as the person's form knows it. */
type At = (name: 'lot' | 'serials' | 'bestBefore' | 'attributes') => string;

/** What a lot is held for once its day has passed. */
export const DAY_PASSED = 'past its best-before day';

export interface Taking {
  /** Goods are used, not only moved: held ones are refused, and the first lot to expire goes first where prescribed. */
  readonly toUse: boolean;
  /** An owner takes them all the same. */
  readonly overridden: boolean;
}

/**
 * The places in a bin that `quantity` of an item is taken from: the lot or the serials that were named, or the first to
 * expire. What is not there is left to the posting to refuse.
 * @throws Refusal `not-tracked`, `lot-unknown`, `lot-needed`, `lot-order`, `is-held`, `serials-needed`, `serial-twice`,
 * `serial-unknown`
 */
export async function heapsOut(
  tx: Writer,
  posting: Posting,
  item: TrackedItem,
  binId: number,
  quantity: Quantity,
  named: Named,
  at: At,
  taking: Taking,
): Promise<Heap[]> {
  const spot: Spot = { itemId: item.id, binId, lotId: null, serialId: null, holder: null };
  refuseUntracked(item, named, at);
  if (item.tracking === 'none') return [{ spot, quantity }];
  if (item.tracking === 'serial') {
    const ids = await knownSerials(tx, item, quantity, named.serials, at, taking);
    return ids.map((serialId) => ({ spot: { ...spot, serialId }, quantity: ONE }));
  }
  const there = (await balancesOf(tx, [item.id])).filter((row) => row.holder_id === null && row.lot_id !== null);
  const standing = there
    .filter((row) => row.bin_id === binId && (!taking.toUse || row.held === null))
    .map((row) => ({ spot: spotIn(row), quantity: posting.at(spotIn(row)) }));
  const lot = named.lot === null ? null : await knownLot(tx, item, named.lot, at, taking);
  const fallback = lot ? { ...spot, lotId: lot.id } : (standing.at(-1)?.spot ?? spot);
  if (taking.overridden && fallback.lotId === null) throw new Refusal('lot-needed', { name: item.name }, at('lot'));
  const takings = lot ? [{ spot: fallback, quantity }] : takeFrom(standing, quantity, fallback);
  if (taking.toUse && item.lot_order === 'prescribed' && !taking.overridden)
    refuseOutOfOrder(posting, there, binId, takings, at);
  return takings;
}

function refuseUntracked(item: TrackedItem, named: Named, at: At): void {
  if (named.lot !== null && item.tracking !== 'lot') throw new Refusal('not-tracked', { name: item.name }, at('lot'));
  if (named.serials.length > 0 && item.tracking !== 'serial')
    throw new Refusal('not-tracked', { name: item.name }, at('serials'));
}

/** @throws Refusal `lot-order` with a lot of the same store that expires earlier and would stay behind */
function refuseOutOfOrder(
  posting: Posting,
  there: readonly BalanceRow[],
  binId: number,
  takings: readonly Heap[],
  at: At,
): void {
  const storeId = there.find((row) => row.bin_id === binId)?.store_id;
  const usable = there.filter((row) => row.store_id === storeId && row.kind === 'shelf' && row.held === null);
  const lots = usable.map((row) => ({
    lotId: row.lot_id ?? 0,
    binId: row.bin_id,
    quantity: posting.at(spotIn(row)),
    bestBefore: row.best_before,
  }));
  const taken = takings.map(({ spot, quantity }) => ({ lotId: spot.lotId ?? 0, binId: spot.binId, quantity }));
  const first = passedOver(lots, taken);
  const row = first && usable.find((one) => one.lot_id === first.lotId && one.bin_id === first.binId);
  if (!row) return;
  const { lot, bin, best_before } = row;
  throw new Refusal('lot-order', { first: lot ?? '', bin, bestBefore: best_before ?? '' }, at('lot'));
}

async function knownLot(tx: Writer, item: TrackedItem, code: string, at: At, taking: Taking) {
  const lot = await tx.models.lot.findOne({ where: { item_id: item.id, code } });
  if (!lot) throw new Refusal('lot-unknown', { code, name: item.name }, at('lot'));
  if (taking.toUse && !taking.overridden && lot.held !== null)
    throw new Refusal('is-held', { code: lot.code, held: lot.held }, at('lot'));
  return lot;
}

async function knownSerials(
  tx: Writer,
  item: TrackedItem,
  quantity: Quantity,
  codes: readonly string[],
  at: At,
  taking: Taking,
): Promise<number[]> {
  refuseCount(item, quantity, codes, at);
  const rows = await tx.models.serial.findAll({ where: { item_id: item.id, code: [...codes] } });
  const known = new Map(rows.map((row) => [row.code.toLowerCase(), row]));
  await refuseCustomers(tx, item.id, codes, at);
  return codes.map((code) => {
    const serial = known.get(code.toLowerCase());
    if (!serial) throw new Refusal('serial-unknown', { code, name: item.name }, at('serials'));
    if (taking.toUse && !taking.overridden && serial.held !== null)
      throw new Refusal('is-held', { code: serial.code, held: serial.held }, at('serials'));
    return serial.id;
  });
}

/** @throws Refusal `unit-in-repair` for what is not ours to use, move or sell */
async function refuseCustomers(tx: Writer, itemId: number, codes: readonly string[], at: At): Promise<void> {
  const row = await customersUnit(tx, itemId, codes);
  if (row) throw new Refusal('unit-in-repair', row, at('serials'));
}

function refuseCount(item: TrackedItem, quantity: Quantity, codes: readonly string[], at: At): void {
  const needed = quantity / SCALE;
  if (codes.length !== needed)
    throw new Refusal('serials-needed', { name: item.name, count: needed, given: codes.length }, at('serials'));
  const seen = new Set<string>();
  for (const code of codes) {
    if (seen.has(code.toLowerCase())) throw new Refusal('serial-twice', { code }, at('serials'));
    seen.add(code.toLowerCase());
  }
}

export interface Arriving {
  /** Whether a serial that was here before may come back, as a thing found or taken out of another does. */
  readonly mayReturn: boolean;
  /** Serials that this very posting has taken out, like the one a rework gives back. */
  readonly takenOut?: ReadonlySet<number>;
}

/**
 * The places in a bin that `quantity` of an item comes in to. Lots and serials that are new are made.
 * @throws Refusal `not-tracked`, `lot-needed`, `lot-day-differs`, `serials-needed`, `serial-twice`, `serial-clash`
 */
export async function heapsIn(
  doing: Doing,
  item: TrackedItem,
  binId: number,
  quantity: Quantity,
  named: NamedIn,
  at: At,
  arriving: Arriving = { mayReturn: false },
): Promise<Heap[]> {
  const spot: Spot = { itemId: item.id, binId, lotId: null, serialId: null, holder: null };
  refuseUntracked(item, named, at);
  if (item.tracking === 'none') return [{ spot, quantity }];
  if (item.tracking === 'lot') return [{ spot: { ...spot, lotId: await lotFor(doing, item, named, at) }, quantity }];
  refuseCount(item, quantity, named.serials, at);
  const ids = await serialsFor(doing.tx, item, named.serials, at, arriving);
  return ids.map((serialId) => ({ spot: { ...spot, serialId }, quantity: ONE }));
}

/** The lot that is named, made when it is new. @throws Refusal `lot-needed`, `lot-day-differs`, `unknown-choice` */
export async function lotFor(
  doing: Doing,
  item: TrackedItem,
  { lot: code, bestBefore, attributes = {} }: Omit<NamedIn, 'serials'>,
  at: At,
): Promise<number> {
  const { tx } = doing;
  if (code === null) throw new Refusal('lot-needed', { name: item.name }, at('lot'));
  const known = await tx.models.lot.findOne({ where: { item_id: item.id, code } });
  const before = JSON.parse(known?.attributes ?? '{}') as LotAttributes;
  const names = JSON.parse(item.lot_fields) as string[];
  const written = JSON.stringify(withAttributes(before, attributes, names, at('attributes')));
  if (!known) {
    const passed = bestBefore !== null && bestBefore < dayOf(doing.now);
    return tx.insert('lot', {
      item_id: item.id,
      code,
      best_before: bestBefore,
      attributes: written,
      day_passed: passed ? 1 : 0,
      held: passed ? DAY_PASSED : null,
      held_at: passed ? doing.now.toISOString() : null,
    });
  }
  if (bestBefore !== null && known.best_before !== bestBefore)
    throw new Refusal('lot-day-differs', { code, day: known.best_before }, at('bestBefore'));
  if (written !== known.attributes) await known.update({ attributes: written });
  return known.id;
}

async function serialsFor(
  tx: Writer,
  item: TrackedItem,
  codes: readonly string[],
  at: At,
  { mayReturn, takenOut }: Arriving,
): Promise<number[]> {
  const known = await clashesOf(tx, item.id, codes);
  const clashes = known.filter(
    ({ id, inStock, inRepair, wasHere }) => !takenOut?.has(id) && (inStock || inRepair || (wasHere && !mayReturn)),
  );
  const [first] = clashes;
  if (first) {
    const free = await nextFree(tx, item, clashes.length);
    throw new Refusal('serial-clash', { code: first.code, says: first.says, clashes, free }, at('serials'));
  }
  const there = new Set(known.map(({ code }) => code.toLowerCase()));
  await tx.insertMany(
    'serial',
    codes.filter((code) => !there.has(code.toLowerCase())).map((code) => ({ item_id: item.id, code })),
  );
  const rows = await tx.models.serial.findAll({ where: { item_id: item.id, code: [...codes] } });
  const ids = new Map(rows.map((row) => [row.code.toLowerCase(), row.id]));
  return codes.map((code) => ids.get(code.toLowerCase()) ?? 0);
}
