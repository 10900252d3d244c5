import type { Item, ItemDetail, Measure } from '@yosegi/contract';
import type { ItemAround } from '@yosegi/core/items';
import { groupBy } from '@yosegi/core/lists';
import { add, LARGEST_OF_ITEM, minus, type Quantity, stepOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal, decimalOrNull } from '../command/amounts.ts';
import { found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { withBuiltCosts } from './built-costs.sql.ts';
import { averageCostOf, type Costs, costFrom } from './costs.ts';

/** An item joined with its unit, bin and stock, as the database has it. */
export interface ItemRow
  extends Row<'item'>,
    Pick<Row<'unit'>, 'decimals'>,
    Pick<Row<'item_stock'>, 'quantity' | 'value' | 'last_cost' | 'returned_quantity' | 'returned_value'> {
  unit: string;
  /** Packs and related units as JSON: [name, millionths of the stock unit]. */
  measures: string;
  picture: string | null;
  home_bin: string | null;
  on_bench: Quantity;
  /** On shelves and not held. */
  usable: Quantity;
  promised: Quantity;
  coming: Quantity;
  definition_id: number | null;
  built?: Costs['built'];
}

export const ITEM_SQL = `
  SELECT i.id, i.code, i.name, i.unit_id, u.code AS unit, u.decimals,
    (SELECT json_group_array(json_array(name, one)) FROM (
      SELECT name, quantity AS one FROM item_pack WHERE item_id = i.id
      UNION ALL SELECT name, one FROM unit_related WHERE unit_id = i.unit_id)) AS measures,
    i.source, i.tracking, i.lot_order, i.lot_fields, i.return_days, i.serial_pattern, i.tax_free, i.barcode, i.archived_at,
    (SELECT hash FROM picture WHERE item_id = i.id) AS picture, i.home_bin_id, b.code AS home_bin,
    i.sell_price, i.reorder_point, i.standard_cost, i.latest_cost, i.note, i.version,
    ifnull(s.quantity, 0) AS quantity, ifnull(s.value, 0) AS value, ifnull(s.last_cost, 0) AS last_cost,
    ifnull(s.returned_quantity, 0) AS returned_quantity, ifnull(s.returned_value, 0) AS returned_value,
    ifnull((SELECT sum(quantity) FROM balance WHERE item_id = i.id AND holder_kind <> 'return'), 0) AS on_bench,
    ifnull((SELECT sum(quantity) FROM usable WHERE item_id = i.id), 0) AS usable,
    ifnull((SELECT sum(quantity) FROM demand_of_builds WHERE item_id = i.id), 0)
      + ifnull((SELECT sum(quantity) FROM demand_of_orders WHERE item_id = i.id), 0) AS promised,
    ifnull((SELECT sum(quantity) FROM coming_bought WHERE item_id = i.id), 0)
      + ifnull((SELECT sum(quantity) FROM coming_built WHERE item_id = i.id), 0) AS coming,
    (SELECT id FROM definition WHERE item_id = i.id AND purpose = 'build') AS definition_id
  FROM item i
  JOIN unit u ON u.id = i.unit_id
  LEFT JOIN bin b ON b.id = i.home_bin_id
  LEFT JOIN item_stock s ON s.item_id = i.id`;

/** What a new build may count on; below zero when more is promised than is there. */
export const freeOf = (row: Pick<ItemRow, 'usable' | 'promised'>) => minus(row.usable, row.promised);

export function toItem(row: ItemRow): Item {
  const onHand = row.quantity + row.returned_quantity - row.on_bench;
  return {
    id: row.id,
    code: row.code,
    name: row.name,
    unitId: row.unit_id,
    unit: row.unit,
    decimals: row.decimals,
    measures: toMeasures(row.measures),
    source: row.source,
    tracking: row.tracking,
    lotOrder: row.lot_order,
    returnDays: row.return_days,
    lotFields: JSON.parse(row.lot_fields) as string[],
    serialPattern: row.serial_pattern,
    taxFree: row.tax_free === 1,
    barcode: row.barcode,
    archived: row.archived_at !== null,
    picture: row.picture,
    homeBinId: row.home_bin_id,
    homeBin: row.home_bin,
    sellPrice: decimalOrNull(row.sell_price),
    reorderPoint: decimalOrNull(row.reorder_point),
    note: row.note,
    averageCost: decimal(averageCostOf(row)),
    costFrom: costFrom(row),
    latestCost: decimalOrNull(row.latest_cost),
    standardCost: decimalOrNull(row.standard_cost),
    onHand: decimal(onHand),
    onBench: decimal(row.on_bench),
    held: decimal(onHand - row.usable),
    promised: decimal(row.promised),
    free: decimal(freeOf(row)),
    coming: decimal(row.coming),
    value: decimal(add(row.value, row.returned_value)),
    returned: decimal(row.returned_quantity),
    returnedValue: decimal(row.returned_value),
    definitionId: row.definition_id,
    version: row.version,
  };
}

/** Packs and related units from the JSON that {@link ITEM_SQL} makes of them. */
export const toMeasures = (json: string): Measure[] =>
  (JSON.parse(json) as [string, number][]).map(([name, one]) => ({ name, one: decimal(one) }));

export async function itemRow(db: Reader, id: number): Promise<ItemRow | undefined> {
  const row = await db.one<ItemRow>(`${ITEM_SQL} WHERE i.id = $1`, [id]);
  if (row) await withBuiltCosts(db, [row]);
  return row;
}

/**
 * Refuses to promise or await more of an item than can be kept exactly, so that nothing that is read of it is inexact.
 * @throws Refusal `too-large`
 */
export async function refuseTooMuch(db: Reader, ids: readonly number[], field?: string): Promise<void> {
  for (const { promised, coming } of (await itemRows(db, ids)).values())
    if (promised > LARGEST_OF_ITEM || coming > LARGEST_OF_ITEM)
      throw new Refusal('too-large', { largest: LARGEST_OF_ITEM }, field);
}

/** Items by id, for lines that refer to several. */
export async function itemRows(db: Reader, ids: readonly number[]): Promise<Map<number, ItemRow>> {
  const rows = await db.all<ItemRow>(`${ITEM_SQL} WHERE i.id IN (SELECT value FROM json_each($1))`, [
    JSON.stringify(ids),
  ]);
  await withBuiltCosts(db, rows);
  return new Map(rows.map((row) => [row.id, row]));
}

/** An item with its packs, suppliers and custom fields. */
export async function readItem(db: Reader, id: number): Promise<ItemDetail> {
  const row = found(await itemRow(db, id));
  const packs = await db.all<{ name: string; quantity: number }>(
    'SELECT name, quantity FROM item_pack WHERE item_id = $1 ORDER BY quantity, name',
    [id],
  );
  const suppliers = await db.all<{
    supplier_id: number;
    supplier: string;
    name: string;
    code: string;
    price: number;
    pack: number;
    minimum: number;
    lead_days: number | null;
  }>(
    `SELECT p.supplier_id, s.code AS supplier, s.name, p.code, p.price, p.pack, p.minimum, p.lead_days
     FROM item_supplier p JOIN supplier s ON s.id = p.supplier_id WHERE p.item_id = $1 ORDER BY p.price, s.code`,
    [id],
  );
  const breaks = await breaksOf(db, [id]);
  const fields = await db.all<{ name: string; value: string }>(
    'SELECT name, value FROM item_field WHERE item_id = $1 ORDER BY name',
    [id],
  );
  return {
    ...toItem(row),
    packs: packs.map(({ name, quantity }) => ({ name, one: decimal(quantity) })),
    suppliers: suppliers.map(({ supplier_id, lead_days, price, pack, minimum, ...rest }) => ({
      ...rest,
      supplierId: supplier_id,
      price: decimal(price),
      pack: decimal(pack),
      minimum: decimal(minimum),
      leadDays: lead_days,
      breaks: (breaks.get(`${id}:${supplier_id}`) ?? []).map(toBreak),
    })),
    fields,
    hasHistory: await hasHistory(db, id),
  };
}

type BreakRow = Row<'item_supplier_break'>;

/** Price breaks of items, by item and supplier, the smallest quantity first. */
export async function breaksOf(db: Reader, itemIds: readonly number[]): Promise<Map<string, BreakRow[]>> {
  const rows = await db.all<BreakRow>(
    `SELECT item_id, supplier_id, from_quantity, price FROM item_supplier_break
     WHERE item_id IN (SELECT value FROM json_each($1)) ORDER BY item_id, supplier_id, from_quantity`,
    [JSON.stringify(itemIds)],
  );
  return groupBy(rows, ({ item_id, supplier_id }) => `${item_id}:${supplier_id}`);
}

export const toBreak = ({ from_quantity, price }: BreakRow) => ({
  from: decimal(from_quantity),
  price: decimal(price),
});

/** Finds anything that was counted, defined, planned or ordered of the item `i`. */
export const HISTORY = `SELECT 1 FROM movement WHERE item_id = i.id UNION ALL SELECT 1 FROM revision_line WHERE item_id = i.id
  UNION ALL SELECT 1 FROM revision_line_alternate WHERE item_id = i.id
  UNION ALL SELECT 1 FROM definition WHERE item_id = i.id UNION ALL SELECT 1 FROM build WHERE item_id = i.id
  UNION ALL SELECT 1 FROM build_line WHERE item_id = i.id
  UNION ALL SELECT 1 FROM stock_count_line WHERE item_id = i.id
  UNION ALL SELECT 1 FROM purchase_order_line WHERE item_id = i.id
  UNION ALL SELECT 1 FROM order_line WHERE item_id = i.id
  UNION ALL SELECT 1 FROM order_part WHERE item_id = i.id OR base_item_id = i.id LIMIT 1`;
/** Whether any of the item `i` stands anywhere, also below zero. */
export const HAS_STOCK = 'EXISTS (SELECT 1 FROM balance WHERE item_id = i.id AND quantity <> 0)';
/** Whether anything still needs the item `i`. */
export const IS_PROMISED = 'EXISTS (SELECT 1 FROM demand WHERE item_id = i.id)';
/** Whether the item `i` is a kit that is packed per order. */
export const IS_PACKED = "EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND made = 'packed-per-order')";

/** What there is of an item beside its record. */
export async function aroundItem(db: Reader, id: number): Promise<ItemAround> {
  const row = await db.one<Record<'history' | 'stock' | 'promised' | 'packed', number>>(
    `SELECT EXISTS (${HISTORY}) AS history, ${HAS_STOCK} AS stock, ${IS_PROMISED} AS promised, ${IS_PACKED} AS packed
     FROM item i WHERE i.id = $1`,
    [id],
  );
  return {
    hasHistory: row?.history === 1,
    hasStock: row?.stock === 1,
    isPromised: row?.promised === 1,
    isPacked: row?.packed === 1,
  };
}

/** A revision with this part that comes into use on a day to come. */
export const dueWith = (db: Reader, itemId: number) =>
  db.one<{ code: string; on: string }>(
    `SELECT i.code, r.in_use_from AS "on" FROM revision_line l JOIN revision r ON r.id = l.revision_id
     JOIN definition d ON d.id = r.definition_id JOIN item i ON i.id = d.item_id
     WHERE l.item_id = $1 AND r.state = 'draft' AND r.in_use_from IS NOT NULL ORDER BY r.in_use_from LIMIT 1`,
    [itemId],
  );

/** Whether anything was counted, defined or planned of an item; it can then be archived, but not deleted. */
export const hasHistory = async (db: Reader, id: number): Promise<boolean> => (await aroundItem(db, id)).hasHistory;

/** The items that have a picture. */
export const listPictures = (db: Reader) =>
  db.all<{ itemId: number; code: string; hash: string }>(
    'SELECT p.item_id AS itemId, i.code, p.hash FROM picture p JOIN item i ON i.id = p.item_id ORDER BY i.code LIMIT 20000',
  );

/** Quantities in an item's unit, as far as they do not stand in another of these too: a receipt's are its movements'. */
const QUANTITIES = `
  SELECT item_id, quantity FROM movement
  UNION ALL SELECT item_id, amount FROM revision_line WHERE kind = 'part'
  UNION ALL SELECT item_id, amount FROM build_line WHERE kind = 'part'
  UNION ALL SELECT item_id, quantity FROM build
  UNION ALL SELECT item_id, quantity FROM order_line
  UNION ALL SELECT item_id, amount FROM order_part
  UNION ALL SELECT item_id, base_amount FROM order_part
  UNION ALL SELECT d.item_id, r.output_quantity FROM revision r JOIN definition d ON d.id = r.definition_id
  UNION ALL SELECT item_id, quantity FROM item_pack
  UNION ALL SELECT item_id, pack FROM item_supplier
  UNION ALL SELECT item_id, minimum FROM item_supplier
  UNION ALL SELECT item_id, from_quantity FROM item_supplier_break
  UNION ALL SELECT item_id, quantity FROM purchase_order_line
  UNION ALL SELECT item_id, confirmed_quantity FROM purchase_order_line WHERE confirmed_quantity IS NOT NULL
  UNION ALL SELECT l.item_id, n.quantity FROM purchase_need n JOIN purchase_order_line l ON l.id = n.line_id
  UNION ALL SELECT item_id, counted FROM stock_count_line WHERE counted IS NOT NULL
  UNION ALL SELECT item_id, expected FROM stock_count_line WHERE expected IS NOT NULL
  UNION ALL SELECT item_id, damaged FROM take_apart_line
  UNION ALL SELECT l.item_id, f.actual FROM finish_line f JOIN build_line l ON l.id = f.build_line_id WHERE l.kind = 'part'
  UNION ALL SELECT l.item_id, f.planned FROM finish_line f JOIN build_line l ON l.id = f.build_line_id WHERE l.kind = 'part'
  UNION ALL SELECT id, reorder_point FROM item WHERE reorder_point IS NOT NULL`;

/** @throws Refusal `unit-decimals-used` naming an item whose quantities would not fit any more */
export async function refuseLostDecimals(tx: Reader, id: number, decimals: number): Promise<void> {
  const used = await tx.one<{ name: string; quantity: Quantity }>(
    `SELECT i.name, q.quantity FROM (${QUANTITIES}) q JOIN item i ON i.id = q.item_id
     WHERE i.unit_id = $1 AND q.quantity % $2 <> 0 LIMIT 1`,
    [id, stepOf(decimals)],
  );
  if (used) throw new Refusal('unit-decimals-used', { name: used.name, used: used.quantity }, 'decimals');
}
