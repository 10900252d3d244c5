import { formatDecimal } from '@yosegi/core/number';
import { isRefusal } from '@yosegi/core/refusal';

/** An amount from the database as the decimal text of the wire. */
export const decimal = (scaled: number | bigint) => formatDecimal(scaled);
export const decimalOrNull = (scaled: number | null) => (scaled === null ? null : formatDecimal(scaled));

/** Says at a field that what is typed there comes to more than can be kept. @throws Refusal naming `field` */
export function refuseUnkept(work: () => unknown, field: string): void {
  try {
    work();
  } catch (error) {
    throw isRefusal(error, 'too-large') ? error.at(field) : error;
  }
}

/** What was worked out, or null when it comes to more than can be kept: one such record must not spoil a list. */
export function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (isRefusal(error, 'too-large')) return null;
    throw error;
  }
}
