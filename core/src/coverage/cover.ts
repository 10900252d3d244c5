import type { Revision } from '../definition/index.ts';
import { add, type Quantity } from '../number/index.ts';
import { canMake, needsOf } from './make.ts';

/** Stock of one item as coverage sees it. */
export interface StockOf {
  /** Standing on shelves. */
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
  /** On hand and not promised; never below zero. */
  readonly free: Quantity;
  /** The part of what is on hand that is promised elsewhere. */
  readonly promised: Quantity;
  /** Coming and not needed to make up promises beyond what is on hand. */
  readonly coming: Quantity;
  /** needed − free − coming, or zero. */
  readonly short: Quantity;
  /** The day by which free and coming reach what is needed; '' when they do now; null when no date is known. */
  readonly wholeOn: string | '' | null;
}

export interface ProductCover extends Wanted {
  /** How many of the wanted quantity can be made after those listed before it have taken their parts. */
  readonly now: Quantity;
  /** The part that stops it from being whole now. */
  readonly limitedBy: number | null;
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
  const components = new Map<number, Quantity>();
  for (const { itemId, quantity } of input.wanted) {
    const revision = input.revisionOf(itemId);
    if (!revision) continue;
    for (const [part, need] of needsOf(revision, quantity)) {
      components.set(part, add(components.get(part) ?? (0 as Quantity), need));
    }
  }
  const covers = new Map([...components].map(([itemId, needed]) => [itemId, component(input, itemId, needed)]));
  const products = productsInTurn(input, covers);
  return {
    products,
    components: [...covers.values()].sort((a, b) => scarcity(a) - scarcity(b) || a.itemId - b.itemId),
    wholeOn: latest(products.map((product) => product.wholeOn)),
  };
}

/** On hand less promised, never below zero: what a new build may count on. */
export const freeOf = (stock: StockOf | undefined) =>
  Math.max(0, (stock?.onHand ?? 0) - (stock?.promised ?? 0)) as Quantity;

function component(input: CoverageInput, itemId: number, needed: Quantity): ComponentCover {
  const stock = input.stockOf(itemId) ?? { onHand: 0 as Quantity, promised: 0 as Quantity };
  const free = freeOf(stock);
  // Promises beyond what is on hand have the first call on what comes.
  let owed = Math.max(0, stock.promised - Math.max(0, stock.onHand));
  let have: number = free;
  let coming = 0;
  let wholeOn: string | null = free >= needed ? '' : null;
  for (const arrival of [...input.comingOf(itemId)].sort(byDate)) {
    const usable = Math.max(0, arrival.quantity - owed);
    owed = Math.max(0, owed - arrival.quantity);
    coming += usable;
    have += usable;
    if (wholeOn === null && have >= needed) wholeOn = arrival.date;
  }
  return {
    itemId,
    needed,
    free,
    promised: Math.min(stock.promised, Math.max(0, stock.onHand)) as Quantity,
    coming: coming as Quantity,
    short: Math.max(0, needed - free - coming) as Quantity,
    wholeOn,
  };
}

/** Known days first, in order; arrivals without a day last. */
const byDate = (a: Coming, b: Coming) => (a.date ?? '9999').localeCompare(b.date ?? '9999');

function productsInTurn(input: CoverageInput, covers: ReadonlyMap<number, ComponentCover>): ProductCover[] {
  const left = new Map([...covers].map(([itemId, cover]) => [itemId, cover.free]));
  const freeLeft = (itemId: number) => left.get(itemId) ?? (0 as Quantity);
  return input.wanted.map(({ itemId, quantity }) => {
    const revision = input.revisionOf(itemId);
    if (!revision)
      return { itemId, quantity, now: 0 as Quantity, limitedBy: null, wholeOn: null, hasDefinition: false };
    const can = canMake(revision, freeLeft, input.decimalsOf(itemId));
    const now = Math.min(quantity, can.quantity ?? quantity) as Quantity;
    for (const [part, need] of needsOf(revision, now)) left.set(part, (freeLeft(part) - need) as Quantity);
    const parts = [...needsOf(revision, quantity).keys()].map((part) => covers.get(part)?.wholeOn ?? null);
    const whole = now >= quantity;
    return {
      itemId,
      quantity,
      now,
      limitedBy: whole ? null : can.limitedBy,
      wholeOn: whole ? '' : latest(parts),
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
