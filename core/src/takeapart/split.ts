import type { Basis } from '../definitions/index.ts';
import {
  add,
  divide,
  type Money,
  mulDiv,
  type Percent,
  type Quantity,
  splitByWeight,
  stepOf,
  toExact,
} from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** Whether value without good parts is written off or carried by the good ones. */
export const leftovers = ['written-off', 'spread'] as const;
export type Leftover = (typeof leftovers)[number];

export interface ReturnedLine {
  readonly share: Percent;
  readonly expected: Quantity;
  readonly good: Quantity;
  readonly damaged: Quantity;
}

export interface TakenApartLine {
  /** Neither good nor damaged. */
  readonly missing: Quantity;
  /** What the line's good parts are worth in stock. */
  readonly value: Money;
  readonly writtenOff: Money;
}

export interface TakenApart {
  readonly lines: readonly TakenApartLine[];
  readonly writtenOff: Money;
}

/** What should come back of a line when `quantity` products are taken apart: no waste, rounded down to the unit. */
export function expectedBack(
  line: { readonly basis: Basis; readonly quantity: Quantity; readonly decimals: number },
  quantity: Quantity,
  outputQuantity: Quantity,
): Quantity {
  if (line.basis === 'per-run') return line.quantity;
  const step = BigInt(stepOf(line.decimals));
  const exact = BigInt(line.quantity) * BigInt(quantity);
  return toExact(divide(exact, BigInt(outputQuantity) * step, 'down') * step) as Quantity;
}

/**
 * Splits the value of what is taken apart: line by line by share, then to its good part by good ÷ expected. The rest is
 * written off, or spread over the good parts in proportion to their value (written off when nothing is good). Values
 * and write-off sum to `value` exactly.
 * @throws Refusal `more-than-expected` naming the field when good + damaged exceed what is expected
 */
export function takeApart(value: Money, lines: readonly ReturnedLine[], leftover: Leftover): TakenApart {
  lines.forEach(refuseExcess);
  const shares = splitByWeight(
    value,
    lines.map((line) => line.share),
  );
  const good = lines.map((line, index) => goodValue(line, shares[index] ?? (0 as Money)));
  const goodTotal = add(0 as Money, ...good);
  const rest = (value - goodTotal) as Money;
  const spread = leftover === 'spread' && goodTotal > 0;
  const extra = spread ? splitByWeight(rest, good) : [];
  return {
    lines: lines.map((line, index) => ({
      missing: (line.expected - line.good - line.damaged) as Quantity,
      value: add(good[index] ?? (0 as Money), extra[index] ?? (0 as Money)),
      writtenOff: (spread ? 0 : (shares[index] ?? 0) - (good[index] ?? 0)) as Money,
    })),
    writtenOff: (spread ? 0 : rest) as Money,
  };
}

function goodValue(line: ReturnedLine, share: Money): Money {
  if (line.expected === 0 || line.good === 0) return 0 as Money;
  return mulDiv(share, line.good, line.expected, 'nearest') as Money;
}

function refuseExcess(line: ReturnedLine, index: number): void {
  if (line.good < 0) throw new Refusal('negative', {}, `lines.${index}.good`);
  if (line.damaged < 0) throw new Refusal('negative', {}, `lines.${index}.damaged`);
  if (line.good + line.damaged <= line.expected) return;
  const field = line.good > line.expected ? 'good' : 'damaged';
  throw new Refusal('more-than-expected', { expected: line.expected }, `lines.${index}.${field}`);
}
