import { dayNumber, dayOfNumber } from '../days/index.ts';
import type { Demand, Source, WhenThere } from '../demand/index.ts';
import { arrivesOn, byDay, byTurn, isTooLate, latest, type Pegged, peg, sourceKey, takenOf } from '../demand/index.ts';
import { groupBy } from '../lists/index.ts';
import { minus, type Quantity } from '../number/index.ts';
import { alternatesOf } from './alternates.ts';
import { needsOf } from './make.ts';
import { benchOf, type Known, type KnownItem, type KnownSupply, World, withPriority } from './world.ts';

/** One thing that could be otherwise. */
export type Change =
  /** A supply comes on another day; null: nobody knows when. */
  | { readonly what: 'day'; readonly kind: 'purchase' | 'build'; readonly id: number; readonly on: WhenThere }
  /** It does not come at all. */
  | { readonly what: 'gone'; readonly kind: 'purchase' | 'build'; readonly id: number }
  /** Everything of a supplier comes so many days later; null: nobody knows when. */
  | { readonly what: 'late'; readonly supplierId: number; readonly days: number | null }
  /** So many more of something are built, wanted by a day. */
  | { readonly what: 'build'; readonly itemId: number; readonly quantity: Quantity; readonly on: string | null }
  /** Some of what the shelves should have is not there. */
  | { readonly what: 'missing'; readonly itemId: number; readonly quantity: Quantity }
  /** An alternate is used for so much of a part, by whoever is served last of those that list it. */
  | { readonly what: 'instead'; readonly itemId: number; readonly other: number; readonly quantity: Quantity }
  /** Somebody is served before, or after, all others that are not on the bench. */
  | { readonly what: 'first' | 'last'; readonly source: Source };

/** The world as it would be, the changes made one after the other. What they speak of that is no more is left aside. */
export function changed(world: World, changes: readonly Change[]): World {
  let known: Known = world.known;
  for (const change of changes) known = withChange(known, change);
  return known === world.known ? world : new World(known, world.drafts);
}

function withChange(known: Known, change: Change): Known {
  switch (change.what) {
    case 'day':
      return withSupplies(known, isOf(change), ({ bench: _, ...supply }) => ({ ...supply, on: change.on }));
    case 'gone':
      return withSupplies(known, isOf(change), () => null);
    case 'late':
      return withLate(known, change.supplierId, change.days);
    case 'build':
      return withBuild(known, change);
    case 'missing':
      return withMissing(known, change.itemId, change.quantity);
    case 'instead':
      return withInstead(known, change.itemId, change.other, change.quantity);
    case 'first':
      return withPriority(known, [change.source], -1);
    case 'last':
      return withPriority(known, [change.source], 1);
  }
}

const isOf =
  ({ kind, id }: { readonly kind: string; readonly id: number }) =>
  ({ from }: KnownSupply) =>
    from.kind === kind && from.id === id;

function withSupplies(
  known: Known,
  holds: (supply: KnownSupply) => boolean,
  edit: (supply: KnownSupply) => KnownSupply | null,
): Known {
  const supplies = new Map(known.supplies);
  for (const [key, supply] of known.supplies) {
    if (!holds(supply)) continue;
    const next = edit(supply);
    if (next) supplies.set(key, next);
    else supplies.delete(key);
  }
  return { ...known, supplies };
}

const withLate = (known: Known, supplierId: number, days: number | null) =>
  withSupplies(
    known,
    (supply) => supply.supplierId === supplierId,
    (supply) => ({ ...supply, on: days === null || !supply.on ? null : dayOfNumber(dayNumber(supply.on) + days) }),
  );

/** Whether an id is of a build that is only in a case. */
export const isOfCase = (id: number) => id <= FIRST_OF_CASE;
/** Below what a question asks for, which a case may be looked at with. */
const FIRST_OF_CASE = -1_000_000;
/** It is younger than every promise, and older than what a question asks for. */
const YOUNGEST = 1e14;

/** Plans one more build; of what has no definition in use none can be. */
function withBuild(known: Known, { itemId, quantity, on }: Extract<Change, { what: 'build' }>): Known {
  const definition = known.definitions.get(itemId);
  if (!definition) return known;
  const before = [...known.supplies.values()].filter(({ from }) => from.kind === 'build' && isOfCase(from.id)).length;
  const source: Source = { kind: 'build', id: FIRST_OF_CASE - before };
  const demands = new Map(known.demands);
  for (const [part, need] of needsOf(definition, quantity))
    if (need > 0)
      demands.set(`case ${source.id} ${part}`, {
        source,
        lineId: null,
        itemId: part,
        quantity: need,
        decimals: known.items.get(part)?.decimals ?? 0,
        turn: { begun: false, priority: null, wantedOn: on, age: YOUNGEST + before },
        stores: null,
        alternates: alternatesOf(definition.lines, part),
      });
  const supply: KnownSupply = {
    from: { kind: 'build', id: source.id },
    itemId,
    quantity,
    on: null,
    bench: benchOf(known, definition, quantity),
    storeId: null,
    only: null,
    isDraft: false,
    isPlanned: true,
    supplierId: null,
  };
  return { ...known, demands, supplies: new Map(known.supplies).set(`case ${source.id}`, supply) };
}

