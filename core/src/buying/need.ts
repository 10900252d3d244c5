import { divide, type Money, type Quantity, toExact } from '../number/index.ts';

/** What a supplier asks for an item. Quantities in its stock unit, the price for one of it. */
export interface Offer {
  readonly supplierId: number;
  readonly price: Money;
  /** Only whole packs of this size are sold. */
  readonly pack: Quantity;
  /** Not less than this at a time. */
  readonly minimum: Quantity;
  /** Days until it comes; null when nobody has said. */
  readonly leadDays: number | null;
}

/**
 * The least that can be ordered of an offer to have `needed`: whole packs, not below the minimum; zero for no need.
 * @throws Refusal `too-large`
 */
export function packUp(needed: Quantity, { pack, minimum }: Pick<Offer, 'pack' | 'minimum'>): Quantity {
  if (needed <= 0) return 0 as Quantity;
  const least = BigInt(Math.max(needed, minimum));
  return toExact(divide(least, BigInt(pack), 'up') * BigInt(pack)) as Quantity;
}

export interface Standing {
  /** On shelves and not held. */
  readonly usable: Quantity;
  /** What open builds still need. */
  readonly promised: Quantity;
  /** On order and being built. */
  readonly coming: Quantity;
  /** What should always be there; null when nobody has said. */
  readonly reorderPoint: Quantity | null;
}

/**
 * What has to be bought so that every promise can be kept and the reorder point is reached again once all that is coming
 * has come. Nothing is bought while what is there and coming stays at the reorder point or above.
 */
export function toBuy({ usable, promised, coming, reorderPoint }: Standing): Quantity {
  const missing = BigInt(reorderPoint ?? 0) + BigInt(promised) - BigInt(usable) - BigInt(coming);
  return (missing > 0n ? toExact(missing) : 0) as Quantity;
}

/** The cheapest or the fastest of several offers for `needed`: by what has to be paid for it, packs and minimum included. */
export function bestOffer(
  offers: readonly Offer[],
  needed: Quantity,
  by: 'cheapest' | 'fastest',
): { readonly offer: Offer; readonly quantity: Quantity } | null {
  const ranked = offers
    .map((offer) => {
      const quantity = packUp(needed, offer);
      return { offer, quantity, cost: BigInt(quantity) * BigInt(offer.price) };
    })
    .sort((a, b) => {
      const cost = a.cost < b.cost ? -1 : a.cost > b.cost ? 1 : 0;
      const days = (a.offer.leadDays ?? 9999) - (b.offer.leadDays ?? 9999);
      return (by === 'cheapest' ? cost || days : days || cost) || a.offer.supplierId - b.offer.supplierId;
    });
  const [first] = ranked;
  return first ? { offer: first.offer, quantity: first.quantity } : null;
}

/** A build that is short of a part. */
export interface ShortBuild {
  readonly buildId: number;
  readonly short: Quantity;
}

/**
 * What an ordered quantity is bought for: the builds that are short, in the order given, each with no more than it lacks.
 * What earlier orders bring for them already (`covered`) is taken off first, so that nothing is bought twice for one need.
 */
export function shareAmongNeeds(
  ordered: Quantity,
  builds: readonly ShortBuild[],
  covered: Quantity,
): { readonly buildId: number; readonly quantity: Quantity }[] {
  let [left, before] = [ordered as number, covered as number];
  return builds.flatMap(({ buildId, short }) => {
    const fromBefore = Math.min(before, short);
    before -= fromBefore;
    const quantity = Math.min(left, short - fromBefore) as Quantity;
    left -= quantity;
    return quantity > 0 ? { buildId, quantity } : [];
  });
}
