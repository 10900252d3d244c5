import { compile, type Demand, eachGift, plan, type Supply, type WhenThere, whenOf } from '../demand/index.ts';
import { add, minus, type Quantity, ZERO } from '../number/index.ts';
import type { World } from './world.ts';

/** Some of a product that is asked for: what of it is to be made, and what is taken from its own shelf first. */
export interface Asked {
  readonly itemId: number;
  readonly toMake: Quantity;
  readonly fromShelf: Quantity;
  /** What making so many needs, by item; empty where nobody knows what it is made of. */
  readonly needs: ReadonlyMap<number, Quantity>;
}

/** What is asked for comes after everybody who was promised something, in the order it was asked. */
const LAST = 1e15;
/** The source of what was asked first is -1, and so on. */
export const sourceOf = (index: number) => -1 - index;

/** What one of those asked for needs of an item, and when it has it. */
export interface AskedNeed {
  /** Which of those asked for it is. */
  readonly index: number;
  readonly itemId: number;
  readonly quantity: Quantity;
  /** Of it from shelves, and what nothing brings. */
  readonly now: Quantity;
  readonly short: Quantity;
  readonly completeOn: WhenThere;
  /** What of it is not there by the day that was asked for; zero without one. */
  readonly late: Quantity;
}

export interface AskedPegging {
  /** What is needed to make what is asked for, in the order it was asked. */
  readonly needs: readonly AskedNeed[];
  /** When builds are done that the question touches; those of the question itself by {@link sourceOf}. */
  readonly doneOn: ReadonlyMap<number, WhenThere>;
}

/**
 * Serves what is asked for as if builds of it were planned, after everybody else: the same computation on a copy. Only
 * what it touches is reckoned with anew; the days of other builds stay as they are.
 * @param stores where parts may come from; null for everywhere
 * @param by the day by which it is wanted; null for whenever
 */
export function pegAsked(
  world: World,
  asked: readonly Asked[],
  stores: ReadonlySet<number> | null,
  by: string | null = null,
): AskedPegging {
  const demands = asked.flatMap((one, index) => demandsOf(world, one, index, stores));
  const made = asked.flatMap((one, index) => supplyOf(world, one, index));
  const { items, live } = touched(world, made);
  const others = new Set(demands.flatMap(({ itemId }) => (items.has(itemId) ? [] : itemId)));
  const supplies = [...items].flatMap((itemId) =>
    world.suppliesOf(itemId).map((supply) => (live.has(supply.from.id) ? supply : world.dated(supply))),
  );
  const picture = {
    demands: [...[...items].flatMap((itemId) => world.demandsFor(itemId)), ...demands],
    // Of everything else it gets what the others leave, which is known already.
    supplies: [...supplies, ...[...others].flatMap((itemId) => world.restOf(itemId)), ...made],
    calendar: world.known.calendar,
  };
  const run = plan(compile(picture));
  const inTime = new Map<number, Quantity>();
  if (by !== null)
    eachGift(run, (line, supply, quantity) => {
      const on = whenOf(run.day[supply] ?? 0);
      if (on !== null && on <= by) inTime.set(line, add(inTime.get(line) ?? ZERO, quantity as Quantity));
    });
  const needs: AskedNeed[] = [];
  for (const line of run.of.turn) {
    const { source, itemId, quantity } = run.of.demands[line] as Demand;
    if (source.id >= 0 || source.kind !== 'build') continue;
    needs.push({
      index: -1 - source.id,
      itemId,
      quantity,
      now: run.now[line] as Quantity,
      short: run.short[line] as Quantity,
      completeOn: whenOf(run.when[line] ?? 0),
      late: by === null ? ZERO : minus(quantity, inTime.get(line) ?? ZERO),
    });
  }
  return {
    needs,
    doneOn: new Map(run.of.makings.map(({ id }, making) => [id, whenOf(run.doneOn[making] ?? 0)])),
  };
}

function demandsOf(
  world: World,
  { itemId, fromShelf, needs }: Asked,
  index: number,
  stores: ReadonlySet<number> | null,
): Demand[] {
  const demand = (kind: 'build' | 'order', part: number, quantity: Quantity): Demand => ({
    source: { kind, id: sourceOf(index) },
    lineId: null,
    itemId: part,
    quantity,
    decimals: world.decimalsOf(part),
    turn: { begun: false, priority: null, wantedOn: null, age: LAST + index },
    stores,
    alternates: [],
  });
  return [
    ...(fromShelf > 0 ? [demand('order', itemId, fromShelf)] : []),
    ...[...needs].flatMap(([part, need]) => (need > 0 ? demand('build', part, need) : [])),
  ];
}

function supplyOf(world: World, { itemId, toMake }: Asked, index: number): Supply[] {
  const definition = world.definitionOf(itemId);
  if (!definition || toMake === 0) return [];
  const bench = world.benchOf(definition, toMake);
  return [
    {
      from: { kind: 'build', id: sourceOf(index) },
      itemId,
      quantity: toMake,
      on: null,
      bench,
      storeId: null,
      only: null,
    },
  ];
}

/**
 * Items of which others get more because of a question: what it makes, and where that serves others, everything that the
 * builds need and make which it lets begin sooner (`live`).
 */
function touched(world: World, made: readonly Supply[]) {
  const items = new Set<number>();
  const live = new Set<number>();
  const sooner = made.map(({ itemId }) => itemId);
  const seen = new Set(sooner);
  for (let itemId = sooner.pop(); itemId !== undefined; itemId = sooner.pop()) {
    items.add(itemId);
    for (const { source } of world.demandsFor(itemId)) {
      if (source.kind !== 'build' || live.has(source.id)) continue;
      live.add(source.id);
      for (const line of world.linesOfBuild(source.id)) items.add(line.itemId);
      const product = world.productOf.get(source.id);
      if (product === undefined || seen.has(product)) continue;
      seen.add(product);
      sooner.push(product);
    }
  }
  return { items, live };
}
