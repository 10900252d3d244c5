import type { Revision } from '../definitions/index.ts';
import { coverByAlternates, type StandIn } from '../demand/index.ts';
import { add, type Quantity } from '../number/index.ts';
import { alternatesOf, canMakeWith, hasAlternates } from './alternates.ts';
import { canMake, needsOf } from './make.ts';

/** Stock of one item as coverage sees it. */
export interface StockOf {
  /** Standing on shelves and not held. */
  readonly onHand: Quantity;
  /** What open builds still need of it. */
  readonly promised: Quantity;
}

/** A quantity that will arrive; `date` is an ISO day, or null when none is known. */
export interface Coming {
  readonly itemId: number;
  readonly quantity: Quantity;
  readonly date: string | null;
}

export interface Wanted {
  readonly itemId: number;
  readonly quantity: Quantity;
}

export interface CoverageInput {
  readonly wanted: readonly Wanted[];
  readonly revisionOf: (itemId: number) => Revision | undefined;
  readonly stockOf: (itemId: number) => StockOf | undefined;
  readonly comingOf: (itemId: number) => readonly Coming[];
  /** Decimals of an item's unit. */
  readonly decimalsOf: (itemId: number) => number;
}

export interface ComponentCover {
  readonly itemId: number;
  readonly needed: Quantity;
  /** On hand less promised; below zero when more is promised than is there. */
  readonly free: Quantity;
  /** What is promised elsewhere, also beyond what is on hand. */
  readonly promised: Quantity;
  /** Everything that is coming; what is owed by a free below zero has the first call on it. */
  readonly coming: Quantity;
  /** needed − free − coming, or zero. */
  readonly short: Quantity;
  /** The day by which free and coming reach what is needed; '' when they do now; null when no date is known. */
  readonly wholeOn: string | '' | null;
  /** What could stand in for what is not free now, in order; nothing of it is counted in the figures above. */
  readonly alternates: readonly StandIn[];
}

export interface ProductCover extends Wanted {
  /** How many of the wanted quantity can be made after those listed before it have taken their parts. */
  readonly now: Quantity;
  /** The same where alternates stand in for parts that are used up, also for the products before it. */
  readonly nowWithAlternates: Quantity;
  /** The part that stops it from being whole now. */
  readonly limitedBy: number | null;
  /** The day its own parts are there after those listed before it have theirs; '' now; null when unknown. */
  readonly wholeOn: string | '' | null;
  readonly hasDefinition: boolean;
}

export interface Coverage {
  readonly products: readonly ProductCover[];
  /** The scarcest first: short, then coming, then enough; each by item. */
  readonly components: readonly ComponentCover[];
  readonly wholeOn: string | '' | null;
}

/**
 * Whether there is enough for all wanted products together. Components shared among them are added up; products are
 * served in the order given, so that no part is counted twice.
 */
export function cover(input: CoverageInput): Coverage {
  const needed = new Map<number, Quantity>();
  const products = input.wanted.map((wanted) => ({ wanted, revision: input.revisionOf(wanted.itemId) }));
  // What each product and those before it need: the day on which its turn is served.
  const daysOf = products.map(({ wanted, revision }) => {
    if (!revision) return null;
    return [...needsOf(revision, wanted.quantity)].map(([part, need]) => {
      const sum = add(needed.get(part) ?? (0 as Quantity), need);
      needed.set(part, sum);
      return wholeOn(input, part, sum);
    });
  });
  const components = withAlternates(
    input,
    [...needed].map(([itemId, need]) => component(input, itemId, need)),
  );
  const now = productsNow(input);
  const covers = now.map((product, index): ProductCover => {
    const days = daysOf[index];
    const whole = product.hasDefinition && product.now >= product.quantity;
    return { ...product, wholeOn: whole ? '' : days ? latest(days) : null };
  });
  return {
    products: covers,
    components: components.sort((a, b) => scarcity(a) - scarcity(b) || a.itemId - b.itemId),
    wholeOn: latest(covers.map((product) => product.wholeOn)),
  };
}

/** On hand less promised, below zero when more is promised than there is: the same figure everywhere. */
export const freeOf = (stock: StockOf | undefined) => ((stock?.onHand ?? 0) - (stock?.promised ?? 0)) as Quantity;

