import type { LotRow, SerialRow, trackedRoutes } from '@yosegi/contract';
import { mulDiv, type Quantity, worthForText } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader, Writer } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { type Doing, dayOf, found, type HandlersOf } from '../http/context.ts';
import { containing } from '../http/pages.ts';
import { averageCostOf, type ItemRow, itemRow, itemRows } from '../items/store.ts';
import { clashesOf, nextFree } from './serials.ts';
import { DAY_PASSED } from './tracked.ts';

export const trackedHandlers: HandlersOf<typeof trackedRoutes> = {
  async checkSerials({ db, params, body }) {
    const item = found(await itemRow(db, params.id));
    const clashes = await clashesOf(db, item.id, body.codes);
    return {
      clashes: clashes.filter(({ inStock, wasHere }) => inStock || wasHere).map(({ code, says }) => ({ code, says })),
      nextFree: await nextFree(db, item, body.count),
    };
  },
  lots: ({ db, query }) => listLots(db, query),
  serials: ({ db, params, query }) => listSerials(db, params.id, query),
  hold: (command) => hold(command, command.body),
  release: (command) => release(command, command.body),
};

interface LotQuery {
  readonly itemId?: number | undefined;
  readonly q?: string | undefined;
  readonly until?: string | undefined;
  readonly held: boolean;
  readonly cursor?: string | undefined;
  readonly limit: number;
}

/** Lots of which something is left, the first to expire first; those that keep come last. */
async function listLots(db: Reader, query: LotQuery) {
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
async function listSerials(
  db: Reader,
  itemId: number,
  query: { q?: string | undefined; cursor?: string | undefined; limit: number },
) {
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

interface Chosen {
  readonly lotIds: readonly number[];
  readonly serialIds: readonly number[];
}

/** Keeps lots and serials from being used, wherever they stand, until an owner releases them. */
async function hold(doing: Doing, input: Chosen & { reasonId: number; remark: string }): Promise<{ held: number }> {
  const { tx, person, now } = doing;
  const sql = "SELECT name FROM reason WHERE id = $1 AND used_for = 'hold'";
  const reason = await tx.one<{ name: string }>(sql, [input.reasonId]);
  if (!reason) throw new Refusal('unknown-choice', {}, 'reasonId');
  const words = input.remark ? `${reason.name}: ${input.remark}` : reason.name;
  return { held: await setHeld(doing, input, [words, now.toISOString(), person.id]) };
}

const release = async (doing: Doing, input: Chosen) => ({
  released: await setHeld(doing, input, [null, null, null]),
});

async function setHeld(
  { tx, changed }: Doing,
  { lotIds, serialIds }: Chosen,
  values: [string | null, string | null, number | null],
): Promise<number> {
  let count = 0;
  for (const [table, ids] of [
    ['lot', lotIds],
    ['serial', serialIds],
  ] as const) {
    const rows = await tx.all<{ id: number }>(
      `UPDATE ${table} SET held = $1, held_at = $2, held_by = $3 WHERE id IN (SELECT value FROM json_each($4)) RETURNING id`,
      [...values, JSON.stringify(ids)],
    );
    if (rows.length < new Set(ids).size) throw new Refusal('not-found');
    count += rows.length;
  }
  if (count === 0) throw new Refusal('not-found');
  changed('stock', 'items', 'builds');
  return count;
}

/** Holds lots whose day has passed; one that an owner released after that stays released. @returns how many */
export async function holdPassed(tx: Writer, now: Date): Promise<number> {
  const rows = await tx.all<{ id: number }>(
    `UPDATE lot SET day_passed = 1, held = ifnull(held, $1), held_at = ifnull(held_at, $2)
     WHERE best_before < $3 AND day_passed = 0 RETURNING id`,
    [DAY_PASSED, now.toISOString(), dayOf(now)],
  );
  return rows.length;
}
