import { balanceShares } from '../definitions/index.ts';
import { HUNDRED_PERCENT, type Money, minus, mulDiv, type Percent, type Quantity, ZERO } from '../number/index.ts';

/** What really went into some units, by the line of the build that used it. */
export interface WentIn {
  readonly lineId: number;
  readonly itemId: number;
  /** Of it used in all, waste included, and what that cost. */
  readonly used: Quantity;
  readonly cost: Money;
  /** Good and rejected units that were made of it. */
  readonly units: Quantity;
  readonly waste: Percent;
  /** The take-apart share that the definition says; null where it follows cost. */
  readonly share: Percent | null;
  readonly comesBack: boolean;
}

/** What a rework took out of units again, of so many of them. */
export interface TookOut {
  readonly itemId: number;
  readonly quantity: Quantity;
  readonly units: Quantity;
}

/** A line that comes back: `used` of it for `output` units, waste left out. */
export interface BuiltLine extends WentIn {
  readonly output: Quantity;
  readonly weighed: Percent;
}

/**
 * What comes back of units by what really went into them: what a rework took out again is in them no more, and what it put
 * in is. Shares are as the definition said them and else follow what was really paid; after a rework they all do.
 */
export function asBuilt(wentIn: readonly WentIn[], tookOut: readonly TookOut[] = [], isReworked = false): BuiltLine[] {
  const left = tookOut.reduce(withoutOut, [...wentIn]).filter(({ used }) => used > 0);
  const back = left.filter(({ comesBack }) => comesBack);
  const typed = back.reduce((sum, { share }) => sum + (share ?? 0), 0);
  const isWhole = typed === HUNDRED_PERCENT || (typed < HUNDRED_PERCENT && back.some(({ share }) => share === null));
  const follow = isReworked || !isWhole;
  const shares = balanceShares(
    back.map((line) => ({
      typed: follow ? null : line.share,
      cost: weightOf(line, follow && !isReworked),
      comesBack: true,
    })),
  );
  return back.map((line, index) => ({
    ...line,
    output: mulDiv(line.units, HUNDRED_PERCENT + line.waste, HUNDRED_PERCENT, 'nearest') as Quantity,
    weighed: shares[index] ?? ZERO,
  }));
}

/** What it cost for one; or where some of what the definition weighs is not in it, what that says. */
const weightOf = ({ cost, units, share }: WentIn, byShare: boolean): bigint =>
  byShare && share !== null ? BigInt(share) : (BigInt(Math.max(0, cost)) * 1_000_000_000n) / BigInt(Math.max(1, units));

/** Takes what came out off the first lines that brought it. */
function withoutOut(lines: readonly WentIn[], { itemId, quantity, units }: TookOut): WentIn[] {
  let rest = quantity;
  return lines.map((line) => {
    if (line.itemId !== itemId || rest <= 0 || line.used <= 0) return line;
    const scaled = mulDiv(rest, line.units, units, 'nearest') as Quantity;
    const taken = Math.min(scaled, line.used) as Quantity;
    rest = scaled > line.used ? (mulDiv(minus(scaled, taken), units, line.units, 'nearest') as Quantity) : ZERO;
    const used = minus(line.used, taken);
    return { ...line, used, cost: mulDiv(line.cost, used, line.used, 'nearest') as Money };
  });
}
