import type { Basis, Behaviour } from '../definitions/index.ts';
import type { Percent, Quantity } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** One thing that leaves for a line: what is sold itself, or a part of a kit. */
export interface Content {
  /** Where it stands in the kit's revision. */
  readonly position: number;
  readonly itemId: number;
  readonly basis: Basis;
  /** Per output or per run; zero where it is left out of this line. */
  readonly amount: Quantity;
  readonly waste: Percent;
}

/** What somebody wants of a part on this one line: another amount, or another item in its place. */
export interface Wish {
  readonly position: number;
  readonly itemId: number;
  readonly amount: Quantity;
}

/** What may stand in for a part, and how much of it does for one. */
export interface Swap {
  readonly itemId: number;
  readonly ratio: Quantity;
}

/**
 * The contents of a kit on one line: the revision's own, but for what was wished. What is not wished stays as it is.
 * @param swaps by position, the alternates that the revision lists
 * @throws Refusal `kit-locked`, `kit-no-swaps`, `kit-swap-unlisted`, `unknown-line`, `kit-empty`
 */
export function withWishes(
  base: readonly Content[],
  wishes: readonly Wish[],
  rule: Pick<Behaviour, 'onOrder' | 'swapFor'>,
  swaps: ReadonlyMap<number, readonly Swap[]>,
): Content[] {
  const wished = new Map<number, Wish>();
  for (const [index, wish] of wishes.entries()) {
    const at = (name: string) => `contents.${index}.${name}`;
    const own = base.find(({ position }) => position === wish.position);
    if (!own || wished.has(wish.position)) throw new Refusal('unknown-line', {}, at('position'));
    wished.set(wish.position, wish);
    const isSwapped = wish.itemId !== own.itemId;
    if (!isSwapped && wish.amount === own.amount) continue;
    if (rule.onOrder === 'locked') throw new Refusal('kit-locked', {}, at(isSwapped ? 'itemId' : 'amount'));
    if (!isSwapped) continue;
    if (rule.onOrder !== 'swaps') throw new Refusal('kit-no-swaps', {}, at('itemId'));
    const listed = swaps.get(wish.position)?.some(({ itemId }) => itemId === wish.itemId);
    if (rule.swapFor === 'listed' && !listed) throw new Refusal('kit-swap-unlisted', {}, at('itemId'));
  }
  const contents = base.map((own) => {
    const wish = wished.get(own.position);
    return wish ? { ...own, itemId: wish.itemId, amount: wish.amount } : own;
  });
  if (contents.every(({ amount }) => amount === 0)) throw new Refusal('kit-empty', {}, 'contents');
  return contents;
}
