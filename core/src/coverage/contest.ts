import { begunBy, dayNumber } from '../days/index.ts';
import { type Compiled, type Demand, type Plan, type Source, sourceKey } from '../demand/index.ts';
import { groupBy } from '../lists/index.ts';
import { World, withPriority } from './world.ts';

/** A day that comes, though nobody asked for one. */
const ANY_DAY = 0x7fff_fffe;

/** Who competes for parts of which there is not enough in time, and what depends on who gets them. Lines are places in the plan. */
export interface Contest {
  /** As it would be by the day wanted alone, whatever was set before for those who compete. */
  readonly world: World;
  readonly plan: Plan;
  /** Every part of which somebody has some too late, the smallest number first; and those of them that are looked at. */
  readonly scarce: readonly number[];
  readonly parts: readonly number[];
  /** Who needs any of them and can be made to wait, orders first. */
  readonly rivals: readonly Source[];
  /** Orders whose goods may depend on it. */
  readonly orders: readonly Source[];
  /** Items, as places in the plan, whose sharing out is looked at. */
  readonly items: ReadonlySet<number>;
  /** By the place of a build, the days by which its parts would have to be there for somebody to have what it makes in time. */
  readonly starts: ReadonlyMap<number, ReadonlySet<number>>;
}

/**
 * The day by which an order is to have what a line wants: in time to be on its way by the day it is wanted, today where that
 * has passed, and any day at all where none is known.
 */
export const dueOf = ({ turn: { wantedOn }, transport = 0 }: Demand, today: number): number =>
  wantedOn === null ? ANY_DAY : Math.max(dayNumber(wantedOn) - transport, today);

/**
 * Finds who competes for what is scarce: from every order that has something too late down through what is built for it to
 * the parts that are missing there.
 * @param only the parts to look at; null for all
 */
export function contestOf(asItIs: World, only: ReadonlySet<number> | null): Contest {
  const world = byDate(asItIs, only);
  const run = world.plan();
  const { of } = run;
  const search = new Search(run);
  search.follow();
  const scarce = [...search.scarce].map((item) => of.itemIds[item] as number).sort((a, b) => a - b);
  const parts = only === null ? scarce : scarce.filter((id) => only.has(id));
  const rivals = rivalsFor(of, parts);
  // What a rival makes comes later when it waits, so whom that serves is looked at too.
  for (const { kind, id } of rivals) if (kind === 'build') search.addProducts(id);
  const orders = sourcesOf(of, search.items, ({ source }) => source.kind === 'order');
  return { world, plan: run, scarce, parts, rivals, orders, items: search.items, starts: search.starts };
}

/** Without what was set before for those who need any of the parts. */
function byDate(world: World, only: ReadonlySet<number> | null): World {
  const set = [...world.known.demands.values()].filter(
    ({ turn, itemId }) => turn.priority !== null && (only === null || only.has(itemId)),
  );
  if (set.length === 0) return world;
  const sources = set.map(({ source }) => source);
  return new World(withPriority(world.known, sources, null), world.drafts);
}

function rivalsFor(of: Compiled, parts: readonly number[]): Source[] {
  const items = new Set(parts.flatMap((id) => of.indexOf.get(id) ?? []));
  return sourcesOf(
    of,
    items,
    ({ source, turn }) => (source.kind === 'order' || source.kind === 'build') && !turn.begun,
  );
}

/** Orders first, the oldest first. */
function sourcesOf(of: Compiled, items: ReadonlySet<number>, holds: (demand: Demand) => boolean): Source[] {
  const found = new Map<string, Source>();
  for (const item of items)
    for (const line of linesOf(of, item)) {
      const demand = of.demands[line] as Demand;
      if (holds(demand)) found.set(sourceKey(demand.source), demand.source);
    }
  return [...found.values()].sort((a, b) => Number(a.kind === 'build') - Number(b.kind === 'build') || a.id - b.id);
}

/** The demands of an item, by their places in turn. */
export function* linesOf(of: Compiled, item: number): Iterable<number> {
  const to = of.lineStart[item + 1] ?? 0;
  for (let line = of.lineStart[item] ?? 0; line < to; line += 1) yield line;
}

