import { add, HUNDRED_PERCENT, type Money, type Percent, ZERO } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** What becomes of a part that a rework took out of its unit. */
export const outWays = ['stock', 'scrap', 'back-in'] as const;
export type OutWay = (typeof outWays)[number];

/** A part that came out, and its share of what the unit was worth when it went in. */
export interface CameOut {
  readonly went: OutWay;
  readonly share: Percent;
}

/**
 * What each part that came out is worth: its share of the unit, rounded down, so that the unit carries what is left. What
 * goes back in takes nothing with it.
 * @throws Refusal `shares-over` where they take more than all of it
 */
export function worthOut(unit: Money, out: readonly CameOut[]): Money[] {
  const taken = out.map(({ went, share }): Percent => (went === 'back-in' ? ZERO : share));
  const sum = add<Percent>(ZERO, ...taken);
  if (sum > HUNDRED_PERCENT) throw new Refusal('shares-over', { sum }, 'out');
  return taken.map((share) => Number((BigInt(unit) * BigInt(share)) / BigInt(HUNDRED_PERCENT)) as Money);
}
