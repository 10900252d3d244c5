import type { Percent, Quantity } from '../number/index.ts';
import type { DefinitionFault } from './faults.ts';

/** What of a product decides how soon its owner should look at it. */
export interface Worrying {
  readonly faults: readonly DefinitionFault['fault'][];
  /** How many can be made now; null where that is not asked, or nothing limits it. */
  readonly canMake: Quantity | null;
  /** Share of the price that is earned; null without a price or a cost. */
  readonly margin: Percent | null;
}

/** The gravest first: what loses money with every sale, then what cannot be reckoned, built or begun. */
const GRAVITY: readonly DefinitionFault['fault'][] = [
  'below-cost',
  'beyond-reckoning',
  'archived-part',
  'unpriced-part',
  'none-in-use',
];

const gravity = ({ faults }: Worrying) => Math.min(GRAVITY.length, ...faults.map((fault) => GRAVITY.indexOf(fault)));
const isOut = ({ canMake }: Worrying) => (canMake === 0 ? 0 : 1);
/** What has no margin is not worse than what has a good one. */
const margin = (one: Worrying) => one.margin ?? Number.MAX_SAFE_INTEGER;

/** Orders products by how much they need an eye: faults, then those of which none can be made, then the least margin. */
export const byWorry = (one: Worrying, other: Worrying): number =>
  gravity(one) - gravity(other) || isOut(one) - isOut(other) || margin(one) - margin(other);
