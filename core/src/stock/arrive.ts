import { type Money, splitByWeight } from '../number/index.ts';
import type { Posting } from './ledger.ts';
import type { Standing } from './state.ts';

/** Brings goods of one worth to several places, by lot or serial: each carries its part of the value, and no millionth is lost. */
export function bringInAt(posting: Posting, standing: readonly Standing[], value: Money): void {
  const values = splitByWeight(
    value,
    standing.map(({ quantity }) => quantity),
  );
  standing.forEach(({ place, quantity }, index) => {
    posting.bringIn(place, quantity, values[index] ?? (0 as Money));
  });
}
