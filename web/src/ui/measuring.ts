import type { Item } from '@yosegi/contract';
import { type Measuring, parseDecimal, type Quantity } from '@yosegi/core/number';

/** What an item's quantities may be typed in. */
export const measuringOf = ({ unit, decimals, measures }: Pick<Item, 'unit' | 'decimals' | 'measures'>): Measuring => ({
  unit,
  decimals,
  measures: measures.map(({ name, one }) => ({ name, one: parseDecimal(one) as Quantity })),
});
