import { lessDiscount } from '../definitions/index.ts';
import type { Money, Percent } from '../number/index.ts';

/** What is taken off the price of a line, in millionths of a percent. */
export interface Discounts {
  readonly line: Percent;
  readonly order: Percent;
}

/**
 * What one costs the customer: its list price less the line's discount, and of that less the order's, each rounded to what
 * money is paid in.
 * @param decimals of the currency
 */
export const agreedPrice = (list: Money, { line, order }: Discounts, decimals: number): Money =>
  lessDiscount(lessDiscount(list, line, decimals), order, decimals);
