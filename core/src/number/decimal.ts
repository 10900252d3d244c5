import { Refusal } from '../refusal/index.ts';
import type { Money, Percent, Quantity } from './amounts.ts';

export const SCALE = 1_000_000;
const SCALE_DIGITS = 6;
export const HUNDRED_PERCENT = (100 * SCALE) as Percent;
export const ZERO = 0 as Quantity & Money & Percent;
/** One of an item. */
export const ONE = SCALE as Quantity;

/** The most a person may type into one field. */
export const LARGEST_TYPED = 999_999_999;
/** The most that anything may come to: an integer beyond it would not be exact any more. */
export const LARGEST_EXACT = Number.MAX_SAFE_INTEGER;
/** The most of one item that may be on hand, promised or coming, so that what is free of it is exact too. */
export const LARGEST_OF_ITEM = (2_000_000_000 * SCALE) as Quantity;

/**
 * Reads a plain decimal ("12", "-0.5", "4.800") into millionths.
 * @throws Refusal `not-a-number`, `too-many-decimals` (with `decimals`) or `too-large` (with `largest`)
 */
export function parseDecimal(text: string, decimals: number = SCALE_DIGITS, field?: string): number {
  const scaled = readScaled(text, decimals, field);
  if (scaled > MOST_TYPED || scaled < -MOST_TYPED) throw tooLargeToType(field);
  return Number(scaled);
}

const MOST_TYPED = BigInt(LARGEST_TYPED) * BigInt(SCALE) + BigInt(SCALE - 1);

/** The refusal of an amount that is larger than a field takes. */
export const tooLargeToType = (field?: string) =>
  new Refusal('too-large', { largest: (LARGEST_TYPED * SCALE) as Quantity }, field);

/**
 * Reads an amount that was worked out, as it comes over the wire: unlike a typed one it may be anything that is exact.
 * @throws Refusal `not-a-number`, or `too-large` beyond {@link LARGEST_EXACT}
 */
export const readExact = (text: string): number => toExact(readScaled(text, SCALE_DIGITS));

/** The same as a bigint, for adding up and showing what may be larger than {@link LARGEST_EXACT}. */
export const readForText = (text: string): bigint => readScaled(text, SCALE_DIGITS);

function readScaled(text: string, decimals: number, field?: string): bigint {
  const match = /^([+-]?)(\d*)(?:\.(\d*))?$/.exec(text.trim());
  const whole = match?.[2] ?? '';
  const fraction = (match?.[3] ?? '').replace(/0+$/, '');
  if (!match || (whole === '' && !match[3])) throw new Refusal('not-a-number', { typed: text.slice(0, 40) }, field);
  if (fraction.length > decimals) throw new Refusal('too-many-decimals', { typed: text.slice(0, 40), decimals }, field);
  const scaled = BigInt(whole || '0') * BigInt(SCALE) + BigInt(fraction.padEnd(SCALE_DIGITS, '0'));
  return match[1] === '-' ? -scaled : scaled;
}

/** Reads a quantity of an item whose unit allows `decimals`. @throws Refusal as {@link parseDecimal} */
export const parseQuantity = (text: string, decimals: number, field?: string) =>
  parseDecimal(text, decimals, field) as Quantity;
/** Reads an amount of money with up to six decimals (unit costs need them). @throws Refusal as {@link parseDecimal} */
export const parseMoney = (text: string, field?: string) => parseDecimal(text, SCALE_DIGITS, field) as Money;
/** Reads a percentage with up to two decimals. @throws Refusal as {@link parseDecimal} */
export const parsePercent = (text: string, field?: string) => parseDecimal(text, 2, field) as Percent;

