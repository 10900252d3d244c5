import type { Quantity } from '../number/index.ts';
import type { Alternate } from './alternates.ts';

/**
 * What needs something: a build for its lines, an order for what it sells, a task for what it uses up; a reorder point
 * that nobody in particular wants kept; and a shelf below zero, to which what was taken too much is owed.
 */
export const sourceKinds = ['owed', 'build', 'order', 'task', 'reorder'] as const;
export interface Source {
  readonly kind: (typeof sourceKinds)[number];
  readonly id: number;
}

/** When somebody is served: on a bench or in a parcel first, then by the owner's priority, the day wanted, and age. */
export interface Turn {
  /** Whether some of it stands on a bench or in a parcel already. */
  readonly begun: boolean;
  /** As the owner set it: below zero before everybody else, above zero after them, the smaller the sooner; null for none. */
  readonly priority: number | null;
  /** ISO day; null when none was set. */
  readonly wantedOn: string | null;
  /** The moment it was promised, as milliseconds since 1970: an order's confirmation, a build's planning. The smaller the older. */
  readonly age: number;
}

/** Something needed of one item, beyond what stands for its source already. */
export interface Demand {
  readonly source: Source;
  /** The line of the source; null where it has none. */
  readonly lineId: number | null;
  readonly itemId: number;
  readonly quantity: Quantity;
  /** Decimals of the item's unit. */
  readonly decimals: number;
  readonly turn: Turn;
  /** Days that goods are on their way to whoever wants them; none where left out. */
  readonly transport?: number;
  /** The stores it may come from; null for any. */
  readonly stores: ReadonlySet<number> | null;
  /** What may stand in for it, the best first. */
  readonly alternates: readonly Alternate[];
}

/** '' now, an ISO day, or null when nobody knows. */
export type WhenThere = string | '' | null;

/** Something that can serve a demand for its item. */
export interface Supply {
  readonly from: {
    readonly kind: 'shelf' | 'purchase' | 'build';
    /** A store for a shelf, an order's line for a purchase. */
    readonly id: number;
  };
  readonly itemId: number;
  /** Below zero on a shelf from which too much was taken. */
  readonly quantity: Quantity;
  readonly on: WhenThere;
  /**
   * Of what a build makes: the working days it still takes once its parts are there. Its day follows from them then, and
   * `on` is not looked at.
   */
  readonly bench?: number;
  /** Where it is or will be; null when that is open. */
  readonly storeId: number | null;
  /** The one source it serves; null for anybody. */
  readonly only: Source | null;
}

/** Whether a day comes before another: now first, unknown days last. */
export const byDay = (a: WhenThere, b: WhenThere) => {
  if (a === b) return 0;
  if (a === null) return 1;
  return b === null || a < b ? -1 : 1;
};

/** The order in which two are served. What nobody in particular wants comes last, what is owed comes first. */
export function byTurn(a: Demand, b: Demand): number {
  const first = a.turn;
  const second = b.turn;
  return (
    rankOf(a) - rankOf(b) ||
    Number(second.begun) - Number(first.begun) ||
    (first.priority ?? 0) - (second.priority ?? 0) ||
    byDay(first.wantedOn, second.wantedOn) ||
    first.age - second.age ||
    a.source.id - b.source.id ||
    (a.lineId ?? 0) - (b.lineId ?? 0)
  );
}

const rankOf = ({ source }: Demand) => (source.kind === 'owed' ? 0 : source.kind === 'reorder' ? 2 : 1);

/** The last of several days; null as soon as one is unknown. */
export const latest = (days: readonly WhenThere[]): WhenThere =>
  days.includes(null) ? null : (days.reduce((last, day) => ((day ?? '') > (last ?? '') ? day : last), '') ?? '');
