import type { BinQuantity, BuildDetail, Order, PartItem } from '@yosegi/contract';
import { formatDecimal, type Quantity, readExact, readForText } from '@yosegi/core/number';
import { neededFor } from '@yosegi/core/picking';
import { useCommand } from '../api/client.ts';
import { leftOf, needOf, progressOf } from '../builds/index.ts';

/** Something that is picked for one build or one order. */
export interface PickLine {
  readonly id: number;
  readonly item: PartItem;
  readonly open: string;
  /** Where it can be taken from, in walking order. */
  readonly bins: readonly BinQuantity[];
}

/** What is picked for: a build's bench, or an order's parcel. */
export interface PickJob {
  readonly kind: 'build' | 'order';
  readonly id: number;
  readonly number: string;
  /** Whose tile stands for it, and what it is. */
  readonly tile: string;
  readonly what: string;
  /** What is still open. */
  readonly lines: readonly PickLine[];
  readonly picked: number;
  readonly of: number;
  /** Of a build: what is left to finish, and what each line needs for so many of it. */
  readonly some?: {
    readonly left: string;
    readonly unit: string;
    readonly decimals: number;
    readonly neededFor: (units: Quantity) => ReadonlyMap<number, Quantity>;
  };
  /** Where it stands once it is picked, and where the screen of the job is. */
  readonly place: string;
  readonly home: string;
  readonly next: { readonly to: string; readonly says: string };
}

export function jobOfBuild(build: BuildDetail): PickJob {
  return {
    kind: 'build',
    id: build.id,
    number: build.number,
    tile: build.code,
    what: `${build.quantity} × ${build.name}`,
    lines: build.lines.flatMap(({ id, item, taken, open, bins }) =>
      item && taken === 'picked-first' && open !== '0' ? [{ id, item, open, bins }] : [],
    ),
    picked: build.pickedLines,
    of: build.pickLines,
    some: {
      left: formatDecimal(leftOf(build)),
      unit: build.unit,
      decimals: build.decimals,
      neededFor: (units) => neededForUnits(build, units),
    },
    place: 'on the bench',
    home: `/build/${build.id}`,
    next: { to: `/build/${build.id}/finish`, says: 'Finish the build' },
  };
}

/** What each line of a build has to have brought so that so many more can be finished, the rest later. */
function neededForUnits(build: BuildDetail, units: Quantity): ReadonlyMap<number, Quantity> {
  const progress = progressOf(build);
  return new Map(
    build.lines.flatMap((line) => {
      const need = needOf(line);
      return need ? [[line.id, neededFor(need, progress, readExact(line.onBench) as Quantity, units)] as const] : [];
    }),
  );
}

/** What an order still takes from shelves; what is being built for it comes into its parcel by itself. */
export function jobOfOrder(order: Order): PickJob {
  const parts = order.lines.flatMap((line) => line.parts);
  const wanted = parts.filter((part) => readForText(part.open) > 0n || readForText(part.packed) > 0n);
  const parcel = order.parcels.at(-1);
  return {
    kind: 'order',
    id: order.id,
    number: order.number,
    tile: order.customer,
    what: order.customer,
    lines: parts.flatMap(({ id, item, open, bins }) => (open === '0' ? [] : [{ id, item, open, bins }])),
    picked: wanted.filter((part) => part.open === '0').length,
    of: wanted.length,
    place: parcel ? `in ${parcel.number}` : 'in its parcel',
    home: `/orders/${order.id}`,
    next: { to: `/orders/${order.id}?ship=1`, says: 'Ship the order' },
  };
}

/** What is brought of one line, and from where. */
export interface Picked {
  readonly lineId: number;
  readonly binId: number;
  readonly quantity: string;
  readonly lot?: string | null;
  readonly serials?: string[];
}

/** Posts a pick to the bench of a build or into the parcel of an order. */
export function usePick(job: PickJob, done: (posted: { id: number; number: string; openLines: number }) => void) {
  const toBench = useCommand('pick', done);
  const toParcel = useCommand('packOrder', done);
  const params = { id: job.id };
  return {
    post(lines: readonly Picked[], override?: { reason: string }) {
      if (job.kind === 'build')
        toBench.mutate({ params, body: { lines: [...lines], ...(override ? { override } : {}) } });
      else
        toParcel.mutate({ params, body: { lines: lines.map(({ lineId, ...line }) => ({ partId: lineId, ...line })) } });
    },
    isPending: toBench.isPending || toParcel.isPending,
    error: toBench.error ?? toParcel.error,
    /** Whether going below zero can be overridden: what is packed for a customer has to be there. */
    mayGoBelow: job.kind === 'build',
  };
}
