import type { Item } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { type Money, parseMoney, type Quantity, worthOf } from '@yosegi/core/number';
import { readTyped } from '../ui/measuring.ts';

export interface PricedLine {
  readonly quantity: Quantity;
  readonly value: Money;
  /** What is wrong with what was typed, in words; undefined while nothing is. */
  readonly quantityError?: string;
  readonly costError?: string;
}

/** Fields of a line that is received which say beside themselves what is wrong with them. */
export const RECEIVED_FIELDS = ['quantity', 'unitCost', 'binId', 'lot', 'serials', 'bestBefore'].map(
  (field) => `lines.*.${field}`,
);

/**
 * Reads a line of something that is bought: how much of it, and what one costs.
 * @param mayBeEmpty nothing typed, or zero, means that the line does not count
 */
export function readPricedLine(
  item: Pick<Item, 'unit' | 'decimals' | 'measures'>,
  typed: { readonly quantity: string; readonly cost: string },
  mayBeEmpty = false,
): PricedLine {
  const [quantity, quantityError] = attempt(() => readTyped(typed.quantity, item), 0 as Quantity);
  const [cost, costError] = attempt(() => parseMoney(typed.cost.trim() || '0'), 0 as Money);
  if (quantityError || costError) return { ...NOTHING, ...faults(quantityError, costError) };
  if (quantity < 0 || (quantity === 0 && !mayBeEmpty))
    return { ...NOTHING, quantityError: mayBeEmpty ? 'This cannot be below zero.' : 'Type an amount above zero.' };
  if (cost < 0) return { ...NOTHING, quantity, costError: 'This cannot be below zero.' };
  const [value, tooLarge] = attempt(() => worthOf(quantity, cost), 0 as Money);
  return { quantity, value, ...faults(undefined, tooLarge) };
}

const NOTHING: PricedLine = { quantity: 0 as Quantity, value: 0 as Money };
const faults = (quantityError?: string, costError?: string) => ({
  ...(quantityError ? { quantityError } : {}),
  ...(costError ? { costError } : {}),
});

function attempt<T>(parse: () => T, otherwise: T): [T, string | undefined] {
  try {
    return [parse(), undefined];
  } catch (error) {
    return [otherwise, wordsOf(error) ?? 'This cannot be read.'];
  }
}
