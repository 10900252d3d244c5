import { divide, type Quantity, stepOf, toExact } from '../number/index.ts';

/** What one finish planned to use of a line, and what it did. */
export interface PastUse {
  readonly planned: Quantity;
  readonly actual: Quantity;
}

/** What the last finishes used of a line, all together. */
export interface LastUses extends PastUse {
  /** How many finishes that is. */
  readonly count: number;
  /** It has left the plan for good: at least three finishes, all on the same side, and together off by a twentieth. */
  readonly isDrifted: boolean;
}

const ENOUGH = 3;

/** Puts the last uses of a line together; undefined where none was planned. */
export function lastUses(uses: readonly PastUse[]): LastUses | undefined {
  const known = uses.filter(({ planned }) => planned > 0);
  const sum = (pick: (use: PastUse) => Quantity) => known.reduce((all, use) => all + BigInt(pick(use)), 0n);
  const [planned, actual] = [sum((use) => use.planned), sum((use) => use.actual)];
  if (planned === 0n) return undefined;
  const isOneSided = known.every((use) => use.actual > use.planned) || known.every((use) => use.actual < use.planned);
  const off = actual > planned ? actual - planned : planned - actual;
  return {
    planned: toExact(planned) as Quantity,
    actual: toExact(actual) as Quantity,
    count: known.length,
    isDrifted: known.length >= ENOUGH && isOneSided && off * 20n >= planned,
  };
}

/** What `planned` comes to when it goes as it went the last times, to the nearest step of the unit. */
export function asLastTime(planned: Quantity, { planned: then, actual }: LastUses, decimals: number): Quantity {
  const step = BigInt(stepOf(decimals));
  return toExact(divide(BigInt(planned) * BigInt(actual), BigInt(then) * step, 'nearest') * step) as Quantity;
}
