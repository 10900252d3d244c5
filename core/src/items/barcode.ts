import { Refusal } from '../refusal/index.ts';

/** Lengths of GTIN-8, GTIN-12, GTIN-13 and GTIN-14 (GS1 General Specifications, section 7.9). */
const GTIN_LENGTHS = new Set([8, 12, 13, 14]);

/**
 * Reads a barcode as typed or scanned: a GTIN of 8, 12, 13 or 14 digits whose check digit is right, or a code of the
 * company's own. Spaces between the digits of a GTIN are dropped.
 * @throws Refusal `barcode-check-digit` (with the `right` last digit) or `barcode-shape`
 */
export function readBarcode(text: string, field = 'barcode'): string {
  const typed = text.trim();
  const digits = typed.replace(/[\s-]/g, '');
  if (/^\d+$/.test(digits) && GTIN_LENGTHS.has(digits.length)) {
    const right = checkDigit(digits.slice(0, -1));
    if (digits.at(-1) !== right) throw new Refusal('barcode-check-digit', { typed: digits, right }, field);
    return digits;
  }
  if (!/^[\x21-\x7e](?:[\x20-\x7e]{0,46}[\x21-\x7e])?$/.test(typed)) throw new Refusal('barcode-shape', {}, field);
  return typed;
}

export const isGtin = (barcode: string) => /^\d+$/.test(barcode) && GTIN_LENGTHS.has(barcode.length);

/** The check digit of a GTIN's other digits: weights 3 and 1 from the right, up to the next ten. */
export function checkDigit(digits: string): string {
  const sum = [...digits]
    .reverse()
    .reduce((total, digit, place) => total + Number(digit) * (place % 2 === 0 ? 3 : 1), 0);
  return String((10 - (sum % 10)) % 10);
}
