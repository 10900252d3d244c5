import { type Source, sourceKey } from '../demand/index.ts';
import { groupBy } from '../lists/index.ts';
import { add, minus, type Quantity, ZERO } from '../number/index.ts';
import type { World } from './world.ts';

/** Some of an item that somebody takes, or that comes. */
export interface Take {
  readonly source: Source;
  readonly quantity: Quantity;
}
export interface Bring {
  readonly kind: 'purchase' | 'build';
  /** An order's line, or a build. */
  readonly id: number;
  readonly quantity: Quantity;
  readonly isDraft: boolean;
}

/** What happens to an item on a day, and what is free of it once it has. */
export interface DayOfItem {
  /** ISO day; today for what was wanted before or has no day. */
  readonly on: string;
  readonly takes: readonly Take[];
  readonly brings: readonly Bring[];
  /** Below zero while more is wanted by then than has come. */
  readonly free: Quantity;
}

export interface ItemOverTime {
  /** What can be taken from shelves now. */
  readonly shelf: Quantity;
  /** Today first, then every day on which something happens. */
  readonly days: readonly DayOfItem[];
  /** What comes on a day that nobody knows. */
  readonly undated: readonly Bring[];
}

/** Free stock of an item day by day, as what is wanted and what comes lands on its days. */
export function overTime(world: World, itemId: number): ItemOverTime {
  const { today } = world.known.calendar;
  const brings = world.comingOf(itemId).map((supply) => {
    const { from, quantity, isDraft } = supply;
    const { on } = world.dated(supply);
    const kind: Bring['kind'] = from.kind === 'build' ? 'build' : 'purchase';
    return { on, bring: { kind, id: from.id, quantity, isDraft } };
  });
  const takes = world.demandsFor(itemId).map(({ source, quantity, turn }) => ({ on: turn.wantedOn, source, quantity }));
  const dayOf = (on: string | null) => (on === null || on < today ? today : on);
  const takesOn = groupBy(takes, ({ on }) => dayOf(on));
  const bringsOn = groupBy(
    brings.filter(({ on }) => on !== null),
    ({ on }) => dayOf(on),
  );
  const shelf = world.usable(itemId);
  let free = shelf;
  const all = new Set([today, ...takesOn.keys(), ...bringsOn.keys()]);
  const days = [...all].sort().map((on): DayOfItem => {
    const taken = sumTaken(takesOn.get(on) ?? []);
    const brought = (bringsOn.get(on) ?? []).map(({ bring }) => bring);
    free = minus(add(free, ...brought.map(({ quantity }) => quantity)), add(ZERO, ...taken.map((one) => one.quantity)));
    return { on, takes: taken, brings: brought, free };
  });
  return { shelf, days, undated: brings.flatMap(({ on, bring }) => (on === null ? [bring] : [])) };
}

/** Several lines of one source as one. */
function sumTaken(takes: readonly Take[]): Take[] {
  const bySource = new Map<string, Take>();
  for (const { source, quantity } of takes) {
    const key = sourceKey(source);
    bySource.set(key, { source, quantity: add(bySource.get(key)?.quantity ?? ZERO, quantity) });
  }
  return [...bySource.values()];
}

/** From when until when an item is short: days on which its free stock is below zero. */
export interface Stretch {
  readonly from: string;
  /** The day it is free again; null where nothing that is coming brings it there. */
  readonly until: string | null;
  /** The most that is missing. */
  readonly most: Quantity;
}

export function shortStretches({ days }: ItemOverTime): Stretch[] {
  const stretches: { from: string; until: string | null; most: Quantity }[] = [];
  let open: (typeof stretches)[number] | null = null;
  for (const { on, free } of days) {
    if (free < 0) {
      const most = -free as Quantity;
      if (open) open.most = Math.max(open.most, most) as Quantity;
      else {
        open = { from: on, until: null, most };
        stretches.push(open);
      }
    } else if (open) {
      open.until = on;
      open = null;
    }
  }
  return stretches;
}
