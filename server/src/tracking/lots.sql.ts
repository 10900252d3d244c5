import type { LotRow, SerialRow } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { type Money, mulDiv, type Quantity, worthForText } from '@yosegi/core/number';
import { monthsAfter, readMonths, type UnitState } from '@yosegi/core/tracking';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found, type QueryOf } from '../command/doing.ts';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { containing, cursorAfter, page, readCursor } from '../db/pages.ts';
import { averageCostOf, type ItemRow, itemRows } from '../items/index.ts';
import { STANDS } from '../ledger/index.ts';
import { clashesOf } from './sql.ts';
import { warrantyOf } from './warranty.sql.ts';

/** What each order sorts by; a lot that keeps comes after all days. */
const LOT_SORTS: Record<QueryOf<'lots'>['sort'], string> = {
  bestBefore: "ifnull(best_before, '9999')",
  code: 'code COLLATE NOCASE',
  item: 'item COLLATE NOCASE',
  quantity: 'quantity',
};

/** Lots of which something is left, in the order asked for. */
export async function listLots(db: Reader, query: QueryOf<'lots'>) {
  const sort = LOT_SORTS[query.sort];
  const [key, after] = query.cursor ? readCursor(query.cursor) : [null, 0];
  const [beyond, direction] = query.down ? ['<', 'DESC'] : ['>', 'ASC'];
  const rows = await db.all<LotRecord>(
    `SELECT *, ${sort} AS sort_key FROM (
       SELECT l.id, l.item_id, i.name AS item, i.code AS item_code, u.code AS unit, u.decimals, l.code, l.best_before, l.attributes, i.lot_fields, l.held,
         (SELECT sum(quantity) FROM balance WHERE lot_id = l.id) AS quantity,
         ifnull((SELECT sum(quantity) FROM balance WHERE lot_id = l.id AND holder_kind = 'return'), 0) AS in_returns,
         ifnull((SELECT sum(value - settled_value) FROM return_standing WHERE lot_id = l.id), 0) AS returned_value,
         (SELECT group_concat(place, ', ') FROM (SELECT DISTINCT t.name || ' ' || n.code AS place FROM balance p
            JOIN bin n ON n.id = p.bin_id JOIN store t ON t.id = n.store_id WHERE p.lot_id = l.id
            ORDER BY t.id, n.picking_order)) AS bins
       FROM lot l JOIN item i ON i.id = l.item_id JOIN unit u ON u.id = i.unit_id
       WHERE EXISTS (SELECT 1 FROM balance WHERE lot_id = l.id)
         AND ($1 IS NULL OR l.item_id = $1) AND ($2 IS NULL OR l.best_before <= $2) AND ($3 = 0 OR l.held IS NOT NULL)
         AND (l.code LIKE $4 ESCAPE '\\' OR l.attributes LIKE $4 ESCAPE '\\' OR i.code LIKE $4 ESCAPE '\\' OR i.name LIKE $4 ESCAPE '\\'))
     WHERE $5 IS NULL OR ${sort} ${beyond} $5 OR (${sort} = $5 AND id > $6)
     ORDER BY ${sort} ${direction}, id LIMIT $7`,
    [
      query.itemId ?? null,
      query.until ?? null,
      query.held ? 1 : 0,
      containing(query.q ?? ''),
      key,
      after,
      query.limit + 1,
    ],
  );
  const { rows: shown, next } = page(rows, query.limit, (row) => cursorAfter(row.sort_key, row.id));
  const items = await itemRows(
    db,
    shown.map((row) => row.item_id),
  );
  return {
    rows: shown.map(
      ({
        item_id,
        item_code,
        best_before,
        attributes,
        lot_fields,
        in_returns,
        returned_value,
        sort_key: _,
        ...row
      }): LotRow => ({
        ...row,
        attributes: JSON.parse(attributes),
        fields: JSON.parse(lot_fields),
        itemId: item_id,
        itemCode: item_code,
        bestBefore: best_before,
        quantity: decimal(row.quantity),
        value: decimal(
          BigInt(shareOfValue((row.quantity - in_returns) as Quantity, found(items.get(item_id)))) +
            BigInt(returned_value),
        ),
      }),
    ),
    next,
  };
}

interface LotRecord
  extends Pick<Row<'lot'>, 'id' | 'item_id' | 'code' | 'best_before' | 'attributes' | 'held'>,
    Pick<Row<'item'>, 'lot_fields'>,
    Pick<Row<'unit'>, 'decimals'> {
  item: string;
  item_code: string;
  unit: string;
  quantity: number;
  /** Of it held in returns, and at what that left. */
  in_returns: number;
  returned_value: number;
  bins: string;
  sort_key: string | number;
}

/** What so much of an item is worth: its part of the item's value, not a rounded average times the quantity. */
const shareOfValue = (quantity: Quantity, item: ItemRow): number | bigint =>
  item.quantity > 0 && quantity <= item.quantity
    ? mulDiv(item.value, quantity, item.quantity, 'nearest')
    : worthForText(quantity, averageCostOf(item));

