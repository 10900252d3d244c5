import { type DocumentKind, documentKinds } from '@yosegi/contract';
import { type Holder, type ItemStock, type Posted, type StockState, spotKey } from '@yosegi/core/ledger';
import { type Money, type Quantity, ZERO } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { type Doing, requireRight } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { spotIn } from './balances.ts';
import { nextNumber } from './series.ts';

export interface Override {
  readonly reason: string;
}

/** What a document is posted for, like a build. */
export interface Subject {
  readonly kind: string;
  readonly id: number;
}

export interface DocumentStart {
  readonly kind: DocumentKind;
  readonly remark?: string;
  /** What it is posted for. */
  readonly for?: Subject | null;
  readonly reversesId?: number;
  readonly override?: Override | undefined;
  readonly reasonId?: number;
  /** What it was posted because of: it goes when that is undone. */
  readonly causeId?: number;
  /** The job that it is booked under, where it is for no record that says so. */
  readonly jobTag?: string;
}

/** Everything the core needs to know of these items to post on them. */
export async function readStock(db: Reader, itemIds: readonly number[]): Promise<StockState> {
  const ids = [JSON.stringify([...new Set(itemIds)])];
  const items = await db.driver.all<{ item_id: number; quantity: Quantity; value: Money; last_cost: Money }>(
    'SELECT * FROM item_stock WHERE item_id IN (SELECT value FROM json_each($1))',
    ids,
  );
  const spots = await db.driver.all<{
    item_id: number;
    bin_id: number;
    lot_id: number | null;
    serial_id: number | null;
    holder_kind: Holder['kind'] | null;
    holder_id: number | null;
    quantity: Quantity;
    worth: Money | null;
  }>(
    `SELECT b.*, s.value AS worth FROM balance b LEFT JOIN serial s ON s.id = b.serial_id
     WHERE b.item_id IN (SELECT value FROM json_each($1))`,
    ids,
  );
  return {
    items: new Map(
      items.map((row): [number, ItemStock] => [
        row.item_id,
        { quantity: row.quantity, value: row.value, lastCost: row.last_cost },
      ]),
    ),
    spots: new Map(spots.map((row) => [spotKey(spotIn(row)), row.quantity])),
    serials: new Map(spots.flatMap((row) => (row.serial_id === null ? [] : [[row.serial_id, row.worth ?? ZERO]]))),
  };
}

/** Whether a posting may go below zero: only with an owner's reason. @throws Refusal `owner-only` */
export function mayGoBelow(doing: Doing, override: Override | undefined): boolean {
  if (override) requireRight(doing.person, 'override');
  return override !== undefined;
}

/**
 * Writes what the core posted: document, ledger rows, values, balances and what has to be put right.
 * @throws Refusal `item-archived`
 */
export async function writeDocument(
  doing: Doing,
  start: DocumentStart,
  posted: Posted,
): Promise<{ id: number; number: string }> {
  const { tx, person } = doing;
  const at = doing.now.toISOString();
  const number = await nextNumber(tx, documentKinds[start.kind].prefix);
  const reason = posted.belowZero.length > 0 ? (start.override?.reason ?? null) : null;
  const id = await tx.driver.insert('document', {
    number,
    kind: start.kind,
    at,
    person_id: person.id,
    remark: start.remark ?? '',
    for_kind: start.for?.kind ?? null,
    for_id: start.for?.id ?? null,
    reverses_id: start.reversesId ?? null,
    override_reason: reason,
    reason_id: start.reasonId ?? null,
    cause_id: start.causeId ?? null,
    job_tag: start.jobTag ?? '',
  });
  await tx.driver.insertMany(
    'movement',
    posted.movements.map((movement) => ({
      document_id: id,
      item_id: movement.itemId,
      bin_id: movement.binId,
      lot_id: movement.lotId,
      serial_id: movement.serialId,
      holder_kind: movement.holder?.kind ?? null,
      holder_id: movement.holder?.id ?? null,
      line_id: movement.lineId,
      quantity: movement.quantity,
      value: movement.value,
    })),
  );
  await tx.driver.insertMany(
    'document_value',
    posted.values.map((line) => ({
      document_id: id,
      kind: line.kind,
      amount: line.amount,
      item_id: line.itemId,
      line_id: line.lineId,
    })),
  );
  await keepBalances(tx, posted);
  await keepPutRight(doing, id, start, posted, at);
  doing.changed('stock', 'items');
  return { id, number };
}

