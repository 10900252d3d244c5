import { type Money, ZERO } from '../number/index.ts';
import { isRefusal } from '../refusal/index.ts';
import { definitionCost } from './cost.ts';
import type { Revision } from './lines.ts';

/** What is known of what one of an item costs. */
export interface CostKnown {
  /** By stock, receipts or a standard; null when nothing ever said. */
  readonly own: Money | null;
  /** What it is made of, where it is made and none of it is in stock. */
  readonly revision: Revision | null;
}

/** What one of something costs by its own bill of materials. */
export interface BuiltCost {
  readonly cost: Money;
  /** Every cost in it is known; else it is at least so much. */
  readonly isWhole: boolean;
}

/**
 * What made items without stock cost: what their own bills of materials do, and those of made parts without stock in them.
 * @returns null for what nothing is known to be made of, or costs more than can be kept
 */
export function builtCosts(known: (itemId: number) => CostKnown | undefined): (itemId: number) => BuiltCost | null {
  const found = new Map<number, BuiltCost | null>();
  const builtOf = (itemId: number): BuiltCost | null => {
    const before = found.get(itemId);
    if (before !== undefined) return before;
    // What reaches itself is refused when it is saved; here it would have no end.
    found.set(itemId, null);
    const revision = known(itemId)?.revision;
    const built = revision ? costOf(revision) : null;
    found.set(itemId, built);
    return built;
  };
  function costOf(revision: Revision): BuiltCost | null {
    let isWhole = true;
    try {
      const { perUnit } = definitionCost(revision, (part) => {
        const built = builtOf(part);
        const own = known(part)?.own ?? null;
        if (built?.isWhole || (built && own === null)) {
          isWhole &&= built.isWhole;
          return built.cost;
        }
        if (own === null) isWhole = false;
        return own ?? ZERO;
      });
      return { cost: perUnit, isWhole };
    } catch (error) {
      if (isRefusal(error, 'too-large')) return null;
      throw error;
    }
  }
  return builtOf;
}
