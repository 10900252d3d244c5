import { Refusal } from '../refusal/index.ts';
import type { Quantity } from './amounts.ts';
import { LARGEST_TYPED, SCALE, stepOf, tooLargeToType } from './decimal.ts';

/** A name that people type instead of the stock unit, and how much of the stock unit one of it is. */
export interface Measure {
  readonly name: string;
  readonly one: Quantity;
}

/** What a quantity may be typed in: its stock unit, and related units and packs. */
export interface Measuring {
  readonly unit: string;
  readonly decimals: number;
  readonly measures: readonly Measure[];
}

const SHAPE = /^([+-]?)(?:(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)|(\d*)(?:\.(\d*))?)\s*(\p{L}[\p{L}\p{N}.%²³-]*)?$/u;

/**
 * Reads what a person typed as a quantity of the stock unit, exactly: "12", "0.5 kg", "450 g", "3 box", "1/2 m",
 * "1 1/2". A name may carry a plural s.
 * @throws Refusal `not-a-number`; `unknown-measure` (with `name` and `known`); `too-many-decimals` when the exact amount
 * has more decimals than the unit, because it is never rounded; `too-large`
 */
export function readQuantity(text: string, measuring: Measuring, field?: string): Quantity {
  const typed = text.trim().slice(0, 60);
  const match = SHAPE.exec(typed);
  const [, sign = '', mixed, top, bottom, whole = '', fraction = '', name] = match ?? [];
  const digits = whole + fraction;
  const isFraction = top !== undefined;
  if (!match || (!isFraction && digits === '') || Number(bottom) === 0)
    throw new Refusal('not-a-number', { typed }, field);
  const one = BigInt(measureOf(name, measuring, field));
  const [n, d] = isFraction
    ? [BigInt(mixed ?? 0) * BigInt(bottom ?? 1) + BigInt(top), BigInt(bottom ?? 1)]
    : [BigInt(digits), 10n ** BigInt(fraction.length)];
  const step = BigInt(stepOf(measuring.decimals));
  const scaled = n * one;
  if (scaled % (d * step) !== 0n)
    throw new Refusal('too-many-decimals', { typed, decimals: measuring.decimals }, field);
  const result = scaled / d;
  if (result > BigInt(LARGEST_TYPED) * BigInt(SCALE)) throw tooLargeToType(field);
  return (sign === '-' ? -Number(result) || 0 : Number(result)) as Quantity;
}

function measureOf(name: string | undefined, { unit, measures }: Measuring, field?: string): Quantity {
  if (name === undefined) return SCALE as Quantity;
  const known = [{ name: unit, one: SCALE as Quantity }, ...measures];
  const wanted = [name, name.replace(/s$/i, ''), name.replace(/es$/i, '')].map((form) => form.toLowerCase());
  for (const form of wanted) {
    const found = known.find((measure) => measure.name.toLowerCase() === form);
    if (found) return found.one;
  }
  throw new Refusal('unknown-measure', { name, known: known.map((measure) => measure.name) }, field);
}
