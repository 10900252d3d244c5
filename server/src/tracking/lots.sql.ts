import type { LotRow, SerialRow } from '@yosegi/contract';
import { mulDiv, type Quantity, worthForText } from '@yosegi/core/number';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { averageCostOf, type ItemRow, itemRows } from '../items/index.ts';
import { clashesOf } from './sql.ts';

/** Lots of which something is left, the first to expire first; those that keep come last. */
export async function listLots(db: Reader, query: QueryOf<'lots'>) {
  const [day, id] = query.cursor?.split('|') ?? ['', '0'];
  const rows = await db.all<Omit<LotRow, 'quantity' | 'value' | 'bins'> & { quantity: number; bins: string }>(
    `SELECT l.id, l.item_id AS itemId, i.name AS item, i.code AS itemCode, u.code AS unit, u.decimals, l.code,
       l.best_before AS bestBefore, l.held, sum(b.quantity) AS quantity,
       (SELECT group_concat(place, ', ') FROM (SELECT DISTINCT t.name || ' ' || n.code AS place FROM balance p
          JOIN bin n ON n.id = p.bin_id JOIN store t ON t.id = n.store_id WHERE p.lot_id = l.id
          ORDER BY t.id, n.walk_order)) AS bins
     FROM lot l JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id JOIN balance b ON b.lot_id = l.id
     WHERE ($1 IS NULL OR l.item_id = $1) AND ($2 IS NULL OR l.best_before <= $2) AND ($3 = 0 OR l.held IS NOT NULL)
       AND (l.code LIKE $4 ESCAPE '\\' OR i.code LIKE $4 ESCAPE '\\' OR i.name LIKE $4 ESCAPE '\\')
       AND (ifnull(l.best_before, '9999'), l.id) > ($5, $6)
     GROUP BY l.id ORDER BY ifnull(l.best_before, '9999'), l.id LIMIT $7`,
    [
      query.itemId ?? null,
      query.until ?? null,
      query.held ? 1 : 0,
      containing(query.q ?? ''),
      day ?? '',
      Number(id),
      query.limit + 1,
    ],
  );
  const shown = rows.slice(0, query.limit);
  const last = shown.at(-1);
  const items = await itemRows(
    db,
    shown.map((row) => row.itemId),
  );
  return {
    rows: shown.map((row) => ({
      ...row,
      quantity: decimal(row.quantity),
      value: decimal(shareOfValue(row.quantity as Quantity, found(items.get(row.itemId)))),
    })),
    next: rows.length > query.limit && last ? `${last.bestBefore ?? '9999'}|${last.id}` : null,
  };
}

/** What so much of an item is worth: its part of the item's value, not a rounded average times the quantity. */
const shareOfValue = (quantity: Quantity, item: ItemRow): number | bigint =>
  item.quantity > 0 && quantity <= item.quantity
    ? mulDiv(item.value, quantity, item.quantity, 'nearest')
    : worthForText(quantity, averageCostOf(item));

/** The serials of an item by code, with where each is or went. */
export async function listSerials(db: Reader, itemId: number, query: QueryOf<'serials'>) {
  const rows = await db.all<{ id: number; code: string; value: number | null; held: string | null }>(
    `SELECT id, code, value, held FROM serial WHERE item_id = $1 AND code LIKE $2 ESCAPE '\\' AND code > $3
     ORDER BY code LIMIT $4`,
    [itemId, containing(query.q ?? ''), query.cursor ?? '', query.limit + 1],
  );
  const shown = rows.slice(0, query.limit);
  const where = new Map(
    (
      await clashesOf(
        db,
        itemId,
        shown.map(({ code }) => code),
      )
    ).map((known) => [known.id, known]),
  );
  return {
    rows: shown.map((row): SerialRow => {
      const known = where.get(row.id);
      return {
        id: row.id,
        itemId,
        code: row.code,
        where: known?.inStock || known?.wasHere ? known.says : 'was never here',
        inStock: known?.inStock ?? false,
        cost: decimalOrNull(row.value),
        held: row.held,
      };
    }),
    next: rows.length > query.limit ? (shown.at(-1)?.code ?? null) : null,
  };
}

/** Holds lots whose day has passed, once. @returns how many */
export async function passDays(tx: Writer, why: string, at: string, today: string): Promise<number> {
  const rows = await tx.all<{ id: number }>(
    `UPDATE lot SET day_passed = 1, held = ifnull(held, $1), held_at = ifnull(held_at, $2)
     WHERE best_before < $3 AND day_passed = 0 RETURNING id`,
    [why, at, today],
  );
  return rows.length;
}
