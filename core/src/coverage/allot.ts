import type { Quantity } from '../number/index.ts';
import type { Coming } from './cover.ts';

/** What an open build still needs from the shelves, by item. */
export interface OpenBuild {
  readonly id: number;
  readonly onBench: boolean;
  /** ISO day; null when none was set. */
  readonly due: string | null;
  readonly needs: ReadonlyMap<number, Quantity>;
}

/** Something on its way; what a build will bring never feeds that build itself. */
export interface Arrival extends Coming {
  readonly buildId: number | null;
}

/** What a build lacks of one item. */
export interface Shortage {
  readonly quantity: Quantity;
  /** Whether any of it is on its way for this build, even if nobody knows when. */
  readonly isComing: boolean;
  /** The day on which the last of it comes; null when none is known or not all of it is coming. */
  readonly wholeOn: string | null;
}

export interface Allotment {
  readonly buildId: number;
  /** What the shelves could give this build after those before it, by item. */
  readonly got: ReadonlyMap<number, Quantity>;
  /** What is missing, by item; empty when the build has everything. */
  readonly short: ReadonlyMap<number, Shortage>;
}

/**
 * Shares what is on the shelves among open builds: builds on the bench first, then planned ones by due day and age; then
 * in the same turn what is coming, the first to come first. No quantity is given twice, and a build that cannot be whole
 * keeps what it was given: it was promised.
 */
export function allot(
  builds: readonly OpenBuild[],
  onHand: ReadonlyMap<number, Quantity>,
  coming: readonly Arrival[] = [],
): Allotment[] {
  const left = new Map(onHand);
  const arrivals = new Map<number, { readonly of: Arrival; left: number }[]>();
  for (const of of [...coming].sort((a, b) => (a.date ?? '9999').localeCompare(b.date ?? '9999'))) {
    const known = arrivals.get(of.itemId);
    if (known) known.push({ of, left: of.quantity });
    else arrivals.set(of.itemId, [{ of, left: of.quantity }]);
  }
  return [...builds].sort(byTurn).map((build) => {
    const got = new Map<number, Quantity>();
    const short = new Map<number, Shortage>();
    for (const [itemId, need] of build.needs) {
      const there = Math.max(0, left.get(itemId) ?? 0);
      const given = Math.min(need, there) as Quantity;
      got.set(itemId, given);
      left.set(itemId, (there - given) as Quantity);
      if (given < need) short.set(itemId, waitFor(build.id, (need - given) as Quantity, arrivals.get(itemId) ?? []));
    }
    return { buildId: build.id, got, short };
  });
}

function waitFor(
  buildId: number,
  quantity: Quantity,
  arrivals: readonly { readonly of: Arrival; left: number }[],
): Shortage {
  let open: number = quantity;
  let last: string | null = null;
  for (const arrival of arrivals) {
    if (open === 0) break;
    if (arrival.of.buildId === buildId || arrival.left === 0) continue;
    const taken = Math.min(open, arrival.left);
    arrival.left -= taken;
    open -= taken;
    last = arrival.of.date;
  }
  return { quantity, isComing: open < quantity, wholeOn: open === 0 ? last : null };
}

function byTurn(a: OpenBuild, b: OpenBuild): number {
  if (a.onBench !== b.onBench) return a.onBench ? -1 : 1;
  return (a.due ?? '9999').localeCompare(b.due ?? '9999') || a.id - b.id;
}
