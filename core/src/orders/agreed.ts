import { divide, HUNDRED_PERCENT, type Money, mulDiv, type Percent, type Quantity, SCALE } from '../number/index.ts';

/** What is taken off the price of a line, in millionths of a percent. */
export interface Discounts {
  readonly line: Percent;
  readonly order: Percent;
}

/**
 * What one brings: its list price less the line's discount, and of that less the order's. It may have more decimals than
 * the currency; only what is printed is rounded to what money is paid in.
 */
export const agreedPrice = (list: Money, { line, order }: Discounts): Money => less(less(list, line), order);

const less = (price: Money, off: Percent): Money =>
  mulDiv(price, HUNDRED_PERCENT - off, HUNDRED_PERCENT, 'nearest') as Money;

/** A line as it is printed: how many, what one is listed at, and what is taken off that. */
export interface SoldLine {
  readonly quantity: Quantity;
  readonly list: Money;
  readonly discount: Percent;
}

/** What an order comes to, in millionths of the currency, however large. */
export interface OrderSum {
  /** Of each line, less its own discount. */
  readonly amounts: readonly bigint[];
  readonly lines: bigint;
  /** What the order's discount comes to. */
  readonly takenOff: bigint;
  /** Lines less the discount, and the freight. */
  readonly total: bigint;
}

/**
 * What an order comes to as it is printed: each line and the order's discount are rounded to the currency once, and the total
 * is the sum of what is printed.
 * @param discount of the whole order, in millionths of a percent
 * @param decimals of the currency
 */
export function orderSum(
  lines: readonly SoldLine[],
  { discount, freight }: { readonly discount: Percent; readonly freight: Money },
  decimals: number,
): OrderSum {
  const step = 10n ** BigInt(6 - decimals);
  const whole = BigInt(HUNDRED_PERCENT);
  const rounded = (amount: bigint, per: bigint) => divide(amount, per * step, 'nearest') * step;
  const amounts = lines.map((line) =>
    rounded(BigInt(line.quantity) * BigInt(line.list) * (whole - BigInt(line.discount)), BigInt(SCALE) * whole),
  );
  const sum = amounts.reduce((all, amount) => all + amount, 0n);
  const takenOff = rounded(sum * BigInt(discount), whole);
  return { amounts, lines: sum, takenOff, total: sum - takenOff + BigInt(freight) };
}
