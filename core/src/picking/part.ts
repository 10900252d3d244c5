import { type BuildNeed, type Progress, plannedUse } from '../builds/index.ts';
import { minus, type Quantity } from '../number/index.ts';

/**
 * What a line has to have brought so that `units` more can be finished, the rest later: its plan for them, less what stands
 * on the bench for it. Never more than is open of it.
 */
export function neededFor(line: BuildNeed, progress: Progress, onBench: Quantity, units: Quantity): Quantity {
  const left = minus(progress.quantity, progress.finished);
  const planned = plannedUse(line, progress, units < left ? units : left);
  return planned > onBench ? minus(planned, onBench) : (0 as Quantity);
}