/** Writes millionths as a plain decimal with at least `least` decimals and no other trailing zeros. */
export function formatDecimal(scaled: number | bigint, least = 0): string {
  const digits = String(scaled < 0 ? -scaled : scaled).padStart(SCALE_DIGITS + 1, '0');
  const whole = digits.slice(0, -SCALE_DIGITS);
  let fraction = digits.slice(-SCALE_DIGITS);
  while (fraction.length > least && fraction.endsWith('0')) fraction = fraction.slice(0, -1);
  return `${scaled < 0 ? '-' : ''}${whole}${fraction ? `.${fraction}` : ''}`;
}

export type Rounding = 'up' | 'down' | 'nearest';

/**
 * `a × b ÷ c` in exact integers, rounded once. `up` and `down` are away from and towards zero for a positive result
 * (ceiling and floor); `nearest` rounds halves away from zero.
 * @throws Refusal `too-large` when the result leaves the range of exact integers
 */
export function mulDiv(a: number, b: number, c: number, rounding: Rounding): number {
  const numerator = BigInt(a) * BigInt(b);
  return toExact(divide(numerator, BigInt(c), rounding));
}

/** Integer division of any sign with the rounding of {@link mulDiv}. */
export function divide(numerator: bigint, denominator: bigint, rounding: Rounding): bigint {
  const [n, d] = denominator < 0n ? [-numerator, -denominator] : [numerator, denominator];
  const floor = n >= 0n ? n / d : -((-n + d - 1n) / d);
  const rest = n - floor * d;
  if (rest === 0n || rounding === 'down') return floor;
  if (rounding === 'up') return floor + 1n;
  const twice = rest * 2n;
  if (twice === d) return n >= 0n ? floor + 1n : floor;
  return twice > d ? floor + 1n : floor;
}

/** An integer that is exact as a number. @throws Refusal `too-large` beyond {@link LARGEST_EXACT} */
export function toExact(value: bigint | number): number {
  const result = Number(value);
  if (!Number.isSafeInteger(result)) throw new Refusal('too-large', { largest: LARGEST_EXACT as Quantity });
  return result;
}

/** Adds exact amounts. @throws Refusal `too-large` when the sum leaves the range of exact integers */
export function add<T extends number>(...amounts: T[]): T {
  let sum = 0;
  for (const amount of amounts) sum = toExact(sum + amount);
  return sum as T;
}

/** What is left of `from` without `taken`. @throws Refusal `too-large` */
export const minus = <T extends number>(from: T, taken: T) => toExact(from - taken) as T;
/** The same amount the other way; never a zero with a sign. */
export const negated = <T extends number>(amount: T) => (amount === 0 ? 0 : -amount) as T;

/** So many pieces as a quantity. @throws Refusal `too-large` */
export const pieces = (count: number) => toExact(count * SCALE) as Quantity;

/** The smaller of two amounts. */
export const least = <T extends number | bigint>(a: T, b: T) => (a < b ? a : b);

/** Adds amounts for showing them, however large the sum: text can say what a number no longer holds. */
export const sumForText = (amounts: Iterable<number | bigint>): bigint => {
  let sum = 0n;
  for (const amount of amounts) sum += BigInt(amount);
  return sum;
};

/** The value of `quantity` at `unitCost`, to the nearest millionth. @throws Refusal `too-large` */
export const worthOf = (quantity: Quantity, unitCost: Money) => toExact(worthForText(quantity, unitCost)) as Money;
/** The same for showing it, however large: what stands in a list must not make the list unanswerable. */
export const worthForText = (quantity: Quantity, unitCost: Money): bigint =>
  divide(BigInt(quantity) * BigInt(unitCost), BigInt(SCALE), 'nearest');

/** The cost of one unit when `quantity` is worth `value`; zero for no quantity. */
export const unitCostOf = (value: Money, quantity: Quantity) =>
  (quantity === 0 ? 0 : mulDiv(value, SCALE, quantity, 'nearest')) as Money;

/** The smallest step of a unit with `decimals`, in millionths. */
export const stepOf = (decimals: number) => 10 ** (SCALE_DIGITS - decimals);
