import type { Item } from '@yosegi/contract';
import type { BuiltCost } from '@yosegi/core/definitions';
import { type Money, unitCostOf } from '@yosegi/core/number';
import type { Row } from '../db/models/index.ts';

/** What tells the cost of an item. */
export interface Costs
  extends Pick<Row<'item'>, 'latest_cost' | 'standard_cost'>,
    Pick<Row<'item_stock'>, 'quantity' | 'value' | 'last_cost'> {
  /** What it costs by its own bill of materials, where none of it is in stock; left out where nobody asked. */
  built?: BuiltCost | null;
}

/** The moving average, or the last cost known while there is no stock; null when no posting ever said what one costs. */
export const knownCostOf = (row: Pick<Costs, 'quantity' | 'value' | 'last_cost'>): Money | null =>
  (row.quantity > 0 ? unitCostOf(row.value, row.quantity) : row.last_cost) || null;

/**
 * The moving average; while there is no stock, the last cost known, and before there ever was any the standard. What came
 * for nothing, or was made worth nothing, is known to cost nothing. Null when nothing ever said.
 */
export function ownCostOf(row: Omit<Costs, 'built'>): Money | null {
  if (row.quantity > 0) return unitCostOf(row.value, row.quantity);
  return isCostKnown(row) ? row.last_cost : row.standard_cost || null;
}

/** The same of what may be made: without stock it costs what its own bill of materials does. */
export const averageCostOf = (row: Costs): Money =>
  (isBuilt(row) ? row.built.cost : (ownCostOf(row) ?? row.built?.cost ?? 0)) as Money;

const isCostKnown = (row: Omit<Costs, 'built'>) => row.last_cost !== 0 || row.latest_cost !== null;
const isBuilt = (row: Costs): row is Costs & { built: BuiltCost } => row.quantity <= 0 && row.built?.isWhole === true;

/** Which of its costs {@link averageCostOf} is. */
export function costFrom(row: Costs): Item['costFrom'] {
  if (row.quantity > 0) return 'average';
  if (isBuilt(row)) return 'built';
  if (isCostKnown(row)) return 'last';
  if (row.standard_cost) return 'standard';
  return row.built ? 'at-least' : 'none';
}

/** The same as {@link averageCostOf} for sorting. */
export const AVERAGE_COST = `CASE WHEN quantity > 0 THEN 1.0 * value / quantity
     WHEN last_cost <> 0 OR latest_cost IS NOT NULL THEN last_cost / 1e6 ELSE ifnull(standard_cost, 0) / 1e6 END`;
