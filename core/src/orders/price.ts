import { HUNDRED_PERCENT, type Money, mulDiv, type Percent, stepOf } from '../number/index.ts';

/**
 * What one costs a customer who gets a discount, rounded to what money is paid in. What somebody typed is never changed.
 * @param discount in millionths of a percent
 * @param decimals of the currency
 */
export function lessDiscount(price: Money, discount: Percent, decimals: number): Money {
  if (discount === 0) return price;
  const step = stepOf(decimals);
  return (mulDiv(price, HUNDRED_PERCENT - discount, HUNDRED_PERCENT * step, 'nearest') * step) as Money;
}
