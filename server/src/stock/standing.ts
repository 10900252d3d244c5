import type { BinQuantity, Piece } from '@yosegi/contract';
import type { Quantity } from '@yosegi/core/number';
import type { Place } from '@yosegi/core/stock';
import type { Reader } from '../db/database.ts';
import { decimal } from '../http/amounts.ts';

/** Some of an item at one place: in a bin or on a bench, of one lot or serial. */
export interface StandingRow {
  item_id: number;
  bin_id: number;
  bin: string;
  store_id: number;
  store: string;
  kind: 'shelf' | 'bench' | 'quarantine';
  lot_id: number | null;
  lot: string | null;
  best_before: string | null;
  serial_id: number | null;
  serial: string | null;
  build_id: number | null;
  build: string | null;
  quantity: number;
  /** Why it may not be used; null while it may. */
  held: string | null;
}

const STANDING_SQL = `
  SELECT b.item_id, b.bin_id, n.code AS bin, n.store_id, t.name AS store, n.kind, b.lot_id, l.code AS lot, l.best_before,
    b.serial_id, s.code AS serial, b.build_id, u.number AS build, b.quantity,
    coalesce(l.held, s.held, iif(n.kind = 'quarantine', 'in quarantine', NULL)) AS held
  FROM balance b JOIN bin n ON n.id = b.bin_id JOIN store t ON t.id = n.store_id
  LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id LEFT JOIN build u ON u.id = b.build_id`;
/** In walking order; in a bin the first to expire first. */
const ORDER = `ORDER BY t.id, n.walk_order, n.code, ifnull(l.best_before, '9999'), b.lot_id, s.code, b.build_id`;

/** Everything that stands anywhere of these items, in walking order. */
export const standingOf = (db: Reader, itemIds: readonly number[]) =>
  db.all<StandingRow>(`${STANDING_SQL} WHERE b.item_id IN (SELECT value FROM json_each($1)) ${ORDER}`, [
    JSON.stringify(itemIds),
  ]);

/** What of these items can be taken from shelves: neither in quarantine nor held. */
export const usableOf = async (db: Reader, itemIds: readonly number[]) =>
  (await standingOf(db, itemIds)).filter((row) => row.build_id === null && row.kind === 'shelf' && row.held === null);

/** What stands on benches for a build. */
export const benchOfBuild = (db: Reader, buildId: number) =>
  db.all<StandingRow>(`${STANDING_SQL} WHERE b.build_id = $1 ${ORDER}`, [buildId]);

export const placeIn = (row: StandingRow): Place => ({
  itemId: row.item_id,
  binId: row.bin_id,
  lotId: row.lot_id,
  serialId: row.serial_id,
  buildId: row.build_id,
});
export const standingAt = (row: StandingRow) => ({ place: placeIn(row), quantity: row.quantity as Quantity });

/** The most lots and serials of a bin that are listed; its quantity is always whole. */
const MOST_PIECES = 500;

export const toPiece = (row: StandingRow): Piece => ({
  lot: row.lot,
  bestBefore: row.best_before,
  serial: row.serial,
  quantity: decimal(row.quantity),
  held: row.held,
});

/** Rows of one item put together bin by bin, and on a bench build by build. */
export function byBin(rows: readonly StandingRow[]): (BinQuantity & Pick<StandingRow, 'kind' | 'build'>)[] {
  const bins = new Map<string, StandingRow[]>();
  for (const row of rows) {
    const key = `${row.bin_id}:${row.build_id}`;
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
      build: first.build,
      quantity: decimal(quantity),
      pieces: tracked.slice(0, MOST_PIECES).map(toPiece),
    };
  });
}