function component(input: CoverageInput, itemId: number, needed: Quantity): Omit<ComponentCover, 'alternates'> {
  const stock = input.stockOf(itemId);
  const free = freeOf(stock);
  const coming = add(0 as Quantity, ...input.comingOf(itemId).map(({ quantity }) => quantity));
  return {
    itemId,
    needed,
    free,
    promised: stock?.promised ?? (0 as Quantity),
    coming,
    short: Math.max(0, needed - free - coming) as Quantity,
    wholeOn: wholeOn(input, itemId, needed),
  };
}

/** The day by which free and coming reach `needed`. Promises beyond what is on hand have the first call on what comes. */
function wholeOn(input: CoverageInput, itemId: number, needed: Quantity): string | '' | null {
  let have: number = freeOf(input.stockOf(itemId));
  if (have >= needed) return '';
  for (const { quantity, date } of [...input.comingOf(itemId)].sort(byDate)) {
    have += quantity;
    if (have >= needed) return date;
  }
  return null;
}

/** Known days first, in order; arrivals without a day last. */
const byDate = (a: Coming, b: Coming) => (a.date ?? '9999').localeCompare(b.date ?? '9999');

/** What stands in for each component that is not free: only what nobody needs as a part, and nothing of it twice. */
function withAlternates(
  input: CoverageInput,
  components: readonly Omit<ComponentCover, 'alternates'>[],
): ComponentCover[] {
  if (!anyAlternates(input)) return components.map((own) => ({ ...own, alternates: [] }));
  const left = new Map(components.map(({ itemId, free, needed }) => [itemId, Math.max(0, free - needed) as Quantity]));
  const freeLeft = (itemId: number) => left.get(itemId) ?? (Math.max(0, freeOf(input.stockOf(itemId))) as Quantity);
  const lines = input.wanted.flatMap(({ itemId }) => input.revisionOf(itemId)?.lines ?? []);
  return components.map((own) => {
    const missing = (own.needed - Math.max(0, own.free)) as Quantity;
    const { used } = coverByAlternates(
      alternatesOf(lines, own.itemId),
      missing,
      input.decimalsOf(own.itemId),
      freeLeft,
    );
    for (const { itemId, left: rest } of used) left.set(itemId, rest);
    const helping = used.filter(({ standsFor }) => standsFor > 0);
    return { ...own, alternates: helping.map(({ left: _, ...standIn }) => standIn) };
  });
}

const anyAlternates = ({ wanted, revisionOf }: CoverageInput) =>
  wanted.some(({ itemId }) => {
    const revision = revisionOf(itemId);
    return revision !== undefined && hasAlternates(revision);
  });

type ProductNow = Omit<ProductCover, 'wholeOn'>;

/** How many of each can be made now, in turn. */
function productsNow(input: CoverageInput): ProductNow[] {
  const left = new Map<number, Quantity>();
  // Where nothing stands in for anything, both are the same.
  const leftWith = anyAlternates(input) ? new Map<number, Quantity>() : left;
  const of = (rests: ReadonlyMap<number, Quantity>) => (itemId: number) =>
    rests.get(itemId) ?? (Math.max(0, freeOf(input.stockOf(itemId))) as Quantity);
  return input.wanted.map(({ itemId, quantity }): ProductNow => {
    const revision = input.revisionOf(itemId);
    if (!revision) {
      const none = 0 as Quantity;
      return { itemId, quantity, now: none, nowWithAlternates: none, limitedBy: null, hasDefinition: false };
    }
    const decimals = input.decimalsOf(itemId);
    const can = canMake(revision, of(left), decimals);
    const now = Math.min(quantity, can.quantity ?? quantity) as Quantity;
    for (const [part, need] of needsOf(revision, now)) left.set(part, (of(left)(part) - need) as Quantity);
    let nowWithAlternates = now;
    if (leftWith !== left) {
      const withOthers = canMakeWith(revision, of(leftWith), decimals, quantity);
      for (const [part, rest] of withOthers.left) leftWith.set(part, rest);
      nowWithAlternates = withOthers.quantity ?? quantity;
    }
    return {
      itemId,
      quantity,
      now,
      nowWithAlternates,
      limitedBy: now >= quantity ? null : can.limitedBy,
      hasDefinition: true,
    };
  });
}

/** The last of several days; null as soon as one is unknown. */
const latest = (days: readonly (string | null)[]) => (days.includes(null) ? null : ([...days].sort().at(-1) ?? ''));

function scarcity(component: ComponentCover): number {
  if (component.short > 0) return 0;
  return component.wholeOn === '' ? 2 : 1;
}
