import { groupBy } from '../lists/index.ts';
import { type Goal, goalKey, type OnShelf, type Stop, stopsOf, type Wanted } from './stops.ts';

/** A run worth walking: whom it serves, and what walking them together saves. */
export interface ProposedRun {
  readonly storeId: number;
  readonly goals: readonly Goal[];
  /** Stops of the run, and of them those at which goods for more than one are taken. */
  readonly stops: number;
  readonly shared: number;
  /** Stops that are walked once instead of again for each. */
  readonly saved: number;
}

/** A run that serves more than so many is more than one cart holds. */
const MOST_GOALS = 8;

/**
 * Puts builds and orders together that are picked at the same bins, store by store: whoever has the most to pick begins a
 * run, and those join it that add the fewest stops of their own, at least half of theirs being on the way already. What is
 * nowhere to be had begins no run.
 * @param wanted in turn
 * @param shelves in walking order
 * @param isFree whether somebody may be proposed; who is not is served all the same, so that nobody else is sent for it
 */
export function proposeRuns(
  wanted: readonly Wanted[],
  shelves: readonly OnShelf[],
  isFree: (goal: Goal) => boolean = () => true,
): ProposedRun[] {
  return runsOf(stopsOf(wanted, shelves).stops, wanted, isFree);
}

/** The same of stops that are known. */
export function runsOf(
  stops: readonly Stop[],
  wanted: readonly Wanted[],
  isFree: (goal: Goal) => boolean = () => true,
): ProposedRun[] {
  const goals = new Map(wanted.map(({ goal }) => [goalKey(goal), goal]));
  const runs: ProposedRun[] = [];
  for (const [storeId, own] of groupBy(stops, (stop) => stop.storeId)) {
    const ways = new Map<string, Set<number>>();
    for (const [at, stop] of own.entries())
      for (const { goal } of stop.lines.filter((line) => isFree(line.goal))) {
        const way = ways.get(goalKey(goal)) ?? new Set<number>();
        ways.set(goalKey(goal), way.add(at));
      }
    while (ways.size > 0) runs.push(nextRun(storeId, ways, goals));
  }
  return runs.sort((a, b) => b.saved - a.saved || b.stops - a.stops);
}

/** Takes one run out of the ways that are left. */
function nextRun(storeId: number, ways: Map<string, Set<number>>, goals: ReadonlyMap<string, Goal>): ProposedRun {
  const [first = '', firstWay = new Set<number>()] =
    [...ways].reduce<[string, Set<number>] | undefined>(
      (most, one) => (most === undefined || one[1].size > most[1].size ? one : most),
      undefined,
    ) ?? [];
  ways.delete(first);
  const all = new Set(firstWay);
  const seen = new Map([...firstWay].map((at) => [at, 1]));
  const members = [first];
  let separate = firstWay.size;
  while (members.length < MOST_GOALS) {
    let best: { key: string; way: Set<number>; own: number } | null = null;
    for (const [key, way] of ways) {
      let own = 0;
      for (const at of way) if (!all.has(at)) own += 1;
      if (own * 2 <= way.size && (best === null || own < best.own)) best = { key, way, own };
    }
    if (!best) break;
    ways.delete(best.key);
    members.push(best.key);
    separate += best.way.size;
    for (const at of best.way) {
      all.add(at);
      seen.set(at, (seen.get(at) ?? 0) + 1);
    }
  }
  return {
    storeId,
    goals: members.flatMap((key) => goals.get(key) ?? []),
    stops: all.size,
    shared: [...seen.values()].filter((count) => count > 1).length,
    saved: separate - all.size,
  };
}
