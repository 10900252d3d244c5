import { type Aside, type Coverage, cover, type Question, type World } from '@yosegi/core/coverage';
import { runCost } from '@yosegi/core/definitions';
import { add, type Money, type Quantity, ZERO } from '@yosegi/core/number';

/** A question as the page asks it. */
export interface CoverAsk extends Omit<Question, 'stores'> {
  readonly stores: readonly number[] | null;
  readonly drafts: boolean;
  /** What is set aside because it is asked for itself. */
  readonly aside: Aside | null;
}

export interface CoverAnswer extends Coverage {
  /** What making everything wanted costs at moving average, each product in one run. */
  readonly cost: Money;
  /** Minutes of labour in all, in millionths. */
  readonly minutes: Quantity;
}

/** What Cover shows for what is asked. @throws Refusal `too-large` for amounts that cannot be kept exactly */
export function coverAnswer(world: World, ask: CoverAsk): CoverAnswer {
  const answer = cover(world, { ...ask, stores: ask.stores && new Set(ask.stores) });
  const runs = answer.products.flatMap(({ itemId, toMake }) => {
    const revision = world.definitionOf(itemId);
    return revision && toMake > 0 ? [runCost(revision, toMake, (id) => world.averageCost(id))] : [];
  });
  return {
    ...answer,
    cost: add(ZERO, ...runs.map(({ total }) => total)),
    minutes: add(ZERO, ...runs.map(({ minutes }) => minutes)),
  };
}
