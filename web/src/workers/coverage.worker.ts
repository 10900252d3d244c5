import type { Snapshot } from '@yosegi/contract';
import { CoverageWorld } from '@yosegi/contract/coverage-input';
import { type Coverage, cover, type Wanted } from '@yosegi/core/coverage';
import { definitionCost, scaled } from '@yosegi/core/definition';
import { add, type Money, mulDiv, type Quantity } from '@yosegi/core/number';

export type ToWorker = { kind: 'snapshot'; snapshot: Snapshot } | { kind: 'ask'; id: number; wanted: Wanted[] };
export interface CoverAnswer extends Coverage {
  readonly id: number;
  /** What making everything wanted costs at moving average. */
  readonly cost: Money;
  /** Minutes of labour in all, in millionths. */
  readonly minutes: Quantity;
  /** How long the worker computed. */
  readonly milliseconds: number;
}

let world: CoverageWorld | null = null;

/** Keeps the last snapshot and answers questions about it; the newest question is always the last one answered. */
addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  if (data.kind === 'snapshot') {
    world = new CoverageWorld(data.snapshot);
    return;
  }
  if (!world) return;
  const started = performance.now();
  const answer = cover(world.input(data.wanted));
  const { cost, minutes } = effort(world, data.wanted);
  postMessage({
    ...answer,
    id: data.id,
    cost,
    minutes,
    milliseconds: performance.now() - started,
  } satisfies CoverAnswer);
});

function effort(known: CoverageWorld, wanted: readonly Wanted[]): { cost: Money; minutes: Quantity } {
  let cost = 0 as Money;
  let minutes = 0 as Quantity;
  for (const { itemId, quantity } of wanted) {
    const revision = known.revision(itemId);
    if (!revision) continue;
    const { total } = definitionCost(revision, (id) => known.averageCost(id));
    cost = add(cost, mulDiv(total, quantity, revision.outputQuantity, 'nearest') as Money);
    for (const line of revision.lines) {
      if (line.kind === 'labour')
        minutes = add(minutes, scaled(line.basis, line.minutes, quantity, revision.outputQuantity));
    }
  }
  return { cost, minutes };
}
