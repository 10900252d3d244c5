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
  /** The bin it is to come from as far as it goes; left out where any will do. */
  readonly fromBinId?: number | null | undefined;
}

/** Some of an item on a shelf, usable now. */
export interface OnShelf {
  readonly itemId: number;
  readonly storeId: number;
  readonly binId: number;
  readonly lotId: number | null;
  readonly serialId: number | null;
  readonly quantity: Quantity;
  /**
   * The day on which its lot expires where the first to expire has to go first, the last there is where it has none. Left
   * out where any lot will do.
   */
  readonly day?: string | undefined;
}

/** So much of it for one line. */
export interface ForLine {
  readonly goal: Goal;
  readonly lineId: number;
  readonly quantity: Quantity;
}

/** One thing to do on the way: what is taken at one bin of one lot, told apart by where it goes. */
export interface Stop {
  /** Its name, as long as there is anything to take at it. */
  readonly key: string;
  /** The stop that comes before it because its lot expires earlier; null where the way alone decides. */
  readonly after: string | null;
  readonly storeId: number;
  readonly binId: number;
  readonly itemId: number;
  readonly lotId: number | null;
  /** The units that are there, where they are known by serial; which of them is taken is for the scan to say. */
  readonly serialIds: readonly number[];
  readonly quantity: Quantity;
  readonly lines: readonly ForLine[];
}

export const stopKey = ({ binId, itemId, lotId }: Pick<Stop, 'binId' | 'itemId' | 'lotId'>) =>
  `${binId}:${itemId}:${lotId ?? ''}`;

/** What is wanted and stands nowhere. */
export interface Missing extends Omit<ForLine, 'quantity'> {
  readonly itemId: number;
  readonly quantity: Quantity;
}

/**
 * The way that brings everything wanted, as far as it is there. Who comes first in `wanted` is served first: from the bin
 * that was named, from the lot that expires first where that is prescribed, else from what comes first on the way. Stops
 * stand in the order to walk; only where a lot has to wait for one that expires earlier is a bin walked to once more.
 * Nothing is taken twice, and nobody gets more than is open.
 * @param shelves in the order to walk
 */
export function stopsOf(
  wanted: readonly Wanted[],
  shelves: readonly OnShelf[],
): { readonly stops: readonly Stop[]; readonly missing: readonly Missing[] } {
  const left = shelves.map(({ quantity }) => quantity);
  const byItem = new Map<number, number[]>();
  for (const [index, { itemId }] of shelves.entries()) {
    const own = byItem.get(itemId);
    if (own) own.push(index);
    else byItem.set(itemId, [index]);
  }
  const dayAt = (index: number) => shelves[index]?.day ?? '';
  for (const own of byItem.values()) own.sort((a, b) => compare(dayAt(a), dayAt(b)) || a - b);
  const taken = new Map<number, ForLine[]>();
  const missing: Missing[] = [];
  for (const { goal, lineId, itemId, open, fromBinId = null } of wanted) {
    let rest = open;
    const there = byItem.get(itemId) ?? [];
    const isNamed = (index: number) => shelves[index]?.binId === fromBinId && dayAt(index) === dayAt(there[0] ?? -1);
    const inOrder =
      fromBinId === null ? there : [...there.filter(isNamed), ...there.filter((index) => !isNamed(index))];
    for (const index of inOrder) {
      const quantity = least(rest, left[index] ?? ZERO);
      if (quantity <= 0) continue;
      left[index] = minus(left[index] ?? ZERO, quantity);
      rest = minus(rest, quantity);
      const lines = taken.get(index);
      if (lines) lines.push({ goal, lineId, quantity });
      else taken.set(index, [{ goal, lineId, quantity }]);
    }
    if (rest > 0) missing.push({ goal, lineId, itemId, quantity: rest });
  }
  return { stops: firstToExpireFirst(together(shelves, taken)), missing };
}

/** What is taken at one bin of one lot is one stop, however many serials stand there. */
function together(shelves: readonly OnShelf[], taken: ReadonlyMap<number, readonly ForLine[]>): DatedStop[] {
  const stops = new Map<string, DatedStop>();
  for (const [index, shelf] of shelves.entries()) {
    const lines = taken.get(index);
    if (!lines) continue;
    const { storeId, binId, itemId, lotId, serialId } = shelf;
    const key = stopKey(shelf);
    const known = stops.get(key);
    const all = sumByLine([...(known?.lines ?? []), ...lines]);
    stops.set(key, {
      key,
      after: null,
      day: shelf.day ?? '',
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

interface DatedStop extends Stop {
  readonly day: string;
}

/** Puts each stop behind those of its item and store that expire earlier; all others stay where the way has them. */
function firstToExpireFirst(stops: readonly DatedStop[]): Stop[] {
  const walked: Stop[] = [];
  const placed = new Set<string>();
  const place = (stop: DatedStop) => {
    if (placed.has(stop.key)) return;
    const before = earlierOf(stop, stops);
    if (before) place(before);
    placed.add(stop.key);
    const { day: _, ...shown } = stop;
    walked.push({ ...shown, after: before?.key ?? null });
  };
  for (const stop of stops) place(stop);
  return walked;
}

/** The last to expire of those that expire before it. */
function earlierOf(stop: DatedStop, stops: readonly DatedStop[]): DatedStop | undefined {
  if (stop.day === '') return undefined;
  const earlier = stops.filter(
    (one) => one.itemId === stop.itemId && one.storeId === stop.storeId && one.day < stop.day,
  );
  return earlier.reduce<DatedStop | undefined>((last, one) => (last && last.day >= one.day ? last : one), undefined);
}

const compare = (a: string, b: string) => (a === b ? 0 : a < b ? -1 : 1);

function sumByLine(lines: readonly ForLine[]): ForLine[] {
  const sums = new Map<string, ForLine>();
  for (const line of lines) {
    const key = `${goalKey(line.goal)}:${line.lineId}`;
    const known = sums.get(key);
    sums.set(key, known ? { ...known, quantity: add(known.quantity, line.quantity) } : line);
  }
  return [...sums.values()];
}
