import { add, type Quantity } from '../number/index.ts';
import type { KeptOrderState, OrderState } from './words.ts';

/** How far a line of a purchase order has come. Quantities in the item's stock unit. */
export interface OrderedLine {
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** Nothing more of it will come, whatever is missing. */
  readonly closed: boolean;
}

/** What of a line is still to come. */
export const openOfLine = ({ ordered, received, closed }: OrderedLine): Quantity =>
  (closed ? 0 : Math.max(0, ordered - received)) as Quantity;

/** What came beyond what was ordered, once `more` has come too. */
export const overOfLine = ({ ordered, received }: OrderedLine, more = 0 as Quantity): Quantity =>
  Math.max(0, add(received, more) - ordered) as Quantity;

/**
 * Where an order stands: what somebody did with it, and between sending and the end what has come of it. An order whose
 * every line is whole or closed is over.
 */
export function stateOfOrder(kept: KeptOrderState, lines: readonly OrderedLine[]): OrderState {
  if (kept === 'draft' || kept === 'cancelled') return kept;
  if (lines.every((line) => openOfLine(line) === 0)) return 'closed';
  return lines.some(({ received }) => received > 0) ? 'partly-received' : kept;
}
