import type { Quantity } from '../number/index.ts';

/** What an open build still needs from the shelves, by item. */
export interface OpenBuild {
  readonly id: number;
  readonly onBench: boolean;
  /** ISO day; null when none was set. */
  readonly due: string | null;
  readonly needs: ReadonlyMap<number, Quantity>;
}

export interface Allotment {
  readonly buildId: number;
  /** What the shelves could give this build after those before it, by item. */
  readonly got: ReadonlyMap<number, Quantity>;
  /** What is missing, by item; empty when the build has everything. */
  readonly short: ReadonlyMap<number, Quantity>;
}

/**
 * Shares what is on the shelves among open builds: builds on the bench first, then planned ones by due day and age.
 * No quantity is given twice, and a build that cannot be whole keeps what it was given: it was promised.
 */
export function allot(builds: readonly OpenBuild[], onHand: ReadonlyMap<number, Quantity>): Allotment[] {
  const left = new Map(onHand);
  return [...builds].sort(byTurn).map((build) => {
    const got = new Map<number, Quantity>();
    const short = new Map<number, Quantity>();
    for (const [itemId, need] of build.needs) {
      const there = Math.max(0, left.get(itemId) ?? 0);
      const given = Math.min(need, there) as Quantity;
      got.set(itemId, given);
      left.set(itemId, (there - given) as Quantity);
      if (given < need) short.set(itemId, (need - given) as Quantity);
    }
    return { buildId: build.id, got, short };
  });
}

function byTurn(a: OpenBuild, b: OpenBuild): number {
  if (a.onBench !== b.onBench) return a.onBench ? -1 : 1;
  return (a.due ?? '9999').localeCompare(b.due ?? '9999') || a.id - b.id;
}