/** The supplies of an item, by their places. */
export const supplyOf = (of: Compiled, item: number): Int32Array =>
  of.stock.subarray(of.supplyStart[item] ?? 0, of.supplyStart[item + 1] ?? 0);

class Search {
  readonly scarce = new Set<number>();
  readonly items = new Set<number>();
  readonly starts = new Map<number, Set<number>>();
  /** Items whose builds need, or make, each other: their days stay as they are. */
  private readonly round: ReadonlySet<number>;
  private readonly byBuild: ReadonlyMap<number, number>;
  /** By the place of a build, the items it makes. */
  private readonly products: ReadonlyMap<number, readonly number[]>;
  private readonly itemOf: Int32Array;

  constructor(private readonly run: Plan) {
    const { of } = run;
    this.round = new Set(of.order.made.flatMap(({ items, isRound }) => (isRound ? items : [])));
    this.byBuild = new Map(of.makings.map(({ id }, making) => [id, making]));
    const made = [...of.supplies.keys()].filter((supply) => (of.madeBy[supply] as number) >= 0);
    const productOf = (supply: number) => of.indexOf.get(of.supplies[supply]?.itemId ?? 0) ?? -1;
    this.products = new Map(
      [...groupBy(made, (supply) => of.madeBy[supply] as number)].map(([making, own]) => [making, own.map(productOf)]),
    );
    this.itemOf = new Int32Array(of.demands.length);
    for (let item = 0; item < of.indexOf.size; item += 1)
      for (const line of linesOf(of, item)) this.itemOf[line] = item;
  }

  /** Orders that have something too late, and everything that follows. */
  follow(): void {
    const { of, when } = this.run;
    for (const [line, demand] of of.demands.entries()) {
      if (demand.source.kind !== 'order') continue;
      const item = this.itemOf[line] as number;
      if ((when[line] as number) > dueOf(demand, of.today)) {
        this.scarce.add(item);
        this.add(item);
      }
    }
  }

  /** What a build makes, where its day follows from its parts. */
  addProducts(buildId: number): void {
    for (const item of this.products.get(this.byBuild.get(buildId) ?? -1) ?? [])
      if (item >= 0 && !this.round.has(item)) this.add(item);
  }

  private add(item: number): void {
    if (this.items.has(item)) return;
    this.items.add(item);
    const { of } = this.run;
    for (const line of linesOf(of, item)) {
      const demand = of.demands[line] as Demand;
      if (demand.source.kind === 'order') this.want(item, dueOf(demand, of.today));
      if (demand.source.kind !== 'build') continue;
      for (const day of this.starts.get(this.byBuild.get(demand.source.id) ?? -1) ?? []) this.want(item, day);
      // What a build lacks is too late for whoever waits for it.
      this.addProducts(demand.source.id);
    }
  }

  /** Somebody wants an item by a day: by which day would the parts of its builds have to be there? */
  private want(item: number, by: number): void {
    const { of } = this.run;
    if (this.round.has(item)) return;
    for (const supply of supplyOf(of, item)) {
      const making = of.madeBy[supply] as number;
      if (making < 0) continue;
      const start = startBy(of, making, by);
      if (start >= of.today) this.start(making, start);
    }
  }

  private start(making: number, day: number): void {
    const known = this.starts.get(making) ?? new Set();
    if (known.has(day)) return;
    this.starts.set(making, known.add(day));
    for (const line of this.run.of.makings[making]?.lines ?? []) {
      const item = this.itemOf[line] as number;
      if ((this.run.when[line] as number) > day) {
        this.scarce.add(item);
        this.add(item);
      }
      if (this.items.has(item)) this.want(item, day);
    }
  }
}

/** The last day by which the parts of a build have to be there for it to be done by another. */
export function startBy({ makings, calendar }: Compiled, making: number, by: number): number {
  return by === ANY_DAY ? ANY_DAY : begunBy(by, makings[making]?.bench ?? 1, calendar.workDays);
}