async function keepBalances(tx: Writer, posted: Posted): Promise<void> {
  const all = [...posted.spots.values()].map(({ spot, quantity }) => [
    spot.itemId,
    spot.binId,
    spot.lotId,
    spot.serialId,
    spot.holder?.kind ?? null,
    spot.holder?.id ?? null,
    quantity,
  ]);
  const spots = all.filter((row) => row[6] !== 0);
  if (spots.length < all.length) {
    await tx.driver.run(
      `DELETE FROM balance WHERE rowid IN (SELECT b.rowid FROM json_each($1) v CROSS JOIN balance b
       ON b.item_id = v.value ->> 0 AND b.bin_id = v.value ->> 1 AND ifnull(b.lot_id, 0) = ifnull(v.value ->> 2, 0)
         AND ifnull(b.serial_id, 0) = ifnull(v.value ->> 3, 0)
         AND ifnull(b.holder_kind, '') = ifnull(v.value ->> 4, '') AND ifnull(b.holder_id, 0) = ifnull(v.value ->> 5, 0))`,
      [JSON.stringify(all.filter((row) => row[6] === 0))],
    );
  }
  if (posted.serials.size > 0) {
    await tx.driver.run(
      'UPDATE serial SET value = v.value ->> 1 FROM json_each($1) v WHERE serial.id = v.value ->> 0',
      [JSON.stringify([...posted.serials])],
    );
  }
  await tx.driver.run(
    `INSERT INTO balance (item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, quantity)
     SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5, value ->> 6 FROM json_each($1) WHERE true
     ON CONFLICT (item_id, bin_id, ifnull(lot_id, 0), ifnull(serial_id, 0), ifnull(holder_kind, ''), ifnull(holder_id, 0))
     DO UPDATE SET quantity = excluded.quantity`,
    [JSON.stringify(spots)],
  );
  const items = [...posted.items].map(([itemId, item]) => [itemId, item.quantity, item.value, item.lastCost]);
  // The item's name comes back with what is written, because one more statement would be felt in every posting.
  const archived = await tx.driver.all<{ item_id: number; name: string | null }>(
    `INSERT INTO item_stock (item_id, quantity, value, last_cost)
     SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3 FROM json_each($1) WHERE true
     ON CONFLICT (item_id) DO UPDATE SET quantity = excluded.quantity, value = excluded.value, last_cost = excluded.last_cost
     RETURNING item_id, (SELECT name FROM item WHERE id = item_id AND archived_at IS NOT NULL) AS name`,
    [JSON.stringify(items)],
  );
  refuseArchived(posted, archived);
  if (posted.inReturns.size > 0) await keepReturned(tx, posted);
}

/** What is archived comes into stock by no posting, except back from a customer, to be decided about. */
function refuseArchived({ movements }: Posted, items: readonly { item_id: number; name: string | null }[]): void {
  const gained = new Map<number, number>();
  for (const { itemId, holder, quantity } of movements)
    if (holder?.kind !== 'return') gained.set(itemId, (gained.get(itemId) ?? 0) + quantity);
  const archived = items.find(({ item_id, name }) => name !== null && (gained.get(item_id) ?? 0) > 0);
  if (archived) throw new Refusal('item-archived', { name: archived.name ?? '' });
}

async function keepReturned(tx: Writer, { inReturns }: Posted): Promise<void> {
  const changes = [...inReturns].map(([itemId, { quantity, value }]) => [itemId, quantity, value]);
  await tx.driver.run(
    `UPDATE item_stock SET returned_quantity = returned_quantity + v.value ->> 1, returned_value = returned_value + v.value ->> 2
     FROM json_each($1) v WHERE item_stock.item_id = v.value ->> 0`,
    [JSON.stringify(changes)],
  );
}

/** Lists what went below zero by override, and settles what this posting has brought back to zero or above. */
async function keepPutRight(
  doing: Doing,
  documentId: number,
  start: DocumentStart,
  posted: Posted,
  at: string,
): Promise<void> {
  const touched = [...posted.spots.values()].map(({ spot }) => [spot.itemId, spot.binId]);
  await doing.tx.driver.run(
    `UPDATE put_right SET settled_at = $1 FROM json_each($2) spot
     WHERE settled_at IS NULL AND item_id = spot.value ->> 0 AND bin_id = spot.value ->> 1
       AND NOT EXISTS (SELECT 1 FROM balance b
         WHERE b.item_id = put_right.item_id AND b.bin_id = put_right.bin_id AND b.quantity < 0)`,
    [at, JSON.stringify(touched)],
  );
  await doing.tx.driver.insertMany(
    'put_right',
    posted.belowZero.map(({ itemId, binId, wanted, there }) => ({
      document_id: documentId,
      for_kind: start.for?.kind ?? null,
      for_id: start.for?.id ?? null,
      item_id: itemId,
      bin_id: binId,
      quantity: wanted - there,
      reason: start.override?.reason ?? '',
      person_id: doing.person.id,
      at,
    })),
  );
}
