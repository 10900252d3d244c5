import { formatDecimal, type Money, parseDecimal, parseMoney, parsePercent, parseQuantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';

/** An amount from the database as the decimal text of the wire. */
export const decimal = (scaled: number | bigint) => formatDecimal(scaled);
export const decimalOrNull = (scaled: number | null) => (scaled === null ? null : formatDecimal(scaled));

/** A quantity above zero. @throws Refusal naming `field` */
export function positiveQuantity(text: string, decimals: number, field: string) {
  const quantity = parseQuantity(text, decimals, field);
  if (quantity <= 0) throw new Refusal('not-positive', {}, field);
  return quantity;
}

/** A quantity of zero or more. @throws Refusal naming `field` */
export function quantityFromZero(text: string, decimals: number, field: string) {
  return fromZero(parseQuantity(text, decimals, field), field);
}

/** Money of zero or more. @throws Refusal naming `field` */
export const moneyFromZero = (text: string, field: string) => fromZero(parseMoney(text, field), field);
export const moneyOrNull = (text: string | null, field: string): Money | null =>
  text === null ? null : moneyFromZero(text, field);

/** A percentage from zero to `most`. @throws Refusal naming `field` */
export function percentUpTo(text: string, most: number, field: string) {
  const percent = fromZero(parsePercent(text, field), field);
  if (percent > parseDecimal(String(most))) throw new Refusal('out-of-range', { least: 0, most }, field);
  return percent;
}

function fromZero<T extends number>(amount: T, field: string): T {
  if (amount < 0) throw new Refusal('negative', {}, field);
  return amount;
}

/** Says at a field that what is typed there comes to more than can be kept. @throws Refusal naming `field` */
export function refuseUnkept(work: () => unknown, field: string): void {
  try {
    work();
  } catch (error) {
    if (error instanceof Refusal && error.code === 'too-large') throw new Refusal(error.code, error.facts, field);
    throw error;
  }
}

/** What was worked out, or null when it comes to more than can be kept: one such record must not spoil a list. */
export function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal && error.code === 'too-large') return null;
    throw error;
  }
}
