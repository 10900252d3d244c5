import type { RunDetail, RunStop } from '@yosegi/contract';
import { formatDecimal, readExact } from '@yosegi/core/number';
import type { Queued } from './queue.ts';

const lineKey = (line: { readonly kind: string; readonly lineId: number }) => `${line.kind}:${line.lineId}`;

/**
 * The stops that are left once everything is posted that waits: what was picked is gone from the way at once, also while
 * nobody can tell the server. What was refused stands there again, and what the run knows of already counts once.
 */
export function stopsLeft({ stops, picks }: Pick<RunDetail, 'stops' | 'picks'>, queue: readonly Queued[]): RunStop[] {
  const known = new Set(picks.map(({ act }) => act));
  const taken = new Map<string, number>();
  for (const { lines, problem, undoKey, act } of queue)
    if (problem === null && undoKey === null && !known.has(act ?? 0))
      for (const line of lines) {
        const key = `${line.binId}|${lineKey(line)}`;
        taken.set(key, (taken.get(key) ?? 0) + readExact(line.quantity));
      }
  return stops.flatMap((stop) => {
    const lines = stop.lines.flatMap((line) => {
      const key = `${stop.binId}|${lineKey(line)}`;
      const gone = Math.min(taken.get(key) ?? 0, readExact(line.quantity));
      taken.set(key, (taken.get(key) ?? 0) - gone);
      const left = readExact(line.quantity) - gone;
      return left > 0 ? [{ ...line, quantity: formatDecimal(left) }] : [];
    });
    const quantity = formatDecimal(lines.reduce((sum, line) => sum + readExact(line.quantity), 0));
    return lines.length > 0 ? [{ ...stop, lines, quantity }] : [];
  });
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
