import type { Item } from '@yosegi/contract';
import { formatDecimal, type Measuring, parseDecimal, type Quantity, readQuantity } from '@yosegi/core/number';

type Measured = Pick<Item, 'unit' | 'decimals' | 'measures'>;

/** What an item's quantities may be typed in. */
export const measuringOf = ({ unit, decimals, measures }: Measured): Measuring => ({
  unit,
  decimals,
  measures: measures.map(({ name, one }) => ({ name, one: parseDecimal(one) as Quantity })),
});

/** A quantity as people type it, "450 g" or "3 box"; nothing typed is zero. @throws Refusal as `readQuantity` */
export const readTyped = (text: string, item: Measured, field?: string): Quantity =>
  readQuantity(text.trim() || '0', measuringOf(item), field);

/** What was typed as the plain decimal of the wire; as it is while it cannot be read, for the server to refuse. */
export function plainTyped(text: string, item: Measured | undefined): string {
  try {
    return item ? formatDecimal(readTyped(text, item)) : text.trim() || '0';
  } catch {
    return text.trim() || '0';
  }
}
