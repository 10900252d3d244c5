import type { Making } from './compile.ts';

/** Items that need each other, or one that needs itself; most stand alone. */
export interface Group {
  readonly items: readonly number[];
  /** Whether a build makes one of them of one of them. */
  readonly isRound: boolean;
}

/** The places of items in the order in which they can be served. */
export interface Order {
  /** What no build makes: its days are known. */
  readonly bought: Int32Array;
  /**
   * What builds make, what a build needs before what it makes, so that its day is known. Items that need each other, or
   * themselves (a unit that is refreshed), stand in one group.
   */
  readonly made: readonly Group[];
}

/** @param madeBy of each supply the place of its build, or -1 */
export function inOrder(
  count: number,
  makings: readonly Making[],
  madeBy: Int32Array,
  supplyItem: Int32Array,
  lineItem: Int32Array,
): Order {
  /** By item that is made, the items that its builds need. */
  const needs = new Map<number, Set<number>>();
  for (const [supply, making] of madeBy.entries()) {
    const item = supplyItem[supply];
    if (making < 0 || item === undefined) continue;
    const own = needs.get(item) ?? new Set();
    needs.set(item, own);
    for (const line of makings[making]?.lines ?? []) own.add(lineItem[line] ?? 0);
  }
  const bought: number[] = [];
  for (let item = 0; item < count; item += 1) if (!needs.has(item)) bought.push(item);
  const made = groups(needs).map(
    (items): Group => ({ items, isRound: items.length > 1 || items.some((item) => needs.get(item)?.has(item)) }),
  );
  return { bought: Int32Array.from(bought), made };
}

interface Visit {
  readonly item: number;
  readonly next: Iterator<number>;
}

/** Strongly connected groups of what is made, those that others need first (Tarjan's algorithm, without recursion). */
function groups(needs: ReadonlyMap<number, ReadonlySet<number>>): number[][] {
  const found: number[][] = [];
  const index = new Map<number, number>();
  const low = new Map<number, number>();
  const open: number[] = [];
  const isOpen = new Set<number>();
  const enter = (item: number): Visit => {
    index.set(item, index.size);
    low.set(item, index.size - 1);
    open.push(item);
    isOpen.add(item);
    return { item, next: (needs.get(item) ?? new Set<number>()).values() };
  };
  const lower = (item: number, to: number) => low.set(item, Math.min(low.get(item) ?? 0, to));
  for (const start of needs.keys()) {
    if (index.has(start)) continue;
    const path = [enter(start)];
    for (let visit = path.at(-1); visit; visit = path.at(-1)) {
      const { value: part, done } = visit.next.next();
      if (!done) {
        if (!needs.has(part)) continue;
        if (!index.has(part)) path.push(enter(part));
        else if (isOpen.has(part)) lower(visit.item, index.get(part) ?? 0);
        continue;
      }
      path.pop();
      const above = path.at(-1);
      if (above) lower(above.item, low.get(visit.item) ?? 0);
      if (low.get(visit.item) !== index.get(visit.item)) continue;
      const group = open.splice(open.indexOf(visit.item));
      for (const item of group) isOpen.delete(item);
      found.push(group);
    }
  }
  return found;
}
