import { divide, type Money, type Quantity, toExact } from '../number/index.ts';

/** By what a supplier is chosen. */
export type BuyBy = 'cheapest' | 'fastest' | 'usual';

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

/**
 * The cheapest or the fastest of several offers for `needed`, by what has to be paid for it, packs and minimum included; or
 * that of the usual supplier, and the cheapest where there is none.
 */
export function bestOffer(
  offers: readonly Offer[],
  needed: Quantity,
  by: BuyBy,
  usual: number | null = null,
): { readonly offer: Offer; readonly quantity: Quantity } | null {
  const ranked = offers
    .map((offer) => {
      const quantity = packUp(needed, offer);
      return { offer, quantity, cost: BigInt(quantity) * BigInt(offer.price) };
    })
    .sort((a, b) => {
      const cost = a.cost < b.cost ? -1 : a.cost > b.cost ? 1 : 0;
      const days = (a.offer.leadDays ?? 9999) - (b.offer.leadDays ?? 9999);
      const known = by === 'usual' ? Number(b.offer.supplierId === usual) - Number(a.offer.supplierId === usual) : 0;
      return known || (by === 'fastest' ? days || cost : cost || days) || a.offer.supplierId - b.offer.supplierId;
    });
  const [first] = ranked;
  return first ? { offer: first.offer, quantity: first.quantity } : null;
}
