import type { Item } from '@yosegi/contract';
import { type Money, type Quantity, unitCostOf } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';

/** An item joined with its unit, bin and stock, as the database has it. */
export interface ItemRow {
  id: number;
  code: string;
  name: string;
  unit_id: number;
  unit: string;
  decimals: number;
  source: Item['source'];
  home_bin_id: number | null;
  home_bin: string | null;
  sell_price: number | null;
  reorder_point: number | null;
  standard_cost: number | null;
  latest_cost: number | null;
  note: string;
  version: number;
  quantity: number;
  value: number;
  last_cost: number;
  on_bench: number;
  promised: number;
  definition_id: number | null;
}

export const ITEM_SQL = `
  SELECT i.id, i.code, i.name, i.unit_id, u.code AS unit, u.decimals, i.source, i.home_bin_id, b.code AS home_bin,
    i.sell_price, i.reorder_point, i.standard_cost, i.latest_cost, i.note, i.version,
    ifnull(s.quantity, 0) AS quantity, ifnull(s.value, 0) AS value, ifnull(s.last_cost, 0) AS last_cost,
    ifnull((SELECT sum(quantity) FROM balance WHERE item_id = i.id AND build_id IS NOT NULL), 0) AS on_bench,
    ifnull((SELECT sum(open) FROM build_line WHERE item_id = i.id AND open > 0), 0) AS promised,
    (SELECT id FROM definition WHERE item_id = i.id AND purpose = 'build') AS definition_id
  FROM item i
  JOIN unit u ON u.id = i.unit_id
  LEFT JOIN bin b ON b.id = i.home_bin_id
  LEFT JOIN item_stock s ON s.item_id = i.id`;

/** The moving average; while there is no stock, the last cost known. */
export const averageCostOf = (
  row: Pick<ItemRow, 'quantity' | 'value' | 'last_cost' | 'latest_cost' | 'standard_cost'>,
) =>
  row.quantity > 0
    ? unitCostOf(row.value as Money, row.quantity as Quantity)
    : ((row.last_cost || row.latest_cost || row.standard_cost || 0) as Money);

export function toItem(row: ItemRow): Item {
  const onHand = row.quantity - row.on_bench;
  return {
    id: row.id,
    code: row.code,
    name: row.name,
    unitId: row.unit_id,
    unit: row.unit,
    decimals: row.decimals,
    source: row.source,
    homeBinId: row.home_bin_id,
    homeBin: row.home_bin,
    sellPrice: decimalOrNull(row.sell_price),
    reorderPoint: decimalOrNull(row.reorder_point),
    note: row.note,
    averageCost: decimal(averageCostOf(row)),
    latestCost: decimalOrNull(row.latest_cost),
    standardCost: decimalOrNull(row.standard_cost),
    onHand: decimal(onHand),
    onBench: decimal(row.on_bench),
    promised: decimal(row.promised),
    free: decimal(onHand - row.promised),
    value: decimal(row.value),
    definitionId: row.definition_id,
    version: row.version,
  };
}

export const itemRow = (db: Reader, id: number) => db.one<ItemRow>(`${ITEM_SQL} WHERE i.id = $1`, [id]);

/** Items by id, for lines that refer to several. */
export async function itemRows(db: Reader, ids: readonly number[]): Promise<Map<number, ItemRow>> {
  const rows = await db.all<ItemRow>(`${ITEM_SQL} WHERE i.id IN (SELECT value FROM json_each($1))`, [
    JSON.stringify(ids),
  ]);
  return new Map(rows.map((row) => [row.id, row]));
}
