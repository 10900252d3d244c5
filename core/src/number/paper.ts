import type { Money, Quantity } from './amounts.ts';
import { divide, formatDecimal, SCALE } from './decimal.ts';

/** How many decimals a currency has: two for most, none for some. @param currency its code (ISO 4217) */
export function decimalsOf(currency: string): number {
  const format = new Intl.NumberFormat('en', { style: 'currency', currency });
  return format.resolvedOptions().maximumFractionDigits ?? 2;
}

/**
 * What a line of a paper comes to: rounded to the currency once, so that a total is the sum of what is printed.
 * @param price of one; it may have more decimals than the currency
 * @param decimals of the currency
 * @returns millionths of the currency, however large
 */
export function lineAmount(quantity: Quantity, price: Money, decimals: number): bigint {
  const step = 10n ** BigInt(6 - decimals);
  return divide(BigInt(quantity) * BigInt(price), BigInt(SCALE) * step, 'nearest') * step;
}

/** The same of an amount that was reckoned another way. */
export function toCurrency(amount: bigint, decimals: number): bigint {
  const step = 10n ** BigInt(6 - decimals);
  return divide(amount, step, 'nearest') * step;
}

/** An amount as text with the decimals of a currency, or with more where it has more. */
export function currencyText(amount: number | bigint, decimals: number): string {
  const [whole = '', rest = ''] = formatDecimal(amount).split('.');
  const padded = rest.padEnd(decimals, '0');
  return padded === '' ? whole : `${whole}.${padded}`;
}
