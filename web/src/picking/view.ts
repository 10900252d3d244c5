import type { RunDetail, RunStop } from '@yosegi/contract';
import { formatDecimal, readExact } from '@yosegi/core/number';
import type { Queued } from './queue.ts';

/** What waits to be sent of one line, from one bin, of one lot. */
interface Taken {
  readonly of: string;
  readonly lot: string | null;
  left: number;
}

const placeKey = (binId: number, line: { readonly kind: string; readonly lineId: number }) =>
  `${binId}|${line.kind}:${line.lineId}`;
const isSame = (one: string | null, other: string | null) => one?.toLowerCase() === other?.toLowerCase();

/**
 * The stops that are left once everything is posted that waits: what was picked is gone from the way at once, also while
 * nobody can tell the server. It is gone from the stop of its own lot first. What was refused stands there again, and what
 * the run knows of already counts once.
 */
export function stopsLeft({ stops, picks }: Pick<RunDetail, 'stops' | 'picks'>, queue: readonly Queued[]): RunStop[] {
  const known = new Set(picks.map(({ act }) => act));
  const taken = queue
    .filter(({ problem, undoKey, act }) => problem === null && undoKey === null && !known.has(act ?? 0))
    .flatMap(({ lines }) => lines)
    .map((line): Taken => ({ of: placeKey(line.binId, line), lot: line.lot ?? null, left: readExact(line.quantity) }));
  const ofItsLot = stops.map((stop) => lessTaken(stop, taken, ({ lot }) => isSame(lot, stop.lot)));
  return ofItsLot.flatMap((stop) => {
    const { lines, ...rest } = lessTaken(stop, taken, () => true);
    const open = lines.filter(({ quantity }) => quantity !== '0');
    const quantity = formatDecimal(open.reduce((sum, line) => sum + readExact(line.quantity), 0));
    return open.length > 0 ? [{ ...rest, lines: open, quantity }] : [];
  });
}

/** A stop without what was taken there for its lines; what it takes off counts for no other stop. */
function lessTaken(stop: RunStop, taken: readonly Taken[], counts: (one: Taken) => boolean): RunStop {
  const lines = stop.lines.map((line) => {
    let open: number = readExact(line.quantity);
    for (const one of taken) {
      if (one.of !== placeKey(stop.binId, line) || !counts(one)) continue;
      const gone = Math.min(one.left, open);
      one.left -= gone;
      open -= gone;
    }
    return { ...line, quantity: formatDecimal(open) };
  });
  return { ...stop, lines };
}

/** The place on the cart of each that a run serves, by kind and id. */
export const slotsOf = (run: Pick<RunDetail, 'goals'>): ReadonlyMap<string, RunDetail['goals'][number]> =>
  new Map(run.goals.map((goal) => [`${goal.kind}:${goal.id}`, goal]));

/** Of one stop, what goes to each: quantities are handed out in the order of the lines, up to what each asks for. */
export function handedOut(stop: Pick<RunStop, 'lines'>, total: number): number[] {
  let left = total;
  return stop.lines.map((line) => {
    const own = Math.min(left, readExact(line.quantity));
    left -= own;
    return own;
  });
}

/** Serials handed out to the lines of a stop, as many to each as it gets, in the order they were scanned. */
export function serialsFor(quantities: readonly number[], serials: readonly string[]): string[][] {
  let at = 0;
  return quantities.map((quantity) => {
    const own = serials.slice(at, at + quantity);
    at += quantity;
    return own;
  });
}
