import { compile, type Demand, type Plan, plan, type Source, sourceKey } from '../demand/index.ts';
import { type Contest, dueOf } from './contest.ts';
import { World, withPriority } from './world.ts';

/** One way to share out what is scarce: who waits until all others have theirs. */
export interface Way {
  readonly waits: readonly Source[];
  /** Orders that have everything by the day they are due. */
  readonly whole: readonly Source[];
}

/** By the day it is wanted: nobody waits for another. */
export const byDateWay = (contest: Contest): Way => ({ waits: [], whole: wholeOf(contest, contest.plan) });

/** The world in which some wait. */
export const worldOfWay = ({ world }: Contest, waits: readonly Source[]): World =>
  waits.length === 0 ? world : new World(withPriority(world.known, waits, 1), world.drafts);

/**
 * Makes a choice as mild as it can be: whoever was made to wait for nothing gets their turn back, the first wanted first,
 * as long as the orders that are whole are worth no less.
 * @param worthOf as the choice was made by
 * @returns never worth less than going by date
 */
export function settled(contest: Contest, waits: readonly Source[], worthOf: (order: Source) => number): Way {
  const worthOfAll = (orders: readonly Source[]) => orders.reduce((sum, order) => sum + worthOf(order), 0);
  const looksAt = lookerFor(contest);
  const start = byDateWay(contest);
  let best: Way = { waits, whole: looksAt(waits) };
  if (worthOfAll(start.whole) >= worthOfAll(best.whole)) return start;
  const tryBack = (back: readonly Source[]): void => {
    if (back.length === 0) return;
    const keys = new Set(back.map(sourceKey));
    const rest = best.waits.filter((source) => !keys.has(sourceKey(source)));
    const whole = looksAt(rest);
    if (worthOfAll(whole) >= worthOfAll(best.whole)) best = { waits: rest, whole };
    else if (back.length > 1) {
      const half = Math.ceil(back.length / 2);
      tryBack(back.slice(0, half));
      tryBack(back.slice(half));
    }
  };
  const byTurn = [...contest.rivals].sort((a, b) => turnOf(contest, a) - turnOf(contest, b));
  const waiting = new Set(waits.map(sourceKey));
  tryBack(byTurn.filter((source) => waiting.has(sourceKey(source))));
  return best;
}

const turns = new WeakMap<Contest, ReadonlyMap<string, number>>();

/** The place in turn of the first thing that somebody wants. */
function turnOf(contest: Contest, source: Source): number {
  const known = turns.get(contest) ?? readTurns(contest);
  turns.set(contest, known);
  return known.get(sourceKey(source)) ?? 0;
}

function readTurns({ plan: { of } }: Contest): ReadonlyMap<string, number> {
  const first = new Map<string, number>();
  for (const [at, line] of of.turn.entries()) {
    const key = sourceKey((of.demands[line] as Demand).source);
    if (!first.has(key)) first.set(key, at);
  }
  return first;
}

/** Serves again only what those who compete need, and whoever shares it with them; all else stays on its days. */
function lookerFor(contest: Contest): (waits: readonly Source[]) => readonly Source[] {
  const { world, plan: run } = contest;
  const named = new Set([...contest.rivals, ...contest.orders].map(sourceKey));
  const builds = new Set(run.of.makings.flatMap(({ id }, making) => (contest.starts.has(making) ? [id] : [])));
  const isNear = ({ source }: Demand) =>
    named.has(sourceKey(source)) || (source.kind === 'build' && builds.has(source.id));
  const items = new Set(run.of.demands.flatMap((demand) => (isNear(demand) ? demand.itemId : [])));
  for (const item of contest.items) items.add(run.of.itemIds[item] as number);
  const live = new Set([...builds, ...contest.rivals.flatMap(({ kind, id }) => (kind === 'build' ? id : []))]);
  const supplies = [...items].flatMap((itemId) =>
    world.suppliesOf(itemId).map((supply) => (live.has(supply.from.id) ? supply : world.dated(supply))),
  );
  const demands = [...items].flatMap((itemId) => world.demandsFor(itemId));
  return (waits) => {
    const waiting = new Set(waits.map(sourceKey));
    const inTurn = demands.map((demand) =>
      waiting.has(sourceKey(demand.source)) ? { ...demand, turn: { ...demand.turn, priority: 1 } } : demand,
    );
    return wholeOf(contest, plan(compile({ demands: inTurn, supplies, calendar: world.known.calendar })));
  };
}

/** Of the orders that are looked at, those that have everything by the day they are due. */
function wholeOf({ orders }: Contest, { of, when }: Plan): Source[] {
  const late = new Set<string>();
  for (const [line, demand] of of.demands.entries())
    if (demand.source.kind === 'order' && (when[line] as number) > dueOf(demand, of.today))
      late.add(sourceKey(demand.source));
  return orders.filter((order) => !late.has(sourceKey(order)));
}
