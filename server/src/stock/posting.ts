import type { DocumentKind } from '@yosegi/contract';
import type { Money, Quantity } from '@yosegi/core/number';
import { type ItemStock, type Posted, placeKey, type StockState } from '@yosegi/core/stock';
import type { Reader, Writer } from '../db/database.ts';
import { type Doing, ownersOnly } from '../http/context.ts';

export interface Override {
  readonly reason: string;
}

export interface DocumentStart {
  readonly kind: DocumentKind;
  readonly remark?: string;
  readonly buildId?: number;
  readonly reversesId?: number;
  readonly override?: Override | undefined;
  readonly reasonId?: number;
}

const PREFIX: Record<DocumentKind, string> = {
  opening: 'OS',
  receipt: 'RC',
  transfer: 'TR',
  adjustment: 'AD',
  count: 'CD',
  pick: 'PK',
  'put-back': 'PB',
  finish: 'FN',
  'take-apart': 'TA',
  'price-difference': 'PD',
  revaluation: 'RV',
  undo: 'UN',
};

/** Everything the core needs to know of these items to post on them. */
export async function readStock(db: Reader, itemIds: readonly number[]): Promise<StockState> {
  const ids = [JSON.stringify([...new Set(itemIds)])];
  const items = await db.all<{ item_id: number; quantity: number; value: number; last_cost: number }>(
    'SELECT * FROM item_stock WHERE item_id IN (SELECT value FROM json_each($1))',
    ids,
  );
  const places = await db.all<{
    item_id: number;
    bin_id: number;
    lot_id: number | null;
    serial_id: number | null;
    build_id: number | null;
    quantity: number;
    worth: number | null;
  }>(
    `SELECT b.*, s.value AS worth FROM balance b LEFT JOIN serial s ON s.id = b.serial_id
     WHERE b.item_id IN (SELECT value FROM json_each($1))`,
    ids,
  );
  return {
    items: new Map(
      items.map((row): [number, ItemStock] => [
        row.item_id,
        { quantity: row.quantity as Quantity, value: row.value as Money, lastCost: row.last_cost as Money },
      ]),
    ),
    places: new Map(
      places.map((row) => [
        placeKey({
          itemId: row.item_id,
          binId: row.bin_id,
          lotId: row.lot_id,
          serialId: row.serial_id,
          buildId: row.build_id,
        }),
        row.quantity as Quantity,
      ]),
    ),
    serials: new Map(places.flatMap((row) => (row.serial_id === null ? [] : [[row.serial_id, row.worth as Money]]))),
  };
}

/** Whether a posting may go below zero: only with an owner's reason. @throws Refusal `owner-only` */
export function mayGoBelow(doing: Doing, override: Override | undefined): boolean {
  if (override) ownersOnly(doing.person);
  return override !== undefined;
}

/** The next number of a series, like RC-0042. */
export async function nextNumber(tx: Writer, prefix: string): Promise<string> {
  const series = await tx.one<{ next: number }>(
    'INSERT INTO series (name, next) VALUES ($1, 1) ON CONFLICT (name) DO UPDATE SET next = next + 1 RETURNING next',
    [prefix],
  );
  return `${prefix}-${String(series?.next).padStart(4, '0')}`;
}

