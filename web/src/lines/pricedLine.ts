import type { Item } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { fromZero, type Money, parseMoney, positive, type Quantity, worthOf, ZERO } from '@yosegi/core/number';
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
 * @param asksCost what one costs has to be said: nothing typed is not taken for nothing
 */
export function readPricedLine(
  item: Pick<Item, 'unit' | 'decimals' | 'measures'>,
  typed: { readonly quantity: string; readonly cost: string },
  { mayBeEmpty = false, asksCost = false }: { readonly mayBeEmpty?: boolean; readonly asksCost?: boolean } = {},
): PricedLine {
  const allowed = mayBeEmpty ? fromZero : positive;
  const [quantity, quantityError] = attempt(() => allowed(readTyped(typed.quantity, item)), ZERO);
  const [cost, costError] = attempt(() => fromZero(parseMoney(typed.cost.trim() || '0')), ZERO);
  if (asksCost && quantity > 0 && typed.cost.trim() === '')
    return { ...NOTHING, quantity, costError: 'Enter the unit price. Enter 0 only if it was free.' };
  if (quantityError || costError) return { ...NOTHING, ...faults(quantityError, costError) };
  const [value, tooLarge] = attempt(() => worthOf(quantity, cost), ZERO);
  return { quantity, value, ...faults(undefined, tooLarge) };
}

const NOTHING: PricedLine = { quantity: ZERO, value: ZERO };
const faults = (quantityError?: string, costError?: string) => ({
  ...(quantityError ? { quantityError } : {}),
  ...(costError ? { costError } : {}),
});

function attempt<T>(parse: () => T, otherwise: T): [T, string | undefined] {
  try {
    return [parse(), undefined];
  } catch (error) {
    return [otherwise, entryFault(error)];
  }
}
