import { benchDays, type WorkCalendar } from '../days/index.ts';
import { type Revision, scaled } from '../definitions/index.ts';
import {
  compile,
  type Demand,
  type Picture,
  type Plan,
  plan,
  type Source,
  type Supply,
  sourceKey,
  type WhenThere,
  whenOf,
} from '../demand/index.ts';
import { groupBy } from '../lists/index.ts';
import { add, type Money, type Quantity, ZERO } from '../number/index.ts';

/** An item as coverage sees it. */
export interface KnownItem {
  readonly id: number;
  readonly decimals: number;
  readonly averageCost: Money;
  /** What can be taken from shelves by store; below zero where too much was taken. */
  readonly stock: ReadonlyMap<number, Quantity>;
}

/** What an item is built of: the revision in use, or its draft. */
export interface KnownDefinition extends Revision {
  readonly itemId: number;
  readonly isDraft: boolean;
  /** The fewest working days a build takes; null for what its labour takes. */
  readonly benchDays: number | null;
}

/** Something on its way; drafts of purchase orders too. */
export interface KnownSupply extends Supply {
  readonly isDraft: boolean;
  /** Made by a build that is not on the bench yet. */
  readonly isPlanned: boolean;
  /** Who brings it; null for what is built. */
  readonly supplierId: number | null;
}

/** What is set aside because it is asked for itself. */
export type Aside = 'orders' | 'builds';

/** Everything coverage is computed from, each row under a key that stays with it. */
export interface Known {
  readonly calendar: WorkCalendar;
  /** Bench minutes of a working day. */
  readonly benchMinutes: number;
  readonly items: ReadonlyMap<number, KnownItem>;
  /** By item, with a minus where it is a draft. */
  readonly definitions: ReadonlyMap<number, KnownDefinition>;
  readonly demands: ReadonlyMap<string, Demand>;
  readonly supplies: ReadonlyMap<string, KnownSupply>;
}

/** What is known, indexed; drafts count or don't. A world never changes: what changes makes another. */
export class World {
  readonly known: Known;
  readonly drafts: boolean;
  private readonly demandsOfItem: ReadonlyMap<number, readonly Demand[]>;
  private readonly demandsOfBuild: ReadonlyMap<number, readonly Demand[]>;
  private readonly coming: ReadonlyMap<number, readonly KnownSupply[]>;
  /** What each open build makes. */
  readonly productOf: ReadonlyMap<number, number>;
  private readonly served = new Map<number, readonly Supply[]>();
  private planned: Plan | null = null;
  private days: ReadonlyMap<number, WhenThere> | null = null;

  constructor(known: Known, drafts = false) {
    this.known = known;
    this.drafts = drafts;
    const demands = [...known.demands.values()];
    this.demandsOfItem = groupBy(demands, ({ itemId }) => itemId);
    this.demandsOfBuild = groupBy(
      demands.filter(({ source }) => source.kind === 'build'),
      ({ source }) => source.id,
    );
    const coming = [...known.supplies.values()].filter(({ isDraft }) => drafts || !isDraft);
    this.coming = groupBy(coming, ({ itemId }) => itemId);
    this.productOf = new Map(
      coming.flatMap(({ from, itemId }) => (from.kind === 'build' ? [[from.id, itemId] as const] : [])),
    );
  }

  /** The same without what orders, or builds that are planned, need and bring. */
  without(aside: Aside): World {
    const { demands, supplies } = this.known;
    if (aside === 'orders') {
      // What is built for orders is there for whoever asks.
      const free = [...supplies].map(([key, supply]) => [key, { ...supply, only: null }] as const);
      const others = [...demands].filter(([, { source }]) => source.kind !== 'order');
      return new World({ ...this.known, demands: new Map(others), supplies: new Map(free) }, this.drafts);
    }
    const planned = new Set([...supplies.values()].flatMap(({ from, isPlanned }) => (isPlanned ? from.id : [])));
    const isAside = ({ source }: Demand) => source.kind === 'build' && planned.has(source.id);
    return new World(
      {
        ...this.known,
        demands: new Map([...demands].filter(([, demand]) => !isAside(demand))),
        supplies: new Map([...supplies].filter(([, { isPlanned }]) => !isPlanned)),
      },
      this.drafts,
    );
  }

  decimalsOf(itemId: number): number {
    return this.known.items.get(itemId)?.decimals ?? 0;
  }

  averageCost(itemId: number): Money {
    return this.known.items.get(itemId)?.averageCost ?? ZERO;
  }

  /** What it is built of; its draft only where drafts count and nothing is in use. */
  definitionOf(itemId: number): KnownDefinition | undefined {
    const { definitions } = this.known;
    return definitions.get(itemId) ?? (this.drafts ? definitions.get(-itemId) : undefined);
  }

