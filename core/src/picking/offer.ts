import type { Stop } from './stops.ts';

/** Somebody is at a stop, since when. */
export interface Claim {
  readonly key: string;
  readonly personId: number;
  /** ISO time. */
  readonly at: string;
}

/** A stop that was left unfinished for so long is offered to others again. */
export const CLAIM_MINUTES = 10;

/** Whether somebody still counts as being at the stop. */
export const isFresh = ({ at }: Pick<Claim, 'at'>, now: Date): boolean =>
  now.getTime() - Date.parse(at) < CLAIM_MINUTES * 60_000;

/** Who else is at a stop now; undefined where nobody is. */
export const takenBy = (
  key: string,
  claims: readonly Claim[],
  { personId, now }: { readonly personId: number; readonly now: Date },
): Claim | undefined => claims.find((claim) => claim.key === key && claim.personId !== personId && isFresh(claim, now));

export interface Walker {
  readonly personId: number;
  readonly now: Date;
  /** Stops that this person left for later. */
  readonly later: ReadonlySet<string>;
  /** The stop that this person was at last: the way goes on behind it. Null at the start. */
  readonly last: string | null;
}

/**
 * The stops that a person can go to, the next one first: neither where somebody else is, nor where a lot has to wait for
 * another. The way goes on from the last stop and round; what was left for later comes at the end.
 * @param stops what is still to be taken, in the order to walk
 * @param way the keys of all stops in the order to walk, also of those that are done
 */
export function offered<T extends Pick<Stop, 'key' | 'after'>>(
  stops: readonly T[],
  claims: readonly Claim[],
  { personId, now, later, last }: Walker,
  way: readonly string[] = [],
): T[] {
  const open = new Set(stops.map(({ key }) => key));
  const free = stops.filter(
    ({ key, after }) => !takenBy(key, claims, { personId, now }) && (after === null || !open.has(after)),
  );
  const from = last === null ? -1 : way.indexOf(last);
  const behind = ({ key }: T) => (way.indexOf(key) >= from ? 0 : 1);
  const onTheWay = from < 0 ? free : [...free].sort((a, b) => behind(a) - behind(b));
  return [...onTheWay.filter(({ key }) => !later.has(key)), ...onTheWay.filter(({ key }) => later.has(key))];
}
