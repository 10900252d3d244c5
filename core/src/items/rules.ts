import { Refusal } from '../refusal/index.ts';
import type { Tracking } from './words.ts';

/** What of an item can contradict its surroundings. */
export interface ItemFacts {
  /** The unit's code. */
  readonly unit: string;
  /** Decimals of the unit. */
  readonly decimals: number;
  readonly tracking: Tracking;
  readonly archived: boolean;
}

/** What there is of an item beside its record. */
export interface ItemAround {
  /** Whether anything was counted, defined, planned or ordered of it. */
  readonly hasHistory: boolean;
  /** Whether any of it stands anywhere, also below zero. */
  readonly hasStock: boolean;
  /** Whether open builds still need it. */
  readonly isPromised: boolean;
  /** Whether it is a kit that is packed per order. */
  readonly isPacked: boolean;
}

/**
 * Refuses an item that contradicts itself or what is there of it: the one rule for forms and files.
 * @param before undefined for a new item
 * @throws Refusal `serial-needs-whole`, `unit-in-use`, `kit-is-tracked`, `tracking-in-use`, `archive-has-stock`,
 * `archive-is-promised`, each naming its field
 */
export function refuseItem(after: ItemFacts, before: ItemFacts | undefined, around: ItemAround): void {
  // A serial number is one thing; half of one cannot be moved.
  if (after.tracking === 'serial' && after.decimals > 0) throw new Refusal('serial-needs-whole', {}, 'tracking');
  if (!before) return;
  if (before.unit !== after.unit && around.hasHistory) throw new Refusal('unit-in-use', {}, 'unit');
  if (before.tracking !== after.tracking) {
    if (around.isPacked) throw new Refusal('kit-is-tracked', { tracking: after.tracking }, 'tracking');
    // Lots and serials are told apart from the first piece on.
    if (around.hasStock) throw new Refusal('tracking-in-use', {}, 'tracking');
  }
  if (!after.archived || before.archived) return;
  if (around.hasStock) throw new Refusal('archive-has-stock', {}, 'archived');
  if (around.isPromised) throw new Refusal('archive-is-promised', {}, 'archived');
}
