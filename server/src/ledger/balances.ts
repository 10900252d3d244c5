import type { BinQuantity, Piece } from '@yosegi/contract';
import type { Heap, Holder, Spot } from '@yosegi/core/ledger';
import { least, type Money, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { attributesInWords, type LotAttributes } from '@yosegi/core/tracking';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

/** Some of an item at one place: in a bin or on a bench, of one lot or serial. */
export interface BalanceRow extends Row<'balance'>, Pick<Row<'bin'>, 'store_id' | 'kind'>, Pick<Row<'lot'>, 'held'> {
  /** What is written down of the lot, as JSON. */
  attributes: string | null;
  bin: string;
  store: string;
  lot: string | null;
  best_before: string | null;
  serial: string | null;
  /** What a unit that is known by serial is worth. */
  worth: Money | null;
  /** The number of what it stands for; null on a shelf. */
  holder: string | null;
}

const BALANCE_SQL = `
  SELECT b.item_id, b.bin_id, n.code AS bin, n.store_id, t.name AS store, n.kind, b.lot_id, l.code AS lot, l.best_before, l.attributes,
    b.serial_id, s.code AS serial, s.value AS worth, b.holder_kind, b.holder_id,
    (SELECT number FROM numbered WHERE kind = b.holder_kind AND id = b.holder_id) AS holder, b.quantity,
    coalesce(l.held, s.held, iif(n.kind = 'quarantine', 'in quarantine', NULL)) AS held
  FROM balance b JOIN bin n ON n.id = b.bin_id JOIN store t ON t.id = n.store_id
  LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id`;
/** In walking order; in a bin the first to expire first. */
const ORDER = `ORDER BY t.id, n.picking_order, n.code, ifnull(l.best_before, '9999'), b.lot_id, s.code, b.holder_kind, b.holder_id`;

/** Everything that stands anywhere of these items, in walking order. */
export const balancesOf = (db: Reader, itemIds: readonly number[]) =>
  db.driver.all<BalanceRow>(`${BALANCE_SQL} WHERE b.item_id IN (SELECT value FROM json_each($1)) ${ORDER}`, [
    JSON.stringify(itemIds),
  ]);

/** What of these items can be taken from shelves: neither in quarantine nor held. */
export const usableOf = async (db: Reader, itemIds: readonly number[]) =>
  (await balancesOf(db, itemIds)).filter((row) => row.holder_id === null && row.kind === 'shelf' && row.held === null);

/** Everything that stands for one holder. */
export const heldFor = (db: Reader, { kind, id }: Holder) =>
  db.driver.all<BalanceRow>(`${BALANCE_SQL} WHERE b.holder_kind = $1 AND b.holder_id = $2 ${ORDER}`, [kind, id]);

/** Everything that stands for several holders of one kind. */
export const heldForAll = (db: Reader, kind: Holder['kind'], ids: readonly number[]) =>
  db.driver.all<BalanceRow>(
    `${BALANCE_SQL} WHERE b.holder_kind = $1 AND b.holder_id IN (SELECT value FROM json_each($2)) ${ORDER}`,
    [kind, JSON.stringify(ids)],
  );

/** What a row stands for. */
export const holderIn = (row: Pick<BalanceRow, 'holder_kind' | 'holder_id'>): Holder | null =>
  row.holder_kind === null || row.holder_id === null ? null : { kind: row.holder_kind, id: row.holder_id };

/** The columns of a balance or a movement that say where it is. */
export type SpotColumns = Pick<BalanceRow, 'item_id' | 'bin_id' | 'lot_id' | 'serial_id' | 'holder_kind' | 'holder_id'>;
export const spotIn = (row: SpotColumns): Spot => ({
  itemId: row.item_id,
  binId: row.bin_id,
  lotId: row.lot_id,
  serialId: row.serial_id,
  holder: holderIn(row),
});
export const heapAt = (row: BalanceRow): Heap => ({ spot: spotIn(row), quantity: row.quantity });

/** The most lots and serials of a bin that are listed; its quantity is always whole. */
const MOST_PIECES = 500;

export const toPiece = (row: BalanceRow): Piece => ({
  lot: row.lot,
  bestBefore: row.best_before,
  says: row.attributes === null ? '' : attributesInWords(JSON.parse(row.attributes) as LotAttributes),
  serial: row.serial,
  quantity: decimal(row.quantity),
  value: decimalOrNull(row.worth),
  held: row.held,
});

/**
 * Which lots and serials of what stands for one build or order are for which of its lines: two lines of one item share
 * them out in their order, so that none is told, or put back, twice.
 */
export function partedPieces<Line>(
  standing: readonly BalanceRow[],
  lines: readonly { readonly line: Line; readonly itemId: number | null; readonly quantity: Quantity }[],
): ReadonlyMap<Line, readonly Piece[]> {
  const tracked = standing.filter((row) => (row.lot_id ?? row.serial_id) !== null);
  const left = new Map(tracked.map((row) => [row, row.quantity]));
  return new Map(
    lines.map(({ line, itemId, quantity }) => {
      let open = quantity;
      const pieces = tracked.flatMap((row) => {
        const there = left.get(row) ?? ZERO;
        const own = row.item_id === itemId ? least(there, open) : ZERO;
        if (own <= 0) return [];
        left.set(row, minus(there, own));
        open = minus(open, own);
        return [toPiece({ ...row, quantity: own })];
      });
      return [line, pieces];
    }),
  );
}

/** Rows of one item put together bin by bin, and beside shelves by what they stand for. */
export function byBin(
  rows: readonly BalanceRow[],
): (BinQuantity & Pick<BalanceRow, 'kind'> & { build: string | null })[] {
  const bins = new Map<string, BalanceRow[]>();
  for (const row of rows) {
    const key = `${row.bin_id}:${row.holder_kind}:${row.holder_id}`;
    bins.set(key, [...(bins.get(key) ?? []), row]);
  }
  return [...bins.values()].flatMap((own) => {
    const [first] = own;
    const quantity = own.reduce((sum, row) => sum + row.quantity, 0);
    if (!first || quantity === 0) return [];
    const tracked = own.filter((row) => row.lot_id !== null || row.serial_id !== null);
    return {
      binId: first.bin_id,
      bin: first.bin,
      store: first.store,
      kind: first.kind,
      build: first.holder,
      quantity: decimal(quantity),
      pieces: tracked.slice(0, MOST_PIECES).map(toPiece),
    };
  });
}