  /** What can be taken from shelves. @param stores null for all */
  usable(itemId: number, stores: ReadonlySet<number> | null = null): Quantity {
    let sum: Quantity = ZERO;
    for (const [store, there] of this.known.items.get(itemId)?.stock ?? [])
      if (stores === null || stores.has(store)) sum = add(sum, there);
    return sum;
  }

  /** What open orders and builds still need. */
  promised(itemId: number): Quantity {
    return this.demandsFor(itemId).reduce((sum, { quantity }) => add(sum, quantity), ZERO as Quantity);
  }

  demandsFor(itemId: number): readonly Demand[] {
    return this.demandsOfItem.get(itemId) ?? [];
  }

  /** The open lines of a build. */
  linesOfBuild(buildId: number): readonly Demand[] {
    return this.demandsOfBuild.get(buildId) ?? [];
  }

  comingOf(itemId: number): readonly KnownSupply[] {
    return this.coming.get(itemId) ?? [];
  }

  /** Everything that can serve demands for an item: its shelves, the first store first, and what comes. */
  suppliesOf(itemId: number): readonly Supply[] {
    const known = this.served.get(itemId);
    if (known) return known;
    const shelves = [...(this.known.items.get(itemId)?.stock ?? [])].map(
      ([store, quantity]): Supply => ({
        from: { kind: 'shelf', id: store },
        itemId,
        quantity,
        on: '',
        storeId: store,
        only: null,
      }),
    );
    const all = [...shelves, ...this.comingOf(itemId)];
    this.served.set(itemId, all);
    return all;
  }

  /** Everything that is needed with everything that can serve it. */
  picture(): Picture {
    const { items, demands, calendar } = this.known;
    return {
      demands: [...demands.values()],
      supplies: [...items.keys()].flatMap((itemId) => this.suppliesOf(itemId)),
      calendar,
    };
  }

  /** When open builds are done, as everything stands. */
  doneOn(): ReadonlyMap<number, WhenThere> {
    const { of, doneOn } = this.plan();
    this.days ??= new Map(of.makings.map(({ id }, making) => [id, whenOf(doneOn[making] ?? 0)]));
    return this.days;
  }

  /** What is left of an item once everybody who was promised some has theirs, with its days. */
  restOf(itemId: number): readonly Supply[] {
    const { of, left, day } = this.plan();
    const item = of.indexOf.get(itemId) ?? -1;
    const isWanted = (of.lineStart[item + 1] ?? 0) > (of.lineStart[item] ?? 0);
    if (!isWanted) return this.suppliesOf(itemId).map((supply) => this.dated(supply));
    const rest: Supply[] = [];
    for (const at of of.stock.subarray(of.supplyStart[item] ?? 0, of.supplyStart[item + 1] ?? 0)) {
      const quantity = left[at] as Quantity;
      if (quantity > 0) rest.push({ ...unbenched(of.supplies[at] as Supply), quantity, on: whenOf(day[at] ?? 0) });
    }
    return rest;
  }

  /** Something that comes, on the day it comes as everything stands. */
  dated(supply: Supply): Supply {
    return supply.bench === undefined
      ? supply
      : { ...unbenched(supply), on: this.doneOn().get(supply.from.id) ?? null };
  }

  /** Who is served by what, as everything stands. */
  plan(): Plan {
    this.planned ??= plan(compile(this.picture()));
    return this.planned;
  }

  /** Working days that a build of so many takes once its parts are there. */
  benchOf(definition: KnownDefinition, quantity: Quantity): number {
    return benchOf(this.known, definition, quantity);
  }
}

/** Working days that a build of so many takes once its parts are there. */
export function benchOf(
  { benchMinutes }: Known,
  { lines, outputQuantity, benchDays: least }: KnownDefinition,
  quantity: Quantity,
): number {
  const minutes = lines.reduce(
    (sum, line) => sum + (line.kind === 'labour' ? scaled(line.basis, line.minutes, quantity, outputQuantity) : 0),
    0,
  );
  return benchDays(minutes, benchMinutes, least);
}

/** The same with a priority set, or taken away, for some. @param priority as a turn has it */
export function withPriority(known: Known, sources: readonly Source[], priority: number | null): Known {
  const named = new Set(sources.map(sourceKey));
  const demands = new Map(known.demands);
  for (const [line, demand] of known.demands)
    if (named.has(sourceKey(demand.source))) demands.set(line, { ...demand, turn: { ...demand.turn, priority } });
  return { ...known, demands };
}

const unbenched = ({ bench: _, ...supply }: Supply): Supply => supply;
