import { divide, type Money, type Quantity, toExact } from '../number/index.ts';

/** By what a supplier is chosen. */
export type BuyBy = 'cheapest' | 'fastest' | 'usual';

export interface PriceBreak {
  readonly from: Quantity;
  readonly price: Money;
}

/** What a supplier asks for an item. Quantities in its stock unit, the price for one of it. */
export interface Offer {
  readonly supplierId: number;
  readonly price: Money;
  /** Only whole packs of this size are sold. */
  readonly pack: Quantity;
  /** Not less than this at a time. */
  readonly minimum: Quantity;
  /** From so much on, one costs so much. */
  readonly breaks: readonly PriceBreak[];
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

/** What one costs when so much is bought at once. */
export const priceFor = (quantity: Quantity, { price, breaks }: Pick<Offer, 'price' | 'breaks'>): Money =>
  breaks.reduce<{ readonly from: number; readonly price: Money }>(
    (best, one) => (one.from <= quantity && one.from >= best.from ? one : best),
    { from: 0, price },
  ).price;

const costOf = (quantity: Quantity, offer: Pick<Offer, 'price' | 'breaks'>) =>
  BigInt(quantity) * BigInt(priceFor(quantity, offer));

/**
 * What to order of an offer to have `needed` for the least money: whole packs, and up to a price break where more costs
 * less in all; zero for no need.
 * @throws Refusal `too-large`
 */
export function bestQuantity(needed: Quantity, offer: Omit<Offer, 'supplierId' | 'leadDays'>): Quantity {
  if (needed <= 0) return 0 as Quantity;
  const least = packUp(needed, offer);
  return offer.breaks
    .filter(({ from }) => from > least)
    .map(({ from }) => packUp(from, offer))
    .reduce((best, more) => {
      const [a, b] = [costOf(more, offer), costOf(best, offer)];
      return a < b || (a === b && more < best) ? more : best;
    }, least);
}

/**
 * The cheapest or the fastest of several offers for `needed`, by what has to be paid for it, packs, minimum and price breaks included; or
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
      const quantity = bestQuantity(needed, offer);
      return { offer, quantity, cost: costOf(quantity, offer) };
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
