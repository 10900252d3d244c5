import type { Alternate } from '../demand/index.ts';
import { divide, HUNDRED_PERCENT, type Money, type Percent, type Quantity, stepOf, toExact } from '../number/index.ts';
import type { Basis, Taken } from './words.ts';

/** What a line needs of an item: `quantity` for the definition's output quantity, or for a whole run. */
export interface Need {
  readonly basis: Basis;
  readonly quantity: Quantity;
  readonly waste: Percent;
  /** Decimals of the item's unit; the need is rounded up to them. */
  readonly decimals: number;
}

export interface PartLine extends Need {
  readonly kind: 'part';
  readonly itemId: number;
  readonly taken: Taken;
  /** The best first. */
  readonly alternates?: readonly Alternate[];
}

export interface LabourLine {
  readonly kind: 'labour';
  readonly basis: Basis;
  /** Minutes, in millionths, for the output quantity or for a run. */
  readonly minutes: Quantity;
  readonly ratePerHour: Money;
}

export interface ChargeLine {
  readonly kind: 'charge';
  readonly basis: Basis;
  readonly amount: Money;
}

export interface NoteLine {
  readonly kind: 'note';
}

export type Line = PartLine | LabourLine | ChargeLine | NoteLine;

/** One revision of a bill of materials: what `outputQuantity` of its item is made of. */
export interface Revision {
  readonly outputQuantity: Quantity;
  readonly lines: readonly Line[];
}

/**
 * How much of a line's item `made` units of output need: per run + made ÷ output × quantity × (1 + waste), rounded up
 * once to the unit's decimals. Nothing is needed to make nothing.
 * @throws Refusal `too-large`
 */
export const required = (line: Need, made: Quantity, outputQuantity: Quantity): Quantity =>
  toExact(requiredForText(line, made, outputQuantity)) as Quantity;

/** The same however large it is, for comparing and showing. */
export function requiredForText(line: Need, made: Quantity, outputQuantity: Quantity): bigint {
  if (made <= 0) return 0n;
  const step = BigInt(stepOf(line.decimals));
  const exact =
    line.basis === 'per-run'
      ? { top: BigInt(line.quantity), bottom: 1n }
      : {
          top: BigInt(made) * BigInt(line.quantity) * BigInt(HUNDRED_PERCENT + line.waste),
          bottom: BigInt(outputQuantity) * BigInt(HUNDRED_PERCENT),
        };
  return divide(exact.top, exact.bottom * step, 'up') * step;
}

/** Scales a line's amount per output or per run to `made` units, to the nearest millionth. */
export function scaled<T extends number>(basis: Basis, amount: T, made: Quantity, outputQuantity: Quantity): T {
  if (made <= 0) return 0 as T;
  if (basis === 'per-run') return amount;
  return toExact(divide(BigInt(amount) * BigInt(made), BigInt(outputQuantity), 'nearest')) as T;
}

export type { Alternate };
