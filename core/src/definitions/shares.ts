import { add, HUNDRED_PERCENT, type Percent, SCALE, splitByWeight, ZERO } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

export interface ShareLine {
  /** What the owner typed; null leaves the line to follow cost. */
  readonly typed: Percent | null;
  /** What the line costs; only its proportion to the others counts. */
  readonly cost: number | bigint;
  /** A line that does not come back has no share. */
  readonly comesBack: boolean;
}

/** Shares are kept to a hundredth of a percent. */
const SHARE_STEP = SCALE / 100;

/**
 * Take-apart shares that sum to exactly 100.00: typed ones stand, the rest of the hundred goes to the others by cost.
 * All zero when nothing comes back.
 * @throws Refusal `shares-over` (typed sum above 100) or `shares-under` (all typed, sum below 100), with `sum`
 */
export function balanceShares(lines: readonly ShareLine[]): Percent[] {
  const back = lines.filter((line) => line.comesBack);
  if (back.length === 0) return lines.map(() => 0 as Percent);
  const open = back.filter((line) => line.typed === null);
  const typed = add<Percent>(ZERO, ...back.map((line) => line.typed ?? ZERO));
  if (typed > HUNDRED_PERCENT) throw new Refusal('shares-over', { sum: typed }, 'share');
  if (open.length === 0 && typed < HUNDRED_PERCENT) throw new Refusal('shares-under', { sum: typed }, 'share');
  const rest = splitByWeight(
    (HUNDRED_PERCENT - typed) as Percent,
    open.map((line) => line.cost),
    SHARE_STEP,
  );
  let next = 0;
  return lines.map((line) => {
    if (!line.comesBack) return 0 as Percent;
    return line.typed ?? (rest[next++] as Percent);
  });
}
