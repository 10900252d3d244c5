import { add, HUNDRED_PERCENT, type Money, mulDiv, type Percent, type Quantity, stepOf } from '../number/index.ts';

/** A part of a kit that is priced by its parts: how much of it one run takes, and what one sells at. */
export interface PricedPart {
  readonly quantity: Quantity;
  /** Null when the part has no sell price. */
  readonly price: Money | null;
}

/**
 * What one unit of a kit sells at when its price is the sum of its parts' less a discount; null while any part has no
 * price. Waste is not sold: only the quantities themselves count. With a discount it is rounded to what money is paid in.
 * @param decimals of the currency
 */
export function priceFromParts(
  parts: readonly PricedPart[],
  outputQuantity: Quantity,
  discount: Percent,
  decimals: number,
): Money | null {
  const prices: Money[] = [];
  for (const { quantity, price } of parts) {
    if (price === null) return null;
    prices.push(mulDiv(quantity, price, outputQuantity, 'nearest') as Money);
  }
  const sum = add(0 as Money, ...prices);
  return lessDiscount(sum, discount, decimals);
}

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
