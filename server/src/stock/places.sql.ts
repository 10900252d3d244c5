import type { StockPlaces } from '@yosegi/contract';
import { spreadPromises } from '@yosegi/core/demand';
import { writeSerials } from '@yosegi/core/tracking';
import { decimal } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { itemRows, toItem } from '../items/index.ts';
import { type BalanceRow, balancesOf } from '../ledger/index.ts';

type Row = StockPlaces['rows'][number]['places'][number];
/** The most serials that are named at one place; its quantity is always whole. */
const MOST_SERIALS = 200;

/** Everything that stands anywhere, by item: bin by bin, lot by lot, serial by serial, with what of it is promised. */
export async function stockPlaces(db: Reader, query: QueryOf<'stockPlaces'>): Promise<StockPlaces> {
  const ids = await db.all<{ id: number; code: string }>(
    `SELECT i.id, i.code FROM item i WHERE i.code > $1 COLLATE NOCASE AND EXISTS (
       SELECT 1 FROM balance b JOIN bin n ON n.id = b.bin_id LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id
       WHERE b.item_id = i.id AND ($2 = 0 OR n.store_id = $2) AND ($3 = 0 OR n.id = $3)
         AND ($4 = 0 OR l.held IS NOT NULL OR s.held IS NOT NULL OR n.kind = 'quarantine')
         AND (i.code LIKE $5 ESCAPE '\\' OR i.name LIKE $5 ESCAPE '\\' OR l.code LIKE $5 ESCAPE '\\' OR s.code LIKE $5 ESCAPE '\\'))
     ORDER BY i.code COLLATE NOCASE LIMIT $6`,
    [
      query.cursor ?? '',
      query.storeId ?? 0,
      query.binId ?? 0,
      query.held ? 1 : 0,
      containing(query.q ?? ''),
      query.limit + 1,
    ],
  );
  const shown = ids.slice(0, query.limit);
  const itemIds = shown.map(({ id }) => id);
  const items = await itemRows(db, itemIds);
  const standing = await balancesOf(db, itemIds);
  const fits = (row: BalanceRow) =>
    (query.storeId === undefined || row.store_id === query.storeId) &&
    (query.binId === undefined || row.bin_id === query.binId) &&
    (!query.held || row.held !== null);
  return {
    rows: itemIds.map((id) => {
      const item = found(items.get(id));
      const own = standing.filter((row) => row.item_id === id);
      // Spread over all of it first: a filter must not change what is promised where.
      const promised = spreadPromises(
        own.map((row) => ({ quantity: row.quantity, usable: isUsable(row) })),
        item.promised,
      );
      const places = own.map((row, index) => ({ row, promised: promised[index] ?? 0 })).filter(({ row }) => fits(row));
      return { item: toItem(item), places: together(places) };
    }),
    next: ids.length > query.limit ? (shown.at(-1)?.code ?? null) : null,
  };
}

const isUsable = (row: BalanceRow) => row.holder_id === null && row.kind === 'shelf' && row.held === null;

/** Serials of one place that are alike stand in one row. */
function together(places: readonly { row: BalanceRow; promised: number }[]): Row[] {
  const rows = new Map<string, { first: BalanceRow; serials: string[]; quantity: number; promised: number }>();
  for (const { row, promised } of places) {
    const key = [row.bin_id, row.lot_id, row.holder_kind, row.holder_id, row.held].join('|');
    const known = rows.get(key) ?? { first: row, serials: [], quantity: 0, promised: 0 };
    known.quantity += row.quantity;
    known.promised += promised;
    if (row.serial !== null) known.serials.push(row.serial);
    rows.set(key, known);
  }
  return [...rows.values()].map(({ first, serials, quantity, promised }) => ({
    binId: first.bin_id,
    bin: first.bin,
    store: first.store,
    kind: first.kind,
    build: first.holder,
    lot: first.lot,
    bestBefore: first.best_before,
    serials: writeSerials(serials.slice(0, MOST_SERIALS)),
    held: first.held,
    quantity: decimal(quantity),
    promised: decimal(promised),
    free: decimal(isUsable(first) ? quantity - promised : 0),
  }));
}