/** Where a serial is in its life: told by what it stands for, else by what it left with. */
export const STATE = `CASE WHEN EXISTS (SELECT 1 FROM repair WHERE serial_id = s.id AND state <> 'given-back') THEN 'customer’s'
    ELSE CASE (SELECT ifnull(holder_kind, 'shelf') FROM balance WHERE serial_id = s.id LIMIT 1)
      WHEN 'shelf' THEN 'in stock' WHEN 'build' THEN 'in work' WHEN 'parcel' THEN 'in a parcel' WHEN 'return' THEN 'returned'
      ELSE CASE ifnull((SELECT d.kind FROM movement m JOIN document d ON d.id = m.document_id WHERE m.serial_id = s.id
          AND d.kind <> 'undo' AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) ORDER BY m.id DESC LIMIT 1), '')
        WHEN 'return-settled' THEN iif((SELECT o.outcome FROM return_outcome o JOIN return_piece p ON p.id = o.piece_id
            AND p.serial_id = s.id WHERE NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)
            ORDER BY o.document_id DESC LIMIT 1) = 'sent-back', 'sold', 'scrapped')
        WHEN 'shipment' THEN 'sold' WHEN 'finish' THEN 'built in'
        WHEN '' THEN iif(EXISTS (SELECT 1 FROM repair WHERE serial_id = s.id), 'given back', 'never ours')
        ELSE 'scrapped' END END END`;
/** What of those states is listed and counted: nothing that stands only in what was undone. */
export const LISTED = "state <> 'never ours'";

/** The serials of an item by code, with where each is or went. */
export async function listSerials(db: Reader, itemId: number, query: QueryOf<'serials'>) {
  const rows = await db.all<Pick<Row<'serial'>, 'id' | 'code' | 'value' | 'held'> & { state: UnitState }>(
    `SELECT * FROM (SELECT s.id, s.code, s.value, s.held, ${STATE} AS state FROM serial s
       WHERE s.item_id = $1 AND s.code LIKE $2 ESCAPE '\\' AND s.code > $3)
     WHERE ${LISTED} AND ($4 = '' OR state = $4) ORDER BY code LIMIT $5`,
    [itemId, containing(query.q ?? ''), query.cursor ?? '', query.state ?? '', query.limit + 1],
  );
  const shown = rows.slice(0, query.limit);
  const known = await clashesOf(
    db,
    itemId,
    shown.map(({ code }) => code),
  );
  const where = new Map(known.map((one) => [one.id, one]));
  const sold = await soldOf(
    db,
    itemId,
    shown.flatMap(({ id, state }) => (state === 'sold' ? id : [])),
  );
  return {
    rows: shown.map((row): SerialRow => {
      const own = where.get(row.id);
      return {
        id: row.id,
        itemId,
        code: row.code,
        where: own && (own.inStock || own.inRepair || own.wasHere) ? own.says : 'was never ours',
        inStock: own?.inStock ?? false,
        state: row.state,
        sold: toldOf(sold.get(row.id)),
        cost: decimalOrNull(row.value),
        held: row.held,
      };
    }),
    next: rows.length > query.limit ? (shown.at(-1)?.code ?? null) : null,
  };
}

/** How a unit left: with which order, to whom, at what price and cost, and until when its warranty lasts. */
export interface Sold {
  readonly orderId: number;
  readonly order: string;
  readonly customer: string;
  readonly on: string;
  readonly price: Money | null;
  readonly cost: Money;
  readonly warrantyUntil: string | null;
}

const toldOf = (sold: Sold | undefined): SerialRow['sold'] =>
  sold ? { ...sold, price: decimalOrNull(sold.price), cost: decimal(sold.cost) } : null;

/** With which order each serial left last, what it brought and what it cost; its warranty counts from that day. */
export async function soldOf(db: Reader, itemId: number, serialIds: readonly number[]) {
  const rows = await db.all<{
    serial_id: number;
    order_id: number;
    number: string;
    customer: string;
    at: string;
    price: Money | null;
    cost: Money;
  }>(
    `SELECT m.serial_id, o.id AS order_id, o.number, c.name AS customer, d.at, -m.value AS cost, max(m.id),
       iif(l.item_id = m.item_id, k.price, NULL) AS price
     FROM movement m JOIN document d ON d.id = m.document_id AND d.kind = 'shipment'
     JOIN order_part p ON p.id = m.line_id JOIN order_line l ON l.id = p.line_id
     JOIN shipment_line k ON k.document_id = d.id AND k.line_id = l.id
     JOIN sales_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id
     WHERE m.serial_id IN (SELECT value FROM json_each($1)) AND ${STANDS} GROUP BY m.serial_id`,
    [JSON.stringify(serialIds)],
  );
  const field = await db.one<{ value: string | null }>(`SELECT ${warrantyOf('$1')} AS value`, [itemId]);
  const months = field?.value ? readMonths(field.value) : null;
  return new Map(
    rows.map((row) => {
      const on = dayOf(new Date(row.at));
      const sold: Sold = {
        orderId: row.order_id,
        order: row.number,
        customer: row.customer,
        on,
        price: row.price,
        cost: row.cost,
        warrantyUntil: months === null ? null : monthsAfter(on, months),
      };
      return [row.serial_id, sold];
    }),
  );
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

/** What has some of these lots and serials in its parcel or on its bench: it cannot go on with them while they are held. */
export const stoppedBy = (db: Reader, { lotIds, serialIds }: Record<'lotIds' | 'serialIds', readonly number[]>) =>
  db.all<{ kind: 'order' | 'build'; id: number; number: string }>(
    `SELECT DISTINCT iif(b.holder_kind = 'parcel', 'order', 'build') AS kind, coalesce(o.id, u.id) AS id, coalesce(o.number, u.number) AS number
     FROM balance b LEFT JOIN parcel p ON b.holder_kind = 'parcel' AND p.id = b.holder_id LEFT JOIN sales_order o ON o.id = p.order_id
     LEFT JOIN build u ON b.holder_kind = 'build' AND u.id = b.holder_id
     WHERE b.holder_kind IN ('parcel', 'build') AND b.quantity > 0
       AND (b.lot_id IN (SELECT value FROM json_each($1)) OR b.serial_id IN (SELECT value FROM json_each($2)))
     ORDER BY 1 DESC, 2 LIMIT 200`,
    [JSON.stringify(lotIds), JSON.stringify(serialIds)],
  );
