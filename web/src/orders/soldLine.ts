import { wordsOf } from '@yosegi/contract/problems';
import { formatDecimal, fromZero, type Percent, parseMoney, parsePercent, percentTo, ZERO } from '@yosegi/core/number';
import { agreedPrice } from '@yosegi/core/orders';
import { type PricedLine, readPricedLine } from '../lines/pricedLine.ts';
import type { Line } from './typedOrder.ts';

/**
 * A line of an order as it is typed: what it comes to after what is taken off it and off the whole order.
 * @param own what one sells at while no price is typed, a plain decimal
 * @param off from the whole order, in percent
 * @param decimals of the currency
 */
export function readSold(line: Line, own: string, off: string, decimals: number): PricedLine {
  const list = line.price.trim() || own;
  const plain = readPricedLine(line.item, { quantity: line.quantity, cost: list });
  if (plain.costError || percentFault(line.discount) || percentFault(off)) return plain;
  const price = agreedPrice(parseMoney(list), { line: percentOf(line.discount), order: percentOf(off) }, decimals);
  return readPricedLine(line.item, { quantity: line.quantity, cost: formatDecimal(price) });
}

const percentOf = (text: string): Percent => (text.trim() === '' ? ZERO : parsePercent(text.trim()));

/** What is wrong with a discount, in words. */
export function percentFault(text: string): string | undefined {
  try {
    percentTo(percentOf(text), 100);
    return undefined;
  } catch (error) {
    return wordsOf(error) ?? 'Enter a percentage, like 10.';
  }
}

/** What is wrong with an amount that may be left empty, in words. */
export function amountFault(text: string): string | undefined {
  try {
    fromZero(parseMoney(text.trim() || '0'));
    return undefined;
  } catch (error) {
    return wordsOf(error) ?? 'Enter an amount, like 12.50.';
  }
}

/** "-10%" or "10 %" where a price is typed: so much off it; null for a price. */
export const percentIn = (text: string): string | null => /^-?\s*(\d+(?:\.\d+)?)\s*%$/.exec(text.trim())?.[1] ?? null;
