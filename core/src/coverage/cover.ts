import { coverByAlternates, latest, type StandIn, type WhenThere } from '../demand/index.ts';
import { groupBy } from '../lists/index.ts';
import { add, minus, type Quantity, stepOf, ZERO } from '../number/index.ts';
import { alternatesOf, canMakeWith, hasAlternates } from './alternates.ts';
import { canMake, needsOf, partLines } from './make.ts';
import { type Asked, pegAsked, sourceOf } from './question.ts';
import type { World } from './world.ts';

export interface Wanted {
  readonly itemId: number;
  readonly quantity: Quantity;
  /** It is made for others that are asked for: what shelves have of it is counted for them already. */
  readonly isPart?: boolean;
}

/** What Cover is asked. */
export interface Question {
  readonly wanted: readonly Wanted[];
  /** The day by which it is wanted; null for whenever. */
  readonly by?: string | null;
  /** The stores that parts may come from; null for all. */
  readonly stores?: ReadonlySet<number> | null;
  /** Whether what stands on shelves of a product is counted before it is made. */
  readonly finishedFirst?: boolean;
}

/** Something that comes of a component. */
export interface Arrival {
  readonly kind: 'purchase' | 'build';
  /** An order's line, a build, or below zero what is asked for itself. */
  readonly id: number;
  readonly quantity: Quantity;
  readonly on: WhenThere;
}

export interface ComponentCover {
  readonly itemId: number;
  /** For what is to be made; of what is asked for itself also what is taken from its shelf. */
  readonly needed: Quantity;
  /** On hand less held and promised; below zero when more is promised than is there. Of chosen stores: what is left there. */
  readonly free: Quantity;
  /** What is promised elsewhere, also beyond what is on hand. */
  readonly promised: Quantity;
  /** Everything that is coming; what is owed by a free below zero has the first call on it. */
  readonly coming: Quantity;
  readonly arrivals: readonly Arrival[];
  /** needed − free − coming, or zero. */
  readonly short: Quantity;
  /** What of the need is not there by the day it is wanted; zero where no day is asked for. */
  readonly late: Quantity;
  /** The day by which everything asked for has it, after everybody else; '' when that is now; null when none is known. */
  readonly completeOn: WhenThere;
  /** The first product that it is not enough for now, whatever else is missing, and for how many it is; null where there is none. */
  readonly stopsAt: { readonly itemId: number; readonly enough: Quantity } | null;
  /** What nobody was promised in stores that were not asked for, the fullest first; none where these have enough. */
  readonly elsewhere: readonly { readonly storeId: number; readonly quantity: Quantity }[];
  /** What could stand in for what is not free now, in order; nothing of it is counted in the figures above. */
  readonly alternates: readonly StandIn[];
}

export interface ProductCover extends Wanted {
  /** What of it stands on the shelf already, where that is counted. */
  readonly fromShelf: Quantity;
  readonly toMake: Quantity;
  /** How many can be made now, of what is to be made, after those listed before it have taken their parts. */
  readonly now: Quantity;
  /** The same where alternates stand in for parts that are used up, also for the products before it. */
  readonly nowWithAlternates: Quantity;
  /** The part that stops it from being whole now. */
  readonly limitedBy: number | null;
  /** The day its own parts are there after those listed before it have theirs; '' now; null when unknown. */
  readonly partsOn: WhenThere;
  /** The day all of it can be finished, in working days and never before today; '' where the shelf has it; null when unknown. */
  readonly completeOn: WhenThere;
  readonly hasDefinition: boolean;
  /** Reckoned by a draft, since nothing is in use. */
  readonly isDraft: boolean;
}

export interface Coverage {
  readonly products: readonly ProductCover[];
  /** The scarcest first: short, then coming, then enough; each by item. */
  readonly components: readonly ComponentCover[];
  readonly completeOn: WhenThere;
}

/**
 * Whether there is enough for all wanted products together. Components shared among them are added up; products are
 * served in the order given, after everybody who was promised something, so that no part is counted twice.
 * @throws Refusal `too-large`
 */
