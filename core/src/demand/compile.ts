import { dayNumber, type WorkCalendar } from '../days/index.ts';
import type { Quantity } from '../number/index.ts';
import { byTurn, type Demand, type Supply, type WhenThere } from './demand.ts';
import { inOrder, type Order } from './order.ts';

/** Days as numbers that can be compared: now before all others, and what nobody knows after them. */
export const NOW = 0;
export const UNKNOWN = 0x7fff_ffff;
export const whenNumber = (on: WhenThere): number => (on === '' ? NOW : on === null ? UNKNOWN : dayNumber(on));

/** Who needs what and what can serve it, at one moment. */
export interface Picture {
  readonly demands: readonly Demand[];
  readonly supplies: readonly Supply[];
  readonly calendar: WorkCalendar;
}

/** An open build whose day follows from its parts. */
export interface Making {
  readonly id: number;
  readonly bench: number;
  /** The places of its demands. */
  readonly lines: number[];
}

/**
 * A picture made ready to be reckoned with as often as one likes. Demands stand item by item and in their turn, supplies
 * item by item and in the order they are used, and numbers in arrays of their own, so that a plan is one walk over them.
 */
export interface Compiled {
  readonly calendar: WorkCalendar;
  /** As {@link dayNumber} counts. */
  readonly today: number;
  readonly demands: readonly Demand[];
  /** The places of all demands in their turn, what is owed first. */
  readonly turn: Int32Array;
  readonly need: Float64Array;
  readonly supplies: readonly Supply[];
  readonly have: Float64Array;
  /** When it is there; of what is made, as long as that is not known. */
  readonly day: Int32Array;
  /** The build it comes from, by its place in `makings`, where its day follows from that; else -1. */
  readonly madeBy: Int32Array;
  readonly makings: readonly Making[];
  readonly itemIds: readonly number[];
  readonly indexOf: ReadonlyMap<number, number>;
  /** The demands of the item at `i` stand from `lineStart[i]` up to `lineStart[i + 1]`. */
  readonly lineStart: Int32Array;
  /** Its supplies, in the order they are used: `stock[supplyStart[i]]` up to `stock[supplyStart[i + 1]]`. */
  readonly supplyStart: Int32Array;
  readonly stock: Int32Array;
  readonly rank: Float64Array;
  readonly isKept: Uint8Array;
  /** Whether not every supply of an item may serve every demand for it. */
  readonly isChoosy: Uint8Array;
  readonly order: Order;
}

/** Makes a picture ready; what nobody asks for and nothing stands in for is left out. */
export function compile({ demands: asked, supplies: all, calendar }: Picture): Compiled {
  const owed = all.filter(({ quantity }) => quantity < 0).map(owedTo);
  const inTurn = [...owed, ...asked].sort(byTurn);
  const indexOf = new Map<number, number>();
  const place = (itemId: number) => {
    const known = indexOf.get(itemId);
    if (known !== undefined) return known;
    indexOf.set(itemId, indexOf.size);
    return indexOf.size - 1;
  };
  for (const { itemId, alternates } of inTurn) {
    place(itemId);
    for (const alternate of alternates) place(alternate.itemId);
  }
  // What nobody needs is left aside, but not what tells when a build is done.
  const needed = all.filter(
    ({ quantity, itemId, bench }) => quantity > 0 && (bench !== undefined || indexOf.has(itemId)),
  );
  const demandsOf = parted(inTurn, place);
  const suppliesOf = parted(needed, place);
  const count = indexOf.size;
  const supplies = suppliesOf.sorted;
  const day = Int32Array.from(supplies, ({ on, bench }) => (bench === undefined ? whenNumber(on) : UNKNOWN));
  const stock = Int32Array.from(supplies, (_, at) => at);
  const rank = rankOf(supplies);
  const isKept = Uint8Array.from(supplies, ({ only }) => (only === null ? 0 : 1));
  for (let item = 0; item < count; item += 1)
    sortByUse({ stock, supplyStart: suppliesOf.start, rank, isKept }, day, item);
  const demands = demandsOf.sorted;
  const { makings, madeBy } = makingsOf(supplies, demands);
  const lineItem = demandsOf.places;
  return {
    calendar,
    today: dayNumber(calendar.today),
    demands,
    turn: demandsOf.next,
    need: Float64Array.from(demands, ({ quantity }) => quantity),
    supplies,
    have: Float64Array.from(supplies, ({ quantity }) => quantity),
    day,
    madeBy,
    makings,
    itemIds: [...indexOf.keys()],
    indexOf,
    lineStart: demandsOf.start,
    supplyStart: suppliesOf.start,
    stock,
    rank,
    isKept,
    isChoosy: choosy(count, demands, lineItem, supplies, suppliesOf.places),
    order: inOrder(count, makings, madeBy, suppliesOf.places, lineItem),
  };
}

const owedTo = ({ itemId, quantity, from }: Supply): Demand => ({
  source: { kind: 'owed', id: from.id },
  lineId: null,
  itemId,
  quantity: -quantity as Quantity,
  decimals: 0,
  turn: { begun: true, priority: null, wantedOn: null, age: from.id },
  stores: null,
  alternates: [],
});

