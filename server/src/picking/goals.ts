import { dayOf, isPast } from '@yosegi/core/days';
import { formatDecimal } from '@yosegi/core/number';
import { type Goal, goalKey } from '@yosegi/core/picking';
import { buildRecords } from '../builds/index.ts';
import type { Reader } from '../db/database.ts';
import { openParcels, orderRecords } from '../orders/index.ts';

/** A build or an order as a run speaks of it. */
export interface NamedGoal {
  readonly goal: Goal;
  readonly number: string;
  /** What is built, or for whom it is. */
  readonly name: string;
  readonly tile: string;
  readonly due: string | null;
  readonly late: boolean;
  /** Where its goods go, in words. */
  readonly place: string;
  /** What is scanned to confirm it. */
  readonly codes: readonly string[];
  readonly spare: boolean;
  /** Its own, `shipped` where all of an order has left. */
  readonly state: string;
  /** Why nothing can be picked for it any more; null while it can. */
  readonly over: string | null;
}

/** Builds and orders as runs speak of them, by {@link goalKey}. */
export async function namedGoals(db: Reader, goals: readonly Goal[], now: Date): Promise<Map<string, NamedGoal>> {
  const idsOf = (kind: Goal['kind']) => goals.filter((goal) => goal.kind === kind).map(({ id }) => id);
  const today = dayOf(now);
  const named = new Map<string, NamedGoal>();
  for (const build of await buildRecords(db, idsOf('build'))) {
    const goal = { kind: 'build', id: build.id } as const;
    named.set(goalKey(goal), {
      goal,
      number: build.number,
      name: `${formatDecimal(build.quantity)} × ${build.name}`,
      tile: build.code,
      due: build.due,
      late: isPast(build.due, today),
      place: 'on the bench',
      codes: [build.number],
      spare: build.spare === 1,
      state: build.state,
      over: build.state === 'on-bench' ? null : build.state === 'planned' ? 'not on the bench' : build.state,
    });
  }
  const orders = await orderRecords(db, idsOf('order'));
  const parcels = await openParcels(
    db,
    orders.map(({ id }) => id),
  );
  for (const order of orders) {
    const goal = { kind: 'order', id: order.id } as const;
    const parcel = parcels.findLast(({ order_id }) => order_id === order.id)?.number;
    named.set(goalKey(goal), {
      goal,
      number: order.number,
      name: order.customer,
      tile: order.customer,
      due: order.wanted_on,
      late: isPast(order.wanted_on, today),
      place: parcel ? `in ${parcel}` : 'in a new parcel',
      codes: [order.number, ...(parcel ? [parcel] : [])],
      spare: false,
      state: order.state === 'confirmed' && order.open === 0 ? 'shipped' : order.state,
      over: order.state !== 'confirmed' ? order.state : order.open === 1 ? null : 'shipped',
    });
  }
  return named;
}
