import type { Tracking } from '../items/index.ts';
import type { Percent } from '../number/index.ts';
import { Refusal } from '../refusal/index.ts';

/** How a kit behaves: three independent switches, and where its price comes from. */
export interface Behaviour {
  /** Built into stock, or never stocked: its parts leave the shelf when the order ships. */
  readonly made: 'ahead' | 'packed-per-order';
  /** Whether customers read what is in it. */
  readonly paperwork: 'one-line' | 'contents';
  /** What may be changed on an order line: nothing, how many of each part, or also which part. */
  readonly onOrder: 'locked' | 'quantities' | 'swaps';
  /** When parts may be swapped: for the alternates listed, or for any item. */
  readonly swapFor: 'listed' | 'anything';
  /** Its own price, or the sum of its parts' prices less a discount. */
  readonly price: 'own' | 'parts';
  readonly discount: Percent;
}

/** What stands around a definition and can contradict its behaviour. */
export interface Surroundings {
  readonly purpose: 'build' | 'rework' | 'record';
  readonly tracking: Tracking;
  /** Whether any of it stands on shelves or benches, also below zero. */
  readonly hasStock: boolean;
  readonly openBuilds: readonly string[];
  /** Codes of products in use or drafted that contain it. */
  readonly partOf: readonly string[];
  /** Whether any part line lists an alternate. */
  readonly hasAlternates: boolean;
}

/**
 * Refuses a behaviour that contradicts itself or what is there; each refusal names the switch that has to give.
 * @throws Refusal `kit-purpose`, `kit-has-stock`, `kit-has-builds`, `kit-is-part`, `kit-is-tracked`, `kit-no-alternates`
 */
export function refuseContradiction(behaviour: Behaviour, around: Surroundings): void {
  if (behaviour.made === 'packed-per-order') {
    if (around.purpose !== 'build') throw new Refusal('kit-purpose', { purpose: around.purpose }, 'made');
    if (around.hasStock) throw new Refusal('kit-has-stock', {}, 'made');
    if (around.openBuilds.length > 0) throw new Refusal('kit-has-builds', { builds: around.openBuilds }, 'made');
    if (around.partOf.length > 0) throw new Refusal('kit-is-part', { products: around.partOf }, 'made');
    if (around.tracking !== 'none') throw new Refusal('kit-is-tracked', { tracking: around.tracking }, 'made');
  }
  if (behaviour.onOrder === 'swaps' && behaviour.swapFor === 'listed' && !around.hasAlternates)
    throw new Refusal('kit-no-alternates', {}, 'onOrder');
}
