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

/** What finishing `now` more units is planned to use of a line: the parts' total need never depends on the portions. */
export function plannedUse(line: Need, progress: Progress, now: Quantity): Quantity {
  const after = required(line, (progress.finished + now) as Quantity, progress.outputQuantity);
  return (after - required(line, progress.finished, progress.outputQuantity)) as Quantity;
}

/** What a line still needs to have brought: the plan for what is left, less what stands on the bench for it. */
export function openToPick(line: Need, progress: Progress, onBench: Quantity): Quantity {
  const left = (progress.quantity - progress.finished) as Quantity;
  return Math.max(0, plannedUse(line, progress, left) - onBench) as Quantity;
}
