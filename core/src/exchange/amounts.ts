import {
  formatDecimal,
  fromZero,
  parseDecimal,
  parsePercent,
  parseQuantity,
  percentTo,
  positive,
} from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** Which sign stands before the decimals in a file. */
export type DecimalSign = 'point' | 'comma';

/** Thousands are set apart in many ways; between digits these never mean anything else. */
const SPACES = /(?<=\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))/g;
const CURRENCY = /^(?:[€$£]|EUR|USD|GBP|CHF)\s*|\s*(?:[€$£]|EUR|USD|GBP|CHF)$/gi;

/**
 * Reads an amount as files have it: "1.234,50", "1 234.5", "€ 12", "-3". Only the given decimal sign is one; the other
 * may set groups of three apart.
 * @returns a plain decimal without needless zeros
 * @throws Refusal `not-a-number` or `too-large`
 */
export function readAmount(cell: string, sign: DecimalSign, field?: string): string {
  const bare = cell.trim().replace(CURRENCY, '').replace(SPACES, '');
  const group = sign === 'point' ? ',' : '.';
  const grouped = sign === 'point' ? /^[+-]?\d{1,3}(,\d{3})+(\.\d*)?$/ : /^[+-]?\d{1,3}(\.\d{3})+(,\d*)?$/;
  const plain = grouped.test(bare) ? bare.replaceAll(group, '') : bare;
  if (plain.includes(group)) throw new Refusal('not-a-number', { typed: cell.slice(0, 40) }, field);
  return formatDecimal(parseDecimal(sign === 'comma' ? plain.replace(',', '.') : plain, 6, field));
}

/** An amount of zero or more, as a plain decimal of at most `decimals`. @throws Refusal */
export const amountFromZero = (cell: string, sign: DecimalSign, decimals: number): string =>
  formatDecimal(fromZero(parseQuantity(readAmount(cell, sign), decimals)));

/** The same amount, unless it is nothing. @throws Refusal `not-positive` */
export const aboveZero = (amount: string): string => formatDecimal(positive(parseDecimal(amount)));

/** A percentage from zero to `most`, with or without its sign. @throws Refusal */
export const readPercent = (cell: string, most: number, sign: DecimalSign): string =>
  formatDecimal(percentTo(parsePercent(readAmount(cell.replace(/\s*%$/, ''), sign)), most));

/** The decimal sign that most amounts of a file speak for; the `usual` one when they say nothing or as much for both. */
export function guessDecimalSign(cells: Iterable<string>, usual: DecimalSign = 'point'): DecimalSign {
  let [comma, point] = [0, 0];
  for (const cell of cells) {
    const bare = cell.trim().replace(CURRENCY, '').replace(SPACES, '');
    if (!/^[+-]?[\d.,]+$/.test(bare)) continue;
    // "1,234" may be either; "1,5", "0,125" and "1.234,5" cannot.
    if (/^[+-]?(\d*,\d{1,2}|\d*,\d{4,}|0?,\d+|\d{1,3}(\.\d{3})+,\d+)$/.test(bare)) comma += 1;
    else if (/^[+-]?(\d*\.\d{1,2}|\d*\.\d{4,}|0?\.\d+|\d{1,3}(,\d{3})+\.\d+)$/.test(bare)) point += 1;
  }
  return comma === point ? usual : comma > point ? 'comma' : 'point';
}
