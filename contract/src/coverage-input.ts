import type { CoverageInput, Wanted } from '@yosegi/core/coverage';
import type { Revision } from '@yosegi/core/definitions';
import { type Money, type Percent, parseDecimal, type Quantity, readExact } from '@yosegi/core/number';
import type { Snapshot } from './coverage.ts';

/** A snapshot made ready for the core: parsed once, looked up by item. The worker and the server share it. */
export class CoverageWorld {
  private readonly items = new Map<
    number,
    { onHand: Quantity; promised: Quantity; decimals: number; averageCost: Money }
  >();
  private readonly revisions = new Map<number, Revision>();
  private readonly coming = new Map<number, { itemId: number; quantity: Quantity; date: string | null }[]>();

  constructor(snapshot: Snapshot) {
    for (const { id, onHand, promised, decimals, averageCost } of snapshot.items) {
      this.items.set(id, {
        onHand: readExact(onHand) as Quantity,
        promised: readExact(promised) as Quantity,
        averageCost: readExact(averageCost) as Money,
        decimals,
      });
    }
    for (const definition of snapshot.definitions) this.revisions.set(definition.itemId, this.revisionOf(definition));
    for (const { itemId, quantity, date } of snapshot.coming) {
      const arrivals = this.coming.get(itemId) ?? [];
      arrivals.push({ itemId, quantity: readExact(quantity) as Quantity, date });
      this.coming.set(itemId, arrivals);
    }
  }

  /** What the core's `cover` asks for. */
  input(wanted: readonly Wanted[]): CoverageInput {
    return {
      wanted,
      revisionOf: (itemId) => this.revisions.get(itemId),
      stockOf: (itemId) => this.items.get(itemId),
      comingOf: (itemId) => this.coming.get(itemId) ?? [],
      decimalsOf: (itemId) => this.items.get(itemId)?.decimals ?? 0,
    };
  }

  revision(itemId: number): Revision | undefined {
    return this.revisions.get(itemId);
  }

  averageCost(itemId: number): Money {
    return this.items.get(itemId)?.averageCost ?? (0 as Money);
  }

  private revisionOf(definition: Snapshot['definitions'][number]): Revision {
    return {
      outputQuantity: parseDecimal(definition.outputQuantity) as Quantity,
      lines: [
        ...definition.parts.map((part) => ({
          ...part,
          kind: 'part' as const,
          quantity: parseDecimal(part.quantity) as Quantity,
          waste: parseDecimal(part.waste) as Percent,
          decimals: this.items.get(part.itemId)?.decimals ?? 0,
          alternates: part.alternates.map(({ itemId, ratio }) => ({
            itemId,
            ratio: parseDecimal(ratio) as Quantity,
            decimals: this.items.get(itemId)?.decimals ?? 0,
          })),
        })),
        ...definition.labour.map((labour) => ({
          kind: 'labour' as const,
          basis: labour.basis,
          minutes: parseDecimal(labour.minutes) as Quantity,
          ratePerHour: parseDecimal(labour.ratePerHour) as Money,
        })),
        ...definition.charges.map((charge) => ({
          kind: 'charge' as const,
          basis: charge.basis,
          amount: parseDecimal(charge.amount) as Money,
        })),
      ],
    };
  }
}
