import { HUNDRED_PERCENT, type Percent, type Quantity } from '../number/index.ts';

/** Whether so much was used that somebody has to say why: more than `tolerance` percent off the plan, either way. */
export const isBeyond = (planned: Quantity, actual: Quantity, tolerance: Percent | null): boolean =>
  tolerance !== null &&
  BigInt(Math.abs(actual - planned)) * BigInt(HUNDRED_PERCENT) > BigInt(planned) * BigInt(tolerance);