export function cover(world: World, question: Question): Coverage {
  const stores = question.stores ?? null;
  const free = freeOf(world, stores);
  const now = productsNow(world, question, free);
  const { needs, doneOn } = pegAsked(world, now, stores, question.by ?? null);
  const own = groupBy(needs, ({ index }) => index);
  const byPart = groupBy(needs, ({ itemId }) => itemId);
  const needed = new Map<number, Quantity>();
  for (const { needs: own } of now)
    for (const [part, need] of own) if (need > 0) needed.set(part, add(needed.get(part) ?? ZERO, need));
  // What is asked for itself and taken from the shelf is no part any more.
  for (const { itemId, fromShelf } of now) {
    const need = needed.get(itemId);
    if (need !== undefined) needed.set(itemId, add(need, fromShelf));
  }
  const made = groupBy(now, ({ itemId }) => itemId);
  const uses = usesOf(now);
  const components = [...needed].map(([itemId, need]): ComponentCover => {
    const arrivals = arrivalsOf(world, itemId, made.get(itemId) ?? [], doneOn, now);
    const coming = add(ZERO, ...arrivals.map(({ quantity }) => quantity));
    const parts = byPart.get(itemId) ?? [];
    const there = free(itemId);
    return {
      itemId,
      needed: need,
      free: there,
      promised: world.promised(itemId),
      coming,
      arrivals,
      short: Math.max(0, need - there - coming) as Quantity,
      late: add(ZERO, ...parts.map(({ late }) => late)),
      stopsAt: stopsAt(world, itemId, there, uses),
      elsewhere: there < need ? elsewhereOf(world, itemId, question.stores ?? null, there) : [],
      alternates: [],
      // What nobody else wants is there now; what others could do without comes when they have theirs.
      completeOn: there >= need ? '' : orToday(latest(parts.map(({ completeOn }) => completeOn)), world),
    };
  });
  const products = now.map(({ needs: _, ...product }, index): ProductCover => {
    const parts = (own.get(index) ?? []).map(({ completeOn }) => completeOn);
    const isThere = product.hasDefinition && product.now >= product.toMake;
    return {
      ...product,
      partsOn: isThere ? '' : product.hasDefinition ? orToday(latest(parts), world) : null,
      completeOn: wholeOf(product, doneOn.get(sourceOf(index))),
    };
  });
  return {
    products,
    components: withAlternates(world, question, components, now, free).sort(
      (a, b) => scarcity(a) - scarcity(b) || a.itemId - b.itemId,
    ),
    completeOn: latest(products.map((product) => product.completeOn)),
  };
}

/** Free of each item: the same figure everywhere, or what is left in the stores asked for. */
function freeOf(world: World, stores: ReadonlySet<number> | null): (itemId: number) => Quantity {
  const known = new Map<number, Quantity>();
  return (itemId) => {
    const before = known.get(itemId);
    if (before !== undefined) return before;
    const free = minus(world.usable(itemId), world.promised(itemId));
    // Whoever was promised some takes it from the other stores as far as these have it.
    const own = stores === null ? free : (Math.min(free, world.usable(itemId, stores)) as Quantity);
    known.set(itemId, own);
    return own;
  };
}

/** Of what is free of an item in all, what stands in other stores than those asked for. */
function elsewhereOf(
  world: World,
  itemId: number,
  stores: ReadonlySet<number> | null,
  here: Quantity,
): ComponentCover['elsewhere'] {
  if (stores === null) return [];
  let left = minus(minus(world.usable(itemId), world.promised(itemId)), Math.max(0, here) as Quantity);
  return [...(world.known.items.get(itemId)?.stock ?? [])]
    .filter(([store, there]) => !stores.has(store) && there > 0)
    .sort(([a, one], [b, other]) => other - one || a - b)
    .flatMap(([storeId, there]) => {
      const quantity = Math.max(0, Math.min(there, left)) as Quantity;
      left = minus(left, quantity);
      return quantity > 0 ? [{ storeId, quantity }] : [];
    });
}

/** What is not free now, though shelves could give it, is there today at the soonest. */
const orToday = (on: WhenThere, world: World): WhenThere => (on === '' ? world.known.calendar.today : on);

function wholeOf(
  { hasDefinition, toMake }: Pick<ProductCover, 'hasDefinition' | 'toMake'>,
  done: WhenThere | undefined,
): WhenThere {
  if (toMake === 0) return '';
  return hasDefinition ? (done ?? null) : null;
}

/** The products that use a part, in the order they were asked. */
type Uses = ReadonlyMap<number, readonly ProductNow[]>;

function usesOf(asked: readonly ProductNow[]): Uses {
  const uses = new Map<number, ProductNow[]>();
  for (const product of asked)
    for (const part of product.needs.keys()) {
      const known = uses.get(part);
      if (known) known.push(product);
      else uses.set(part, [product]);
    }
  return uses;
}

/** The first product for which a component alone is not enough, each taking its own in turn. */
function stopsAt(world: World, part: number, free: Quantity, uses: Uses): ComponentCover['stopsAt'] {
  let left: number = Math.max(0, free);
  for (const { itemId, needs } of uses.get(part) ?? []) {
    const need = needs.get(part) ?? 0;
    const definition = world.definitionOf(itemId);
    if (need > left && definition) {
      const own = { ...definition, lines: partLines(definition).filter((line) => line.itemId === part) };
      const enough = canMake(own, () => left as Quantity, world.decimalsOf(itemId)).quantity ?? ZERO;
      return { itemId, enough };
    }
    left -= need;
  }
  return null;
}

