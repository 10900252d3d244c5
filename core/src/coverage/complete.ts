import { latest, type WhenThere } from '../demand/index.ts';
import { type Coverage, cover, type Question, type Wanted } from './cover.ts';
import { type Known, type KnownSupply, World } from './world.ts';

/** All that an answer takes beside the products asked for themselves, and when all of it is complete then. */
export interface Completion {
  /** Builds of made parts that are short, one level below the other: what a level makes goes into those above it. */
  readonly levels: readonly (readonly Wanted[])[];
  /** What has to be bought, for all levels. */
  readonly buy: readonly Wanted[];
  /** Of it what nobody knows a day for. */
  readonly unknown: readonly number[];
  /** When each product asked for is complete if all of it is begun and bought today, in the order asked. */
  readonly products: readonly WhenThere[];
  readonly completeOn: WhenThere;
}

/** Definitions are never deeper than this by far. */
const MOST_LEVELS = 20;
/** Below every build, question and case. */
const FIRST_BOUGHT = -1_000_000_000;

/**
 * The complete answer to a question: a made part that is short is answered by a build of it, with its own parts in the count,
 * level by level; what is bought is bought today. Nothing of it is taken by asking.
 * @param buyOn the day each item would come if it were ordered today; null or left out where nobody knows
 * @throws Refusal `too-large`
 */
export function complete(world: World, question: Question, buyOn: ReadonlyMap<number, string | null>): Completion {
  const levels: Wanted[][] = [];
  let wanted: readonly Wanted[] = question.wanted;
  let answer = cover(world, question);
  for (let level = madeShort(world, answer); level.length > 0 && levels.length < MOST_LEVELS; ) {
    levels.push(level);
    wanted = [...wanted, ...level.map((one) => ({ ...one, isPart: true }))];
    answer = cover(world, { ...question, wanted });
    level = madeShort(world, answer);
  }
  const buy = shortOf(answer).filter(({ itemId }) => !isMade(world, itemId));
  const bought = cover(withBought(world, buy, buyOn), { ...question, wanted });
  const products = bought.products.slice(0, question.wanted.length).map(({ completeOn }) => completeOn);
  return {
    levels,
    buy,
    unknown: buy.flatMap(({ itemId }) => (buyOn.get(itemId) == null ? itemId : [])),
    products,
    completeOn: latest(products),
  };
}

const isMade = (world: World, itemId: number): boolean => world.definitionOf(itemId)?.isDraft === false;

const shortOf = ({ components }: Coverage): Wanted[] =>
  components.flatMap(({ itemId, short }) => (short > 0 ? [{ itemId, quantity: short }] : []));

const madeShort = (world: World, answer: Coverage): Wanted[] =>
  shortOf(answer)
    .filter(({ itemId }) => isMade(world, itemId))
    .sort((a, b) => a.itemId - b.itemId);

/** The same with what is bought today on its way. */
function withBought(world: World, buy: readonly Wanted[], buyOn: ReadonlyMap<number, string | null>): World {
  if (buy.length === 0) return world;
  const supplies = new Map(world.known.supplies);
  for (const [index, { itemId, quantity }] of buy.entries())
    supplies.set(`bought ${itemId}`, {
      from: { kind: 'purchase', id: FIRST_BOUGHT - index },
      itemId,
      quantity,
      on: buyOn.get(itemId) ?? null,
      storeId: null,
      only: null,
      isDraft: false,
      isPlanned: false,
      supplierId: null,
    } satisfies KnownSupply);
  return new World({ ...world.known, supplies } satisfies Known, world.drafts);
}