/** Writes what the core posted: document, ledger rows, values, balances and what has to be put right. */
export async function writeDocument(
  doing: Doing,
  start: DocumentStart,
  posted: Posted,
): Promise<{ id: number; number: string }> {
  const { tx, person } = doing;
  const at = doing.now.toISOString();
  const number = await nextNumber(tx, PREFIX[start.kind]);
  const reason = posted.belowZero.length > 0 ? (start.override?.reason ?? null) : null;
  const id = await tx.insert('document', {
    number,
    kind: start.kind,
    at,
    person_id: person.id,
    remark: start.remark ?? '',
    build_id: start.buildId ?? null,
    reverses_id: start.reversesId ?? null,
    override_reason: reason,
    reason_id: start.reasonId ?? null,
  });
  await tx.insertMany(
    'movement',
    posted.movements.map((movement) => ({
      document_id: id,
      item_id: movement.itemId,
      bin_id: movement.binId,
      lot_id: movement.lotId,
      serial_id: movement.serialId,
      build_id: movement.buildId,
      build_line_id: movement.buildLineId,
      quantity: movement.quantity,
      value: movement.value,
    })),
  );
  await tx.insertMany(
    'document_value',
    posted.values.map((line) => ({
      document_id: id,
      kind: line.kind,
      amount: line.amount,
      item_id: line.itemId,
      build_line_id: line.buildLineId,
    })),
  );
  await keepBalances(tx, posted);
  await keepPutRight(doing, id, start, posted, at);
  doing.changed('stock', 'items');
  return { id, number };
}

async function keepBalances(tx: Writer, posted: Posted): Promise<void> {
  const all = [...posted.places.values()].map(({ place, quantity }) => [
    place.itemId,
    place.binId,
    place.lotId,
    place.serialId,
    place.buildId,
    quantity,
  ]);
  const places = all.filter((row) => row[5] !== 0);
  if (places.length < all.length) {
    await tx.run(
      `DELETE FROM balance WHERE rowid IN (SELECT b.rowid FROM json_each($1) v CROSS JOIN balance b
       ON b.item_id = v.value ->> 0 AND b.bin_id = v.value ->> 1 AND ifnull(b.lot_id, 0) = ifnull(v.value ->> 2, 0)
         AND ifnull(b.serial_id, 0) = ifnull(v.value ->> 3, 0) AND ifnull(b.build_id, 0) = ifnull(v.value ->> 4, 0))`,
      [JSON.stringify(all.filter((row) => row[5] === 0))],
    );
  }
  if (posted.serials.size > 0) {
    await tx.run('UPDATE serial SET value = v.value ->> 1 FROM json_each($1) v WHERE serial.id = v.value ->> 0', [
      JSON.stringify([...posted.serials]),
    ]);
  }
  await tx.run(
    `INSERT INTO balance (item_id, bin_id, lot_id, serial_id, build_id, quantity)
     SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5 FROM json_each($1) WHERE true
     ON CONFLICT (item_id, bin_id, ifnull(lot_id, 0), ifnull(serial_id, 0), ifnull(build_id, 0))
     DO UPDATE SET quantity = excluded.quantity`,
    [JSON.stringify(places)],
  );
  const items = [...posted.items].map(([itemId, item]) => [itemId, item.quantity, item.value, item.lastCost]);
  await tx.run(
    `INSERT INTO item_stock (item_id, quantity, value, last_cost)
     SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3 FROM json_each($1) WHERE true
     ON CONFLICT (item_id) DO UPDATE SET quantity = excluded.quantity, value = excluded.value, last_cost = excluded.last_cost`,
    [JSON.stringify(items)],
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
  const touched = [...posted.places.values()].map(({ place }) => [place.itemId, place.binId]);
  await doing.tx.run(
    `UPDATE put_right SET settled_at = $1 FROM json_each($2) place
     WHERE settled_at IS NULL AND item_id = place.value ->> 0 AND bin_id = place.value ->> 1
       AND NOT EXISTS (SELECT 1 FROM balance b
         WHERE b.item_id = put_right.item_id AND b.bin_id = put_right.bin_id AND b.quantity < 0)`,
    [at, JSON.stringify(touched)],
  );
  await doing.tx.insertMany(
    'put_right',
    posted.belowZero.map(({ itemId, binId, wanted, there }) => ({
      document_id: documentId,
      build_id: start.buildId ?? null,
      item_id: itemId,
      bin_id: binId,
      quantity: wanted - there,
      reason: start.override?.reason ?? '',
      person_id: doing.person.id,
      at,
    })),
  );
}
