import { add, type Quantity } from '../number/index.ts';
import { coverByAlternates, type StandIn } from './alternates.ts';
import { type Compiled, compile, NOW, type Picture } from './compile.ts';
import type { Demand, Supply, WhenThere } from './demand.ts';
import { eachGift, mayServe, type Plan, plan, whenOf } from './plan.ts';

/** Some of a supply that serves a demand. */
export interface Given {
  readonly supply: Supply;
  /** When it is there. */
  readonly on: WhenThere;
  readonly quantity: Quantity;
}

/** What one demand is served by. */
export interface Pegged {
  readonly demand: Demand;
  /** What is kept for its source first, then in the order it comes. */
  readonly given: readonly Given[];
  /** Of it from shelves. */
  readonly now: Quantity;
  /** Of it on its way. */
  readonly coming: Quantity;
  /** What nothing brings. */
  readonly short: Quantity;
  /** The day it has everything; null when none is known, or not all of it comes. */
  readonly completeOn: WhenThere;
  /**
   * What could stand in now for what is not on shelves, as far as nobody needs it itself, and counted once. Offered, never
   * part of the figures above.
   */
  readonly standIns: readonly StandIn[];
}

/** What serves whom, and when what is made is done. */
export interface Pegging {
  /** Every demand in its turn, what is owed first. */
  readonly pegged: readonly Pegged[];
  /** When each open build is done; null where nobody knows. Only builds whose day follows from their parts. */
  readonly doneOn: ReadonlyMap<number, WhenThere>;
}

/**
 * Says which supply serves which demand, as {@link plan} does, in objects.
 * Nothing is given twice. What shelves below zero owe is served before anybody.
 */
export function peg(picture: Picture): Pegging {
  const run = plan(compile(picture));
  const { of } = run;
  const given: Given[][] = of.demands.map(() => []);
  eachGift(run, (line, at, quantity) => {
    const supply = of.supplies[at];
    if (supply) given[line]?.push({ supply, quantity: quantity as Quantity, on: whenOf(run.day[at] ?? NOW) });
  });
  const standIns = standInsOf(run);
  const pegged = Array.from(of.turn, (line): Pegged => {
    const [need, now, short] = [of.need[line] ?? 0, run.now[line] ?? 0, run.short[line] ?? 0];
    return {
      demand: of.demands[line] as Demand,
      given: given[line] ?? [],
      now: now as Quantity,
      coming: (need - now - short) as Quantity,
      short: short as Quantity,
      completeOn: whenOf(run.when[line] ?? NOW),
      standIns: standIns.get(line) ?? [],
    };
  });
  const doneOn = new Map(of.makings.map(({ id }, making) => [id, whenOf(run.doneOn[making] ?? NOW)]));
  return { pegged, doneOn };
}

/** What could stand in for each demand that shelves do not serve whole, by its place in turn; nothing of it twice. */
export function standInsOf({ of, now, left: after, day }: Plan): Map<number, readonly StandIn[]> {
  const left = after.slice();
  const found = new Map<number, readonly StandIn[]>();
  for (const line of of.turn) {
    const demand = of.demands[line] as Demand;
    const missing = ((of.need[line] ?? 0) - (now[line] ?? 0)) as Quantity;
    if (missing === 0 || demand.alternates.length === 0) continue;
    const there = (itemId: number) => shelvesFor(of, day, demand, itemId);
    const free = (itemId: number) => add(0 as Quantity, ...there(itemId).map((supply) => left[supply] as Quantity));
    const { used } = coverByAlternates(demand.alternates, missing, demand.decimals, free);
    for (const { itemId, left: rest } of used) takeDownTo(left, there(itemId), rest);
    found.set(
      line,
      used.filter(({ standsFor }) => standsFor > 0).map(({ left: _, ...standIn }) => standIn),
    );
  }
  return found;
}

/** The shelves of an item that may serve a demand, by place. */
function shelvesFor(of: Compiled, day: Int32Array, demand: Demand, itemId: number): number[] {
  const item = of.indexOf.get(itemId);
  if (item === undefined) return [];
  const own = of.stock.subarray(of.supplyStart[item] ?? 0, of.supplyStart[item + 1] ?? 0);
  return [...own].filter((at) => {
    const supply = of.supplies[at];
    return supply !== undefined && day[at] === NOW && supply.only === null && mayServe(supply, demand);
  });
}

/** Takes from shelves until so much of them is left. */
function takeDownTo(left: Float64Array, shelves: readonly number[], rest: Quantity): void {
  let taken = shelves.reduce((sum, supply) => sum + (left[supply] ?? 0), 0) - rest;
  for (const supply of shelves) {
    const part = Math.min(left[supply] ?? 0, taken);
    left[supply] = (left[supply] ?? 0) - part;
    taken -= part;
  }
}
