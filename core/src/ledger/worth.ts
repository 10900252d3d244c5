import { add, type Money, mulDiv, type Quantity, splitByWeight, worthOf } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';
import type { Posting } from './posting.ts';
import { type Heap, type ItemStock, isInReturns } from './state.ts';

export interface PriceDifference {
  readonly itemId: number;
  /** How much was received at the price that turned out otherwise. */
  readonly received: Quantity;
  /** What all of it costs more (above zero) or less. */
  readonly difference: Money;
  /** Where these goods, as far as anyone can tell, stand now: their serials, their lots, or else the item. */
  readonly here: readonly Heap[];
  /** How much of it is still here by {@link stillHere}, where other lines have a claim on the same goods. */
  readonly standing?: Quantity;
}

export interface PostedDifference {
  /** The part that went into stock. */
  readonly intoStock: Money;
  /** The part of goods that are gone: a difference in cost. */
  readonly gone: Money;
}

/**
 * Posts what a receipt turned out to cost more or less, where its goods are now: on the value of what is still here, the
 * rest as a difference in cost. Goods are never made worth less than nothing.
 */
export function postPriceDifference(posting: Posting, change: PriceDifference): PostedDifference {
  const { itemId, received, difference } = change;
  const here = onShelves(change.here).filter(({ quantity }) => quantity > 0);
  const standing = change.standing ?? stillHere(received, change.here, posting.item(itemId).quantity);
  const share = mulDiv(difference, standing, received, 'nearest') as Money;
  let intoStock = 0 as Money;
  splitByWeight(
    share,
    here.map(({ quantity }) => quantity),
  ).forEach((part, index) => {
    const spot = here[index]?.spot;
    if (!spot) return;
    const worth = Math.max(part, -Math.max(0, posting.worthAt(spot))) as Money;
    posting.addWorth(spot, worth);
    intoStock = add(intoStock, worth);
  });
  const gone = (difference - intoStock) as Money;
  posting.addValue('supplier', difference, { itemId });
  posting.addValue('cost-difference', -gone as Money, { itemId });
  return { intoStock, gone };
}

/** Heaps whose value is their item's; what is held in returns keeps what it left with. */
const onShelves = (heaps: readonly Heap[]) => heaps.filter(({ spot }) => !isInReturns(spot));

/**
 * How much of what was received can still be here: what stands of it, less what other places owe, and never more than
 * there is of the item in all.
 */
export function stillHere(received: Quantity, here: readonly Heap[], ofItem: Quantity): Quantity {
  const standing = add(0 as Quantity, ...onShelves(here).map(({ quantity }) => quantity));
  return Math.max(0, Math.min(received, standing, ofItem)) as Quantity;
}

/** What a stock is worth more, or less, once each of it costs `unitCost`. */
export const revaluedBy = ({ quantity, value }: Pick<ItemStock, 'quantity' | 'value'>, unitCost: Money): Money =>
  (worthOf(quantity, unitCost) - value) as Money;

/**
 * Makes all there is of an item worth `unitCost` each, but for what is held in returns; the difference is value revalued.
 * @throws Refusal `nothing-on-hand` unless there is some
 */
export function postRevaluation(posting: Posting, itemId: number, unitCost: Money, here: readonly Heap[]): Money {
  const stock = posting.item(itemId);
  if (stock.quantity <= 0) throw new Refusal('nothing-on-hand', {}, 'unitCost');
  const difference = revaluedBy(stock, unitCost);
  posting.addValue('revalued', difference, { itemId });
  const own = onShelves(here);
  const serials = own.filter(({ spot }) => spot.serialId !== null);
  if (serials.length > 0) {
    for (const { spot } of serials) posting.addWorth(spot, (unitCost - posting.worthAt(spot)) as Money);
    return difference;
  }
  const [first] = [...own].sort((a, b) => b.quantity - a.quantity);
  if (first) posting.addWorth(first.spot, difference);
  return difference;
}
