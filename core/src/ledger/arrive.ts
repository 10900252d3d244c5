import { type Money, splitByWeight } from '../number/index.ts';
import type { Posting } from './posting.ts';
import type { Heap } from './state.ts';

/** Brings goods of one worth to several places, by lot or serial: each carries its part of the value, and no millionth is lost. */
export function bringInAt(posting: Posting, standing: readonly Heap[], value: Money): void {
  const values = splitByWeight(
    value,
    standing.map(({ quantity }) => quantity),
  );
  standing.forEach(({ spot, quantity }, index) => {
    posting.bringIn(spot, quantity, values[index] ?? (0 as Money));
  });
}
