import { add, least, minus, type Quantity, ZERO } from '../number/index.ts';

/** Where picked goods go: a build's bench, or an order's parcel. */
export interface Goal {
  readonly kind: 'build' | 'order';
  readonly id: number;
}
export const goalKey = ({ kind, id }: Goal) => `${kind}:${id}`;

/** What is still to be picked of an item for one line. */
export interface Wanted {
  readonly goal: Goal;
  readonly lineId: number;
  readonly itemId: number;
  readonly open: Quantity;
}

/** Some of an item on a shelf, usable now. */
export interface OnShelf {
  readonly itemId: number;
  readonly storeId: number;
  readonly binId: number;
  readonly lotId: number | null;
  readonly serialId: number | null;
  readonly quantity: Quantity;
}

/** So much of it for one line. */
export interface ForLine {
  readonly goal: Goal;
  readonly lineId: number;
  readonly quantity: Quantity;
}

/** One thing to do on the way: what is taken at one bin of one lot, told apart by where it goes. */
export interface Stop {
  readonly storeId: number;
  readonly binId: number;
  readonly itemId: number;
  readonly lotId: number | null;
  /** The units that are there, where they are known by serial; which of them is taken is for the scan to say. */
  readonly serialIds: readonly number[];
  readonly quantity: Quantity;
  readonly lines: readonly ForLine[];
}

/** What is wanted and stands nowhere. */
export interface Missing extends Omit<ForLine, 'quantity'> {
  readonly itemId: number;
  readonly quantity: Quantity;
}

/**
 * The way that brings everything wanted, as far as it is there. Who comes first in `wanted` is served first; what comes
 * first in `shelves` of an item is taken first, and stops stand in the order of `shelves`, which is the order to walk.
 * Nothing is taken twice, and nobody gets more than is open.
 */
export function stopsOf(
  wanted: readonly Wanted[],
  shelves: readonly OnShelf[],
): { readonly stops: readonly Stop[]; readonly missing: readonly Missing[] } {
  const left = shelves.map(({ quantity }) => quantity);
  const byItem = new Map<number, number[]>();
  for (const [index, { itemId }] of shelves.entries()) byItem.set(itemId, [...(byItem.get(itemId) ?? []), index]);
  const taken = new Map<number, ForLine[]>();
  const missing: Missing[] = [];
  for (const { goal, lineId, itemId, open } of wanted) {
    let rest = open;
    for (const index of byItem.get(itemId) ?? []) {
      const quantity = least(rest, left[index] ?? ZERO);
      if (quantity <= 0) continue;
      left[index] = minus(left[index] ?? ZERO, quantity);
      rest = minus(rest, quantity);
      taken.set(index, [...(taken.get(index) ?? []), { goal, lineId, quantity }]);
    }
    if (rest > 0) missing.push({ goal, lineId, itemId, quantity: rest });
  }
  return { stops: together(shelves, taken), missing };
}

/** What is taken at one bin of one lot is one stop, however many serials stand there. */
function together(shelves: readonly OnShelf[], taken: ReadonlyMap<number, readonly ForLine[]>): Stop[] {
  const stops = new Map<string, Stop>();
  for (const [index, shelf] of shelves.entries()) {
    const lines = taken.get(index);
    if (!lines) continue;
    const { storeId, binId, itemId, lotId, serialId } = shelf;
    const key = `${binId}:${itemId}:${lotId}`;
    const known = stops.get(key);
    const all = sumByLine([...(known?.lines ?? []), ...lines]);
    stops.set(key, {
      storeId,
      binId,
      itemId,
      lotId,
      serialIds: [...(known?.serialIds ?? []), ...(serialId === null ? [] : [serialId])],
      quantity: add(ZERO, ...all.map(({ quantity }) => quantity)),
      lines: all,
    });
  }
  return [...stops.values()];
}

function sumByLine(lines: readonly ForLine[]): ForLine[] {
  const sums = new Map<string, ForLine>();
  for (const line of lines) {
    const key = `${goalKey(line.goal)}:${line.lineId}`;
    const known = sums.get(key);
    sums.set(key, known ? { ...known, quantity: add(known.quantity, line.quantity) } : line);
  }
  return [...sums.values()];
}
