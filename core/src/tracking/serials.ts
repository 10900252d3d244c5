import type { Tracking } from '../items/index.ts';
import { type Quantity, SCALE } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** A serial number pattern like "SC-####": one run of # stands for the number, filled with zeros. */
export interface SerialPattern {
  readonly before: string;
  readonly digits: number;
  readonly after: string;
}

/** The most serials that are made or typed at once. */
export const MOST_SERIALS = 2000;

/** Refuses more units of something kept by serial than can be named at once. @throws Refusal `too-many-serials` */
export function refuseTooManySerials(tracking: Tracking, quantity: Quantity, field?: string): void {
  if (tracking === 'serial' && quantity > MOST_SERIALS * SCALE)
    throw new Refusal('too-many-serials', { most: MOST_SERIALS }, field);
}

/** @throws Refusal `serial-pattern` unless there is exactly one run of 1 to 9 # signs */
export function parsePattern(text: string, field?: string): SerialPattern {
  const [, before, signs, after] = /^([^#\s]*)(#{1,9})([^#\s]*)$/.exec(text.trim()) ?? [];
  if (before === undefined || signs === undefined || after === undefined || text.trim().length > 40)
    throw new Refusal('serial-pattern', { typed: text.slice(0, 40) }, field);
  return { before, digits: signs.length, after };
}

/** The code of a number: longer numbers than the pattern has room for grow it. */
export const serialAt = ({ before, digits, after }: SerialPattern, number: number) =>
  `${before}${String(number).padStart(digits, '0')}${after}`;

/** The number in a code that the pattern made, or null. */
export function numberIn({ before, digits, after }: SerialPattern, code: string): number | null {
  if (code.length < before.length + digits + after.length) return null;
  const inside = code.slice(before.length, code.length - after.length);
  if (code.slice(0, before.length).toLowerCase() !== before.toLowerCase()) return null;
  if (after !== '' && code.slice(-after.length).toLowerCase() !== after.toLowerCase()) return null;
  if (!/^\d+$/.test(inside) || (inside.length > digits && inside.startsWith('0'))) return null;
  const number = Number(inside);
  return Number.isSafeInteger(number) ? number : null;
}

/**
 * The first number from which `count` in a row are free, from `least` on.
 * @param taken numbers that are taken, in any order
 */
export function nextFreeBlock(taken: Iterable<number>, count: number, least = 1): number {
  const sorted = [...new Set(taken)].filter((number) => number >= least).sort((a, b) => a - b);
  let start = least;
  for (const number of sorted) {
    if (number - start >= count) break;
    start = number + 1;
  }
  return start;
}

const RANGE = /^(\S*?)(\d+)\.\.(\S*?)(\d+)$/;

/**
 * Serials as typed or pasted: one a line or apart by commas, and ranges like "SC-0101..0140" or "SC-0101..SC-0140".
 * @throws Refusal `serial-range` for a range that does not hold together, `serial-twice`, `too-many-serials`
 */
export function readSerials(text: string, field?: string): string[] {
  const codes: string[] = [];
  for (const part of text.split(/[\s,;]+/).filter(Boolean)) {
    const range = RANGE.exec(part);
    if (range) codes.push(...expand(range, part, field));
    else if (part.includes('..')) throw new Refusal('serial-range', { typed: part.slice(0, 60) }, field);
    else codes.push(part);
    if (codes.length > MOST_SERIALS) throw new Refusal('too-many-serials', { most: MOST_SERIALS }, field);
  }
  const seen = new Set<string>();
  for (const code of codes) {
    if (seen.has(code.toLowerCase())) throw new Refusal('serial-twice', { code }, field);
    seen.add(code.toLowerCase());
  }
  return codes;
}

function expand([, prefix = '', from = '', prefixTo = '', to = '']: RegExpExecArray, typed: string, field?: string) {
  const [first, last] = [Number(from), Number(to)];
  const fits = prefixTo === '' || prefixTo.toLowerCase() === prefix.toLowerCase();
  if (!fits || !Number.isSafeInteger(last) || last < first || to.length < String(first).length)
    throw new Refusal('serial-range', { typed: typed.slice(0, 60) }, field);
  if (last - first >= MOST_SERIALS) throw new Refusal('too-many-serials', { most: MOST_SERIALS }, field);
  return Array.from(
    { length: last - first + 1 },
    (_, step) => prefix + String(first + step).padStart(from.length, '0'),
  );
}

/** Serials the shortest way: "SC-0101..0140, SC-0150". {@link readSerials} reads them back. */
export function writeSerials(codes: readonly string[]): string {
  const runs: { first: string; last: string; prefix: string; next: number; digits: number }[] = [];
  for (const code of codes) {
    const [, prefix = code, digits = ''] = /^(\S*?)(\d{1,15})$/.exec(code) ?? [];
    const run = runs.at(-1);
    const continues =
      run && digits !== '' && run.prefix === prefix && run.digits === digits.length && run.next === Number(digits);
    if (continues) {
      run.last = digits;
      run.next += 1;
    } else runs.push({ first: code, last: '', prefix, digits: digits.length, next: digits ? Number(digits) + 1 : -1 });
  }
  return runs.map(({ first, last }) => (last ? `${first}..${last}` : first)).join(', ');
}
