import { divide } from './decimal.ts';

/**
 * Splits `total` in proportion to `weights` into integers that sum to it exactly (largest remainder; equal remainders
 * go to the earlier one). Weights are not negative; when all are zero the split is even.
 * @param step the smallest indivisible piece, in the units of `total`; `total` is a multiple of it
 */
export function splitByWeight<T extends number>(total: T, weights: readonly (number | bigint)[], step = 1): T[] {
  if (weights.length === 0) return [];
  const sum = weights.reduce<bigint>((all, weight) => all + BigInt(weight), 0n);
  const parts = sum === 0n ? weights.map(() => 1) : weights;
  const whole = sum === 0n ? BigInt(weights.length) : sum;
  const sign = total < 0 ? -1 : 1;
  const pieces = BigInt(Math.abs(total)) / BigInt(step);
  const exact = parts.map((weight) => pieces * BigInt(weight));
  const shares = exact.map((product) => divide(product, whole, 'down'));
  let left = pieces - shares.reduce((a, b) => a + b, 0n);
  const byRemainder = exact
    .map((product, index) => ({ index, rest: product % whole }))
    .sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest > b.rest ? -1 : 1));
  for (const { index } of byRemainder) {
    if (left === 0n) break;
    shares[index] = (shares[index] ?? 0n) + 1n;
    left -= 1n;
  }
  return shares.map((share) => (sign * Number(share) * step || 0) as T);
}

/**
 * Hands `total` out in the order given: each gets what it wants as far as there is any left.
 * @returns what each gets, never below zero and never more than it wants
 */
export function handOut<T extends number>(total: T, wanted: readonly T[]): T[] {
  let left = Math.max(0, total);
  return wanted.map((want) => {
    const given = Math.max(0, Math.min(left, want));
    left -= given;
    return given as T;
  });
}
