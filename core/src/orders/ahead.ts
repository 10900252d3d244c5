import { required } from '../definitions/index.ts';
import {
  arrivesOn,
  type Demand,
  latest,
  type Pegged,
  type Picture,
  peg,
  type Source,
  sourceKey,
  type Turn,
  type WhenThere,
} from '../demand/index.ts';
import { add, type Money, minus, type Quantity, worthOf, ZERO } from '../number/index.ts';
import { isRefusal } from '../refusal/index.ts';
import type { Content } from './contents.ts';
import { type LineProgress, openPart } from './line.ts';

/** A line as it is typed, with what would leave for it. */
export interface AheadLine {
  readonly quantity: Quantity;
  /** Its own day; null: the order's. */
  readonly wantedOn: string | null;
  /** What has left already or was given up. */
  readonly gone: Pick<LineProgress, 'shipped' | 'dropped'>;
  /** What stands in a parcel for it, by part. */
  readonly packed: readonly Quantity[];
  readonly outputQuantity: Quantity;
  /** Empty where it cannot be ordered. */
  readonly parts: readonly Content[];
}

/** Whose lines they are, and when it is its turn. */
export interface AheadOrder {
  readonly source: Source;
  readonly wantedOn: string | null;
  /** The day by which it gives way to others; null where it takes its own turn. */
  readonly turnOn: string | null;
  /** Whether anything of it has been picked. */
  readonly begun: boolean;
  /** The moment it was promised, as a turn has it; after all others while it is not. */
  readonly age: number;
}

/** What a part of a line would get. */
export interface PartAhead {
  readonly itemId: number;
  /** What shelves do not have for it. */
  readonly missing: Quantity;
  readonly completeOn: WhenThere;
}

export interface LineAhead {
  readonly completeOn: WhenThere;
  /** By the part's place in the line; parts that need nothing more are left out. */
  readonly parts: ReadonlyMap<number, PartAhead>;
  /** By today's averages; null where it is more than can be counted, or nothing leaves. */
  readonly plannedCost: Money | null;
}

/** Whose day an order moves. */
export interface Delay {
  readonly source: Source;
  readonly before: WhenThere;
  readonly after: WhenThere;
  /** The last day by which any of it is wanted. */
  readonly turnOn: WhenThere;
}

/** What is needed of an item to look ahead. */
export interface AheadItem {
  readonly decimals: number;
  readonly averageCost: Money;
}

/** More than a line ever has of parts: a demand carries the place of its line and its part in one number. */
const PARTS_OF_A_LINE = 1000;

/**
 * What an order that is being typed would get, line by line, and which other orders and builds would be whole on another
 * day because of it. What it asked for before, where it was saved, is left aside.
 */
export function lookAhead(
  order: AheadOrder,
  lines: readonly AheadLine[],
  items: ReadonlyMap<number, AheadItem>,
  picture: Picture,
): { readonly lines: readonly LineAhead[]; readonly delays: readonly Delay[] } {
  const key = sourceKey(order.source);
  const others = picture.demands.filter(({ source }) => sourceKey(source) !== key);
  const wanted = lines.flatMap((line, index) => demandsOf(order, index, line, items));
  const after = peg({ ...picture, demands: [...others, ...wanted] }).pegged;
  const looks = lines.map((line): { parts: Map<number, PartAhead>; plannedCost: Money | null } => ({
    parts: new Map(),
    plannedCost: costOf(line, items),
  }));
  for (const { demand, now, completeOn } of after) {
    if (sourceKey(demand.source) !== key) continue;
    const at = demand.lineId ?? 0;
    const part = { itemId: demand.itemId, missing: minus(demand.quantity, now), completeOn };
    looks[Math.trunc(at / PARTS_OF_A_LINE)]?.parts.set(at % PARTS_OF_A_LINE, part);
  }
  return {
    lines: looks.map((look) => ({
      ...look,
      completeOn: latest([...look.parts.values()].map((part) => part.completeOn)),
    })),
    delays: delaysOf(peg(picture).pegged, after, key, picture.calendar.today),
  };
}

const needOf = ({ basis, amount, waste }: Content, decimals: number) => ({ basis, quantity: amount, waste, decimals });

/** Nothing where an amount is more than can be counted: it is refused when it is saved. */
function unlessTooLarge<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (isRefusal(error, 'too-large')) return null;
    throw error;
  }
}

function demandsOf(
  { source, begun, turnOn, wantedOn: day, age }: AheadOrder,
  index: number,
  { parts, quantity, gone, packed, wantedOn, outputQuantity }: AheadLine,
  items: ReadonlyMap<number, AheadItem>,
): Demand[] {
  const turn: Turn = { begun, priority: null, wantedOn: turnOf(wantedOn ?? day, turnOn), age };
  return parts.flatMap((part, at) => {
    const decimals = items.get(part.itemId)?.decimals ?? 0;
    const line = { quantity, shipped: gone.shipped, dropped: gone.dropped };
    const needed =
      unlessTooLarge(() => openPart('confirmed', needOf(part, decimals), line, outputQuantity, packed[at] ?? ZERO)) ??
      ZERO;
    const lineId = index * PARTS_OF_A_LINE + at;
    return needed === 0
      ? []
      : { source, lineId, itemId: part.itemId, quantity: needed, decimals, turn, stores: null, alternates: [] };
  });
}

/** The day by which somebody is served who gives way until another one; null after everybody who has a day. */
function turnOf(wantedOn: string | null, turnOn: string | null): string | null {
  if (turnOn === null) return wantedOn;
  if (turnOn >= '9999') return null;
  return wantedOn !== null && wantedOn > turnOn ? wantedOn : turnOn;
}

function costOf({ parts, quantity, outputQuantity }: AheadLine, items: ReadonlyMap<number, AheadItem>): Money | null {
  if (parts.length === 0) return null;
  return unlessTooLarge(() =>
    add(
      ZERO,
      ...parts.map((part) => {
        const { decimals, averageCost } = items.get(part.itemId) ?? { decimals: 0, averageCost: ZERO };
        return worthOf(required(needOf(part, decimals), quantity, outputQuantity), averageCost);
      }),
    ),
  );
}

interface Whole {
  readonly source: Source;
  readonly completeOn: WhenThere;
  readonly turnOn: WhenThere;
}

/** When each is whole, and the last day by which any of it is wanted. */
function wholeBySource(pegging: readonly Pegged[], today: string): Map<string, Whole> {
  const known = new Map<string, Whole>();
  for (const { demand, completeOn: goodsOn } of pegging) {
    const completeOn = arrivesOn(goodsOn, demand.transport ?? 0, today);
    const key = sourceKey(demand.source);
    const before = known.get(key);
    const { wantedOn } = demand.turn;
    known.set(key, {
      source: demand.source,
      completeOn: before ? latest([before.completeOn, completeOn]) : completeOn,
      turnOn: before ? latest([before.turnOn, wantedOn]) : wantedOn,
    });
  }
  return known;
}

/** Orders and builds whose day moves. */
function delaysOf(before: readonly Pegged[], after: readonly Pegged[], own: string, today: string): Delay[] {
  const was = wholeBySource(before, today);
  return [...wholeBySource(after, today)].flatMap(([key, { source, completeOn, turnOn }]): Delay[] => {
    const old = was.get(key)?.completeOn;
    const isNamed = source.kind === 'order' || source.kind === 'build';
    if (!isNamed || key === own || old === undefined || old === completeOn) return [];
    return [{ source, before: old, after: completeOn, turnOn }];
  });
}
