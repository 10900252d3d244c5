import { handOut, minus, type Quantity } from '../number/index.ts';

/** What a build makes for one order. */
export interface Kept {
  readonly quantity: Quantity;
  /** Of it finished and standing for the order. */
  readonly kept: Quantity;
}

const openOf = ({ quantity, kept }: Kept): Quantity => minus(quantity, kept);

/**
 * What of `good` finished units goes to each order it is built for, in their turn; the rest is for anybody.
 * @returns by order, in the order given
 */
export const keepFor = (good: Quantity, orders: readonly Kept[]): Quantity[] => handOut(good, orders.map(openOf));

/**
 * Parts what a build makes for orders when some of the build goes on as another: whoever is first in turn stays with what
 * goes ahead.
 * @param ahead what of the build is still to be made under its own number
 * @returns what each keeps of the build and what it gets of the other, in the order given
 */
export function partKept(
  ahead: Quantity,
  orders: readonly Kept[],
): readonly { readonly stays: Quantity; readonly goes: Quantity }[] {
  const stays = handOut(ahead, orders.map(openOf));
  return orders.map((order, index) => {
    const staying = stays[index] ?? (0 as Quantity);
    return { stays: (order.kept + staying) as Quantity, goes: minus(openOf(order), staying) };
  });
}
