import { wordsOf } from '@yosegi/contract/problems';
import { fromZero, type Percent, parseMoney, parsePercent, percentTo, ZERO } from '@yosegi/core/number';
import { type OrderSum, orderSum } from '@yosegi/core/orders';
import { type PricedLine, readPricedLine } from '../lines/pricedLine.ts';
import type { Head, Line } from './typedOrder.ts';

/**
 * A line of an order as it is typed: what it comes to after what is taken off it.
 * @param own what one sells at while no price is typed, a plain decimal
 */
export function readSold(line: Line, own: string): PricedLine {
  return readPricedLine(line.item, { quantity: line.quantity, cost: line.price.trim() || own });
}

/**
 * What an order that is being typed comes to; what cannot be read counts for nothing.
 * @param own what each line sells at while no price is typed, plain decimals
 * @param decimals of the currency
 */
export function sumTyped(
  head: Pick<Head, 'orderDiscount' | 'freight'> & { readonly lines: readonly Line[] },
  own: readonly string[],
  decimals: number,
): OrderSum {
  const lines = head.lines.map((line, index) => {
    const { quantity } = readSold(line, own[index] ?? '0');
    const isFaulty = percentFault(line.discount) !== undefined || amountFault(line.price) !== undefined;
    return {
      quantity: isFaulty ? ZERO : quantity,
      list: isFaulty ? ZERO : parseMoney(line.price.trim() || (own[index] ?? '0')),
      discount: isFaulty ? ZERO : percentOf(line.discount),
    };
  });
  const discount = percentFault(head.orderDiscount) === undefined ? percentOf(head.orderDiscount) : ZERO;
  const freight = amountFault(head.freight) === undefined ? parseMoney(head.freight.trim() || '0') : ZERO;
  return orderSum(lines, { discount, freight }, decimals);
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