/** What comes of a component, the first to come first: bought, built, and made by this very question. */
function arrivalsOf(
  world: World,
  itemId: number,
  made: readonly ProductNow[],
  doneOn: ReadonlyMap<number, WhenThere>,
  all: readonly ProductNow[],
): Arrival[] {
  const done = world.doneOn();
  const coming = world.comingOf(itemId).map(({ from, quantity, on, bench }): Arrival => {
    const kind = from.kind === 'build' ? 'build' : 'purchase';
    const day = bench === undefined ? on : (doneOn.get(from.id) ?? done.get(from.id) ?? null);
    return { kind, id: from.id, quantity, on: day };
  });
  const own = made.flatMap((product): Arrival[] => {
    const id = sourceOf(all.indexOf(product));
    return product.toMake > 0 && product.hasDefinition
      ? [{ kind: 'build', id, quantity: product.toMake, on: doneOn.get(id) ?? null }]
      : [];
  });
  return [...coming, ...own].sort((a, b) => (a.on ?? '9999').localeCompare(b.on ?? '9999') || a.id - b.id);
}

/** What stands in for each component that is not free: only what nobody needs as a part, and nothing of it twice. */
function withAlternates(
  world: World,
  { wanted }: Question,
  components: readonly ComponentCover[],
  products: readonly ProductNow[],
  free: (itemId: number) => Quantity,
): ComponentCover[] {
  if (!anyAlternates(world, wanted)) return [...components];
  // What is taken from the shelf for itself stands in for nothing.
  const left = new Map(
    products.map(({ itemId, fromShelf }) => [itemId, Math.max(0, free(itemId) - fromShelf) as Quantity]),
  );
  for (const own of components) left.set(own.itemId, Math.max(0, own.free - own.needed) as Quantity);
  const freeLeft = (itemId: number) => left.get(itemId) ?? (Math.max(0, free(itemId)) as Quantity);
  const lines = wanted.flatMap(({ itemId }) => world.definitionOf(itemId)?.lines ?? []);
  return components.map((own) => {
    const missing = (own.needed - Math.max(0, own.free)) as Quantity;
    const { used } = coverByAlternates(
      alternatesOf(lines, own.itemId),
      missing,
      world.decimalsOf(own.itemId),
      freeLeft,
    );
    for (const { itemId, left: rest } of used) left.set(itemId, rest);
    const helping = used.filter(({ standsFor }) => standsFor > 0);
    return { ...own, alternates: helping.map(({ left: _, ...standIn }) => standIn) };
  });
}

const anyAlternates = (world: World, wanted: readonly Wanted[]) =>
  wanted.some(({ itemId }) => {
    const revision = world.definitionOf(itemId);
    return revision !== undefined && hasAlternates(revision);
  });

/** What can be made of a product now, and what making all of it needs. */
type ProductNow = Omit<ProductCover, 'partsOn' | 'completeOn'> & Asked;

/** What of each stands ready, and how many of the rest can be made now, in turn. */
function productsNow(
  world: World,
  { wanted, finishedFirst = false }: Question,
  free: (itemId: number) => Quantity,
): ProductNow[] {
  const left = new Map<number, Quantity>();
  // Where nothing stands in for anything, both are the same.
  const leftWith = anyAlternates(world, wanted) ? new Map<number, Quantity>() : left;
  const restIn = (rests: ReadonlyMap<number, Quantity>, itemId: number) =>
    rests.get(itemId) ?? (Math.max(0, free(itemId)) as Quantity);
  const rest = (itemId: number) => restIn(left, itemId);
  const restWith = (itemId: number) => restIn(leftWith, itemId);
  return wanted.map(({ itemId, quantity, isPart = false }): ProductNow => {
    const revision = world.definitionOf(itemId);
    const decimals = world.decimalsOf(itemId);
    const step = stepOf(decimals);
    const shelf = finishedFirst && !isPart ? Math.floor(Math.min(quantity, rest(itemId)) / step) * step : 0;
    const fromShelf = shelf as Quantity;
    if (fromShelf > 0)
      for (const rests of new Set([left, leftWith])) rests.set(itemId, minus(restIn(rests, itemId), fromShelf));
    const toMake = minus(quantity, fromShelf);
    const needs = revision ? needsOf(revision, toMake) : new Map<number, Quantity>();
    const base = { itemId, quantity, fromShelf, toMake, needs };
    if (!revision)
      return { ...base, now: ZERO, nowWithAlternates: ZERO, limitedBy: null, hasDefinition: false, isDraft: false };
    const can = canMake(revision, rest, decimals);
    const now = Math.min(toMake, can.quantity ?? toMake) as Quantity;
    for (const [part, need] of now === toMake ? needs : needsOf(revision, now)) left.set(part, minus(rest(part), need));
    let nowWithAlternates = now;
    if (leftWith !== left) {
      const withOthers = canMakeWith(revision, restWith, decimals, toMake);
      for (const [part, rest] of withOthers.left) leftWith.set(part, rest);
      nowWithAlternates = withOthers.quantity ?? toMake;
    }
    const limitedBy = now >= toMake ? null : can.limitedBy;
    return { ...base, now, nowWithAlternates, limitedBy, hasDefinition: true, isDraft: revision.isDraft };
  });
}

function scarcity(component: ComponentCover): number {
  if (component.short > 0) return 0;
  return component.completeOn === '' ? 2 : 1;
}
