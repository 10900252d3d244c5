import { type Need, required } from '../definitions/index.ts';
import type { Quantity } from '../number/index.ts';

/** How far a build has come. */
export interface Progress {
  /** Planned in all. */
  readonly quantity: Quantity;
  /** Units finished so far, good and rejected ones. */
  readonly finished: Quantity;
  readonly outputQuantity: Quantity;
}

/** What a build's own line needs. */
export interface BuildNeed extends Need {
  /**
   * Of a part added on the bench, what is not used yet: it goes with whatever is finished next, for it is there because of
   * what lies on the bench now. Left out for what the definition says.
   */
  readonly extra?: Quantity | undefined;
  /** How much of it an alternate stands in for: so much less of the part itself is needed, of the last that is used. */
  readonly instead?: Quantity | undefined;
}

/** What finishing `now` more units is planned to use of a line: the parts' total need never depends on the portions. */
export function plannedUse(line: BuildNeed, progress: Progress, now: Quantity): Quantity {
  if (line.extra !== undefined) return now > 0 ? line.extra : (0 as Quantity);
  const most = required(line, progress.quantity, progress.outputQuantity) - (line.instead ?? 0);
  const upTo = (units: Quantity) => {
    const whole = required(line, units, progress.outputQuantity);
    return line.instead === undefined ? whole : Math.max(0, Math.min(whole, most));
  };
  return (upTo((progress.finished + now) as Quantity) - upTo(progress.finished)) as Quantity;
}

/** What a line still needs to have brought: the plan for what is left, less what stands on the bench for it. */
export function openToPick(line: BuildNeed, progress: Progress, onBench: Quantity): Quantity {
  const left = (progress.quantity - progress.finished) as Quantity;
  return Math.max(0, plannedUse(line, progress, left) - onBench) as Quantity;
}

/** What is left to use of a part that was added: none where more was used than it was added for. */
export const extraLeft = (amount: Quantity, used: Quantity): Quantity => Math.max(0, amount - used) as Quantity;
