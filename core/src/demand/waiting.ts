import { add, type Quantity } from '../number/index.ts';
import { byDay, latest, type Source, type WhenThere } from './demand.ts';
import type { Pegged } from './peg.ts';

/** What a source lacks of one item. */
export interface Shortage {
  readonly quantity: Quantity;
  /** Whether any of it is on its way for this source, even if nobody knows when. */
  readonly isComing: boolean;
  /** The day on which the last of it comes; null when none is known or not all of it is coming. */
  readonly completeOn: WhenThere;
}

/** What one source has from shelves and what it waits for, by item. */
export interface Share {
  readonly source: Source;
  /** What the shelves give it after those before it. */
  readonly got: ReadonlyMap<number, Quantity>;
  /** What is missing, what is worst to wait for first: what has no day, then the last to come. Empty when it has everything. */
  readonly short: ReadonlyMap<number, Shortage>;
}

export const sourceKey = ({ kind, id }: Source) => `${kind}:${id}`;

/** Every source's share of shelves and of what is coming, in turn. */
export function sharesOf(pegging: readonly Pegged[]): Map<string, Share> {
  const shares = new Map<string, { source: Source; got: Map<number, Quantity>; short: Map<number, Shortage> }>();
  for (const { demand, now, coming, completeOn } of pegging) {
    const key = sourceKey(demand.source);
    const share = shares.get(key) ?? { source: demand.source, got: new Map(), short: new Map() };
    shares.set(key, share);
    share.got.set(demand.itemId, add(share.got.get(demand.itemId) ?? (0 as Quantity), now));
    const missing = (demand.quantity - now) as Quantity;
    if (missing === 0) continue;
    const known = share.short.get(demand.itemId);
    share.short.set(demand.itemId, {
      quantity: add(known?.quantity ?? (0 as Quantity), missing),
      isComing: (known?.isComing ?? false) || coming > 0,
      completeOn: latest(known ? [known.completeOn, completeOn] : [completeOn]),
    });
  }
  for (const share of shares.values())
    share.short = new Map([...share.short].sort(([, a], [, b]) => byDay(b.completeOn, a.completeOn)));
  return shares;
}

/** What nothing brings, by item: what would have to be bought or made so that everybody is served. */
export function missingByItem(pegging: readonly Pegged[]): Map<number, Quantity> {
  const missing = new Map<number, Quantity>();
  for (const { demand, short } of pegging)
    if (short > 0) missing.set(demand.itemId, add(missing.get(demand.itemId) ?? (0 as Quantity), short));
  return missing;
}