/** Lines of orders sent to suppliers that a case expects on another day than they are expected on. */
export function deliveriesOf(world: World, other: World): { readonly lineId: number; readonly on: string }[] {
  return [...other.known.supplies].flatMap(([key, { from, on, isDraft }]) =>
    from.kind === 'purchase' && !isDraft && on && on !== world.known.supplies.get(key)?.on
      ? [{ lineId: from.id, on }]
      : [],
  );
}

/** Takes from the shelves, the fullest store first; what is not there cannot be missing. */
function withMissing(known: Known, itemId: number, quantity: Quantity): Known {
  const item = known.items.get(itemId);
  if (!item) return known;
  let open: number = quantity;
  const stock = new Map(item.stock);
  for (const [store, there] of [...item.stock].sort(([, a], [, b]) => b - a)) {
    const taken = Math.min(open, Math.max(0, there));
    stock.set(store, minus(there, taken as Quantity));
    open -= taken;
  }
  return { ...known, items: new Map(known.items).set(itemId, { ...item, stock } satisfies KnownItem) };
}

/** Lets demands that list an alternate want that instead, the last in turn first, until so much of the part is replaced. */
function withInstead(known: Known, itemId: number, other: number, quantity: Quantity): Known {
  const demands = new Map(known.demands);
  let open: number = quantity;
  const last = [...known.demands]
    .filter(([, demand]) => demand.itemId === itemId && demand.alternates.some((one) => one.itemId === other))
    .sort(([, a], [, b]) => byTurn(b, a));
  for (const [key, demand] of last) {
    const alternate = demand.alternates.find((one) => one.itemId === other);
    if (open <= 0 || !alternate) break;
    const replaced = Math.min(open, demand.quantity) as Quantity;
    open -= replaced;
    const rest = minus(demand.quantity, replaced);
    if (rest > 0) demands.set(key, { ...demand, quantity: rest });
    else demands.delete(key);
    const stead: Demand = {
      ...demand,
      itemId: other,
      quantity: takenOf(replaced, alternate.ratio, alternate.decimals),
      decimals: alternate.decimals,
      alternates: [],
    };
    demands.set(`${key}~${other}`, stead);
  }
  return { ...known, demands };
}

/** When somebody has everything, goods on their way included, and by when it is wanted. */
export interface Standing {
  readonly source: Source;
  readonly completeOn: WhenThere;
  /** The last day by which any of it is wanted; null where there is none. */
  readonly wantedOn: string | null;
}

/** When every build that needs parts and every order has everything; a build is whole when it can be done. */
export function standings(world: World): Standing[] {
  const { pegged, doneOn } = peg(world.picture());
  const named = pegged.filter(({ demand: { source } }) => source.kind === 'build' || source.kind === 'order');
  const { today } = world.known.calendar;
  return [...groupBy(named, ({ demand }) => sourceKey(demand.source)).values()].map((own) =>
    standingOf(own, doneOn, today),
  );
}

function standingOf(own: readonly Pegged[], doneOn: ReadonlyMap<number, WhenThere>, today: string): Standing {
  const [first] = own;
  if (!first) throw new Error('a group has at least one');
  const { source } = first.demand;
  const days = own.flatMap(({ demand }) => demand.turn.wantedOn ?? []);
  const parts = arrivesOn(latest(own.map(({ completeOn }) => completeOn)), first.demand.transport ?? 0, today);
  const done = source.kind === 'build' ? doneOn.get(source.id) : undefined;
  return { source, completeOn: done === undefined ? parts : done, wantedOn: days.sort().at(-1) ?? null };
}

/** Whom a change moves, and from which day to which. */
export interface Moved extends Standing {
  readonly before: WhenThere;
}

/** Whether somebody has everything only after the day it was wanted. */
export const isLate = ({ completeOn, wantedOn }: Standing, today: string): boolean =>
  isTooLate(completeOn, wantedOn, today);

export interface CaseOutcome {
  /** Those who are whole on another day, the first wanted first. */
  readonly moved: readonly Moved[];
  /** Those who are late, in this case. */
  readonly late: readonly Standing[];
}

/** What a case changes for everybody who was promised something. */
export function outcomeOf(before: readonly Standing[], after: readonly Standing[], today: string): CaseOutcome {
  const was = new Map(before.map((standing) => [sourceKey(standing.source), standing.completeOn]));
  const moved = after.flatMap((standing): Moved[] => {
    const old = was.get(sourceKey(standing.source));
    return old === undefined || old === standing.completeOn ? [] : [{ ...standing, before: old }];
  });
  return {
    moved: moved.sort((a, b) => byDay(a.wantedOn, b.wantedOn) || a.source.id - b.source.id),
    late: after.filter((standing) => isLate(standing, today)),
  };
}
