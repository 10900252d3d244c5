import {
  type Aside,
  type Change,
  type Completion,
  type Coverage,
  changed,
  complete,
  cover,
  deliveriesOf,
  type Question,
  type World,
} from '@yosegi/core/coverage';
import { runCost } from '@yosegi/core/definitions';
import { add, type Money, type Quantity, ZERO } from '@yosegi/core/number';

/** A question as the page asks it. */
export interface CoverAsk extends Omit<Question, 'stores'> {
  readonly stores: readonly number[] | null;
  readonly drafts: boolean;
  /** What is set aside because it is asked for itself. */
  readonly aside: Aside | null;
  /** What is otherwise than it stands. */
  readonly changes: readonly Change[];
}

export interface CoverAnswer extends Coverage {
  /** What making everything wanted costs at moving average, each product in one run. */
  readonly cost: Money;
  /** Lines of orders to suppliers that are expected on other days than they are. */
  readonly deliveries: ReturnType<typeof deliveriesOf>;
  /** Minutes of labour in all, in millionths. */
  readonly minutes: Quantity;
}

/** The same question, with the days on which what is short would come if it were bought today. */
export interface CompleteAsk extends CoverAsk {
  readonly buyOn: readonly (readonly [itemId: number, on: string | null])[];
}

/** The last changes asked with, so that a key in another field does not index the world anew. */
let last: { readonly asItIs: World; readonly key: string; readonly world: World } | null = null;

function worldWith(asItIs: World, changes: readonly Change[]): World {
  if (changes.length === 0) return asItIs;
  const key = JSON.stringify(changes);
  if (last?.asItIs !== asItIs || last.key !== key) last = { asItIs, key, world: changed(asItIs, changes) };
  return last.world;
}

/** What Cover shows for what is asked. @throws Refusal `too-large` for amounts that cannot be kept exactly */
export function coverAnswer(asItIs: World, ask: CoverAsk): CoverAnswer {
  const world = worldWith(asItIs, ask.changes);
  const answer = cover(world, { ...ask, stores: ask.stores && new Set(ask.stores) });
  const runs = answer.products.flatMap(({ itemId, toMake }) => {
    const revision = world.definitionOf(itemId);
    return revision && toMake > 0 ? [runCost(revision, toMake, (id) => world.averageCost(id))] : [];
  });
  return {
    ...answer,
    deliveries: deliveriesOf(asItIs, world),
    cost: add(ZERO, ...runs.map(({ total }) => total)),
    minutes: add(ZERO, ...runs.map(({ minutes }) => minutes)),
  };
}

/** What all of an answer takes, level by level, and when it is complete then. @throws Refusal `too-large` */
export const completeAnswer = (asItIs: World, { buyOn, ...ask }: CompleteAsk): Completion =>
  complete(worldWith(asItIs, ask.changes), { ...ask, stores: ask.stores && new Set(ask.stores) }, new Map(buyOn));
