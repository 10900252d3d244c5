import type { CoverageWorld } from '@yosegi/contract/coverage-input';
import { type Coverage, cover, type Wanted } from '@yosegi/core/coverage';
import { runCost } from '@yosegi/core/definitions';
import { add, type Money, type Quantity } from '@yosegi/core/number';

export interface CoverAnswer extends Coverage {
  /** What making everything wanted costs at moving average, each product in one run. */
  readonly cost: Money;
  /** Minutes of labour in all, in millionths. */
  readonly minutes: Quantity;
}

/** What Cover shows for what is wanted. @throws Refusal `too-large` for amounts that cannot be kept exactly */
export function coverAnswer(world: CoverageWorld, wanted: readonly Wanted[]): CoverAnswer {
  const runs = wanted.flatMap(({ itemId, quantity }) => {
    const revision = world.revision(itemId);
    return revision ? [runCost(revision, quantity, (id) => world.averageCost(id))] : [];
  });
  return {
    ...cover(world.input(wanted)),
    cost: add(0 as Money, ...runs.map(({ total }) => total)),
    minutes: add(0 as Quantity, ...runs.map(({ minutes }) => minutes)),
  };
}