interface Parted<T> {
  /** Item by item, those of one in their own order. */
  readonly sorted: readonly T[];
  /** The place of the item of each of the sorted. */
  readonly places: Int32Array;
  /** Those of the item at `i` stand from `start[i]` up to `start[i + 1]`. */
  readonly start: Int32Array;
  /** Where each of what was given stands now. */
  readonly next: Int32Array;
}

function parted<T extends { readonly itemId: number }>(
  all: readonly T[],
  place: (itemId: number) => number,
): Parted<T> {
  const of = Int32Array.from(all, ({ itemId }) => place(itemId));
  const count = of.reduce((most, one) => Math.max(most, one + 1), 0);
  const start = new Int32Array(count + 1);
  for (const item of of) start[item + 1] = (start[item + 1] ?? 0) + 1;
  for (let item = 0; item < count; item += 1) start[item + 1] = (start[item + 1] ?? 0) + (start[item] ?? 0);
  const free = start.slice();
  const next = of.map((item) => {
    const at = free[item] ?? 0;
    free[item] = at + 1;
    return at;
  });
  const sorted = new Array<T>(all.length);
  const places = new Int32Array(all.length);
  for (const [index, one] of all.entries()) {
    sorted[next[index] ?? 0] = one;
    places[next[index] ?? 0] = of[index] ?? 0;
  }
  return { sorted, places, start, next };
}

const fewness = { shelf: 0, build: 1, purchase: 2 };

/**
 * What is kept for somebody is used up by them first, so that the rest stays for others; then the first that comes. Of the
 * same day what a build makes goes before a purchase, since that build itself can only use the purchase; then the older.
 * Shelves stay as they were told, the item's own store first. This ranks them but for their days.
 */
function rankOf(supplies: readonly Supply[]): Float64Array {
  const rank = new Float64Array(supplies.length);
  const order = [...supplies.keys()].sort((one, other) => {
    const [a, b] = [supplies[one], supplies[other]];
    if (!a || !b) return 0;
    return (
      fewness[a.from.kind] - fewness[b.from.kind] ||
      (a.from.kind === 'shelf' ? one - other : a.from.id - b.from.id || one - other)
    );
  });
  for (const [at, supply] of order.entries()) rank[supply] = at;
  return rank;
}

/** What is kept for somebody stands before all others. */
const KEPT = -1e12;

const dayOfUse = (supply: number, day: Int32Array, isKept: Uint8Array) =>
  (day[supply] as number) + (isKept[supply] === 1 ? KEPT : 0);

/** Sorts the supplies of an item by use, as {@link rankOf} says; they are few, and nearly sorted. */
export function sortByUse(
  { stock, supplyStart, rank, isKept }: Pick<Compiled, 'stock' | 'supplyStart' | 'rank' | 'isKept'>,
  day: Int32Array,
  item: number,
): void {
  const [from, to] = [supplyStart[item] ?? 0, supplyStart[item + 1] ?? 0];
  for (let next = from + 1; next < to; next += 1) {
    const supply = stock[next] as number;
    const own = dayOfUse(supply, day, isKept);
    const ownRank = rank[supply] as number;
    let at = next;
    for (; at > from; at -= 1) {
      const before = stock[at - 1] as number;
      const on = dayOfUse(before, day, isKept);
      if (on < own || (on === own && (rank[before] as number) <= ownRank)) break;
      stock[at] = before;
    }
    stock[at] = supply;
  }
}

function makingsOf(supplies: readonly Supply[], demands: readonly Demand[]) {
  const byId = new Map<number, number>();
  const makings: Making[] = [];
  const madeBy = Int32Array.from(supplies, ({ from, bench }) => {
    if (from.kind !== 'build' || bench === undefined) return -1;
    const known = byId.get(from.id);
    if (known !== undefined) return known;
    byId.set(from.id, makings.length);
    makings.push({ id: from.id, bench, lines: [] });
    return makings.length - 1;
  });
  if (makings.length > 0)
    for (const [index, { source }] of demands.entries()) {
      const making = source.kind === 'build' ? byId.get(source.id) : undefined;
      if (making !== undefined) makings[making]?.lines.push(index);
    }
  return { makings, madeBy };
}

/** Items of which something is kept for one source, only may come from some stores, or would feed what makes it. */
function choosy(
  count: number,
  demands: readonly Demand[],
  lineItem: Int32Array,
  supplies: readonly Supply[],
  supplyItem: Int32Array,
): Uint8Array {
  const isChoosy = new Uint8Array(count);
  const makers = new Set<string>();
  for (const [index, { only, from, itemId }] of supplies.entries()) {
    if (only !== null) isChoosy[supplyItem[index] ?? 0] = 1;
    if (from.kind === 'build') makers.add(`${itemId}:${from.id}`);
  }
  for (const [index, { stores, source, itemId }] of demands.entries())
    if (stores !== null || (makers.size > 0 && source.kind === 'build' && makers.has(`${itemId}:${source.id}`)))
      isChoosy[lineItem[index] ?? 0] = 1;
  return isChoosy;
}
