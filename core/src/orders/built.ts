import { add, minus, type Quantity } from '../number/index.ts';

/** Something open of an order, with what shelves give it now and what builds make for it already. */
export interface Served {
  readonly open: Quantity;
  readonly ready: Quantity;
  readonly building: Quantity;
}

/**
 * How much that could leave from the shelf now waits for a build instead, when so many more are built for it: what is built
 * for an order is used for it first, so that the shelf stays for others.
 */
export const waitsInstead = ({ open, ready, building }: Served, build: Quantity): Quantity =>
  Math.max(0, add(building, build) - minus(open, ready)) as Quantity;
