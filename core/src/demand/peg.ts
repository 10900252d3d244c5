import { add, type Quantity } from '../number/index.ts';
import { coverByAlternates, type StandIn } from './alternates.ts';
import { byDay, byTurn, type Demand, latest, type Supply, type WhenThere } from './demand.ts';

/** Some of a supply that serves a demand. */
export interface Given {
  readonly supply: Supply;
  readonly quantity: Quantity;
}

/** What one demand is served by. */
export interface Pegged {
  readonly demand: Demand;
  /** What is kept for its source first, then in the order it comes. */
  readonly given: readonly Given[];
  /** Of it from shelves. */
  readonly now: Quantity;
  /** Of it on its way. */
  readonly coming: Quantity;
  /** What nothing brings. */
  readonly short: Quantity;
  /** The day it has everything; null when none is known, or not all of it comes. */
  readonly wholeOn: WhenThere;
  /**
   * What could stand in now for what is not on shelves, as far as nobody needs it itself, and counted once. Offered, never
   * part of the figures above.
   */
  readonly standIns: readonly StandIn[];
}

interface Left {
  readonly supply: Supply;
  left: number;
}

/**
 * Says which supply serves which demand: demands in their turn, each from what is kept for it
 * alone, then from shelves, then by the day it comes.
 * Nothing is given twice, and nothing that a source makes serves that source itself. What shelves below zero owe is served
 * before anybody.
 * @returns every demand in its turn, what is owed first
 */
export function peg(demands: readonly Demand[], supplies: readonly Supply[]): Pegged[] {
  const lefts = leftsByItem(supplies);
  const owed = supplies.filter(({ quantity }) => quantity < 0).map(owedTo);
  const served = [...owed, ...demands].sort(byTurn).map((demand) => serve(demand, lefts.get(demand.itemId) ?? []));
  return served.map((pegged) => withStandIns(pegged, lefts));
}

function leftsByItem(supplies: readonly Supply[]): Map<number, Left[]> {
  const lefts = new Map<number, Left[]>();
  for (const supply of supplies) {
    if (supply.quantity <= 0) continue;
    const left = { supply, left: supply.quantity as number };
    const known = lefts.get(supply.itemId);
    if (known) known.push(left);
    else lefts.set(supply.itemId, [left]);
  }
  for (const own of lefts.values()) if (own.length > 1) own.sort(byUse);
  return lefts;
}

/**
 * What is kept for somebody is used up by them first, so that the rest stays for others; then the first that comes. Of the
 * same day what a build makes goes before a purchase, since that build itself can only use the purchase; then the older.
 * Shelves stay as they were told, the item's own store first.
 */
const byUse = ({ supply: a }: Left, { supply: b }: Left) =>
  Number(a.only === null) - Number(b.only === null) ||
  byDay(a.on, b.on) ||
  fewness[a.from.kind] - fewness[b.from.kind] ||
  (a.from.kind === 'shelf' ? 0 : a.from.id - b.from.id);

const fewness = { shelf: 0, build: 1, purchase: 2 };

const owedTo = ({ itemId, quantity, from }: Supply): Demand => ({
  source: { kind: 'owed', id: from.id },
  lineId: null,
  itemId,
  quantity: -quantity as Quantity,
  decimals: 0,
  turn: { begun: true, priority: null, wantedOn: null, age: from.id },
  stores: null,
  alternates: [],
});

function serve(demand: Demand, lefts: Left[]): Pegged {
  const given: Given[] = [];
  let [now, coming, open] = [0, 0, demand.quantity as number];
  for (const one of lefts) {
    if (open === 0) break;
    if (one.left === 0 || !mayServe(one.supply, demand)) continue;
    const quantity = Math.min(open, one.left) as Quantity;
    one.left -= quantity;
    open -= quantity;
    if (one.supply.on === '') now += quantity;
    else coming += quantity;
    given.push({ supply: one.supply, quantity });
  }
  // What is used up is passed over once and for all.
  while (lefts[0]?.left === 0) lefts.shift();
  return {
    demand,
    given,
    now: now as Quantity,
    coming: coming as Quantity,
    short: open as Quantity,
    wholeOn: open > 0 ? null : latest(given.map(({ supply }) => supply.on)),
    standIns: [],
  };
}

function mayServe({ from, only, storeId }: Supply, { source, stores }: Demand): boolean {
  if (only !== null && (only.kind !== source.kind || only.id !== source.id)) return false;
  if (from.kind === 'build' && source.kind === 'build' && from.id === source.id) return false;
  return stores === null || storeId === null || stores.has(storeId);
}

function withStandIns(pegged: Pegged, lefts: ReadonlyMap<number, Left[]>): Pegged {
  const { demand, now } = pegged;
  const missing = (demand.quantity - now) as Quantity;
  if (missing === 0 || demand.alternates.length === 0) return pegged;
  const there = (itemId: number) =>
    (lefts.get(itemId) ?? []).filter(
      ({ supply }) => supply.on === '' && supply.only === null && mayServe(supply, demand),
    );
  const free = (itemId: number) => add(0 as Quantity, ...there(itemId).map(({ left }) => left as Quantity));
  const { used } = coverByAlternates(demand.alternates, missing, demand.decimals, free);
  for (const { itemId, left } of used) takeDownTo(there(itemId), left);
  const standIns = used.filter(({ standsFor }) => standsFor > 0).map(({ left: _, ...standIn }) => standIn);
  return { ...pegged, standIns };
}

/** Takes from shelves until so much of them is left. */
function takeDownTo(lefts: readonly Left[], rest: Quantity): void {
  let taken = lefts.reduce((sum, { left }) => sum + left, 0) - rest;
  for (const one of lefts) {
    const part = Math.min(one.left, taken);
    one.left -= part;
    taken -= part;
  }
}
