import { dayOfNumber, workedOff } from '../days/index.ts';
import { type Compiled, type Making, NOW, sortByUse, UNKNOWN } from './compile.ts';
import type { Demand, Supply, WhenThere } from './demand.ts';

/** Who is served by what, as numbers; each demand and supply stands at its place in what was compiled. */
export interface Plan {
  readonly of: Compiled;
  /** What each demand has from shelves, and what nothing brings; the rest is on its way. */
  readonly now: Float64Array;
  readonly short: Float64Array;
  /** When each demand has everything; {@link UNKNOWN} where it never does, or nobody knows. */
  readonly when: Int32Array;
  /** When each supply is there, and what is left of it. */
  readonly day: Int32Array;
  readonly left: Float64Array;
  /** When each build is done, by its place. */
  readonly doneOn: Int32Array;
}

/** Told of everything that is given: the places of who gets it and of what it is of, and how much. */
export type Give = (line: number, supply: number, quantity: number) => void;

/**
 * Says which supply serves which demand: demands in their turn, each from what is kept for it alone, then from shelves,
 * then by the day it comes. What a build makes comes when its last part is there and its bench time is over; of builds
 * that need what they make in the end, as far as it can be said without each other.
 */
export function plan(of: Compiled): Plan {
  const { demands, makings } = of;
  const run: Plan = {
    of,
    now: new Float64Array(demands.length),
    short: new Float64Array(demands.length),
    when: new Int32Array(demands.length),
    day: of.day.slice(),
    left: of.have.slice(),
    doneOn: new Int32Array(makings.length).fill(-1),
  };
  for (const item of of.order.bought) serve(run, item);
  for (const { items, isRound } of of.order.made) {
    for (const item of items) dateStock(run, item, isRound ? items : []);
    for (const item of items) serve(run, item);
    if (!isRound) continue;
    // Once more, with the days that the first look gave to what is made of its own kind.
    for (const item of items) fill(run, item);
    for (const item of items) dateStock(run, item, []);
    for (const item of items) serve(run, item);
  }
  return run;
}

/** When something is there as people read it: '' now, an ISO day, null where nobody knows. */
export const whenOf = (day: number): WhenThere => (day === NOW ? '' : day === UNKNOWN ? null : dayOfNumber(day));

const stockOf = ({ stock, supplyStart }: Compiled, item: number) =>
  stock.subarray(supplyStart[item] ?? 0, supplyStart[item + 1] ?? 0);

const needsAny = ({ makings, demands, indexOf }: Compiled, making: number, group: readonly number[]) =>
  makings[making]?.lines.some((line) => group.includes(indexOf.get(demands[line]?.itemId ?? 0) ?? -1)) ?? false;

/** Gives what is made of an item its day; what needs one of `without` stays unknown for now. */
function dateStock(run: Plan, item: number, without: readonly number[]): void {
  const { of, day } = run;
  const to = of.supplyStart[item + 1] ?? 0;
  for (let at = of.supplyStart[item] ?? 0; at < to; at += 1) {
    const supply = of.stock[at] as number;
    const making = of.madeBy[supply] as number;
    if (making < 0) continue;
    const waits = without.length > 0 && needsAny(of, making, without);
    day[supply] = waits ? UNKNOWN : doneOn(run, making);
  }
  sortByUse(of, day, item);
}

/** When a build is done; told once its parts are served. */
function doneOn(run: Plan, making: number): number {
  const known = run.doneOn[making] ?? -1;
  if (known >= 0) return known;
  const { lines, bench } = run.of.makings[making] as Making;
  let last = NOW;
  for (const line of lines) {
    const on = run.when[line] as number;
    if (on > last) last = on;
  }
  const { today, calendar } = run.of;
  const done = last === UNKNOWN ? UNKNOWN : workedOff(Math.max(last, today), bench, calendar.workDays);
  run.doneOn[making] = done;
  return done;
}

/** Goes through everything that a plan gives. */
export function eachGift(run: Plan, give: Give): void {
  // What each item gives follows from the days alone, so it is walked again instead of kept.
  const again = { ...run, left: run.of.have.slice() };
  for (let item = 0; item < run.of.indexOf.size; item += 1) serve(again, item, give);
}

/** Puts back what was taken of an item. */
function fill({ of, left }: Plan, item: number): void {
  for (const supply of stockOf(of, item)) left[supply] = of.have[supply] ?? 0;
}

function serve(run: Plan, item: number, give?: Give): void {
  if (run.of.isChoosy[item] === 1) serveChoosy(run, item, give);
  else serveInTurn(run, item, give);
}

/** Where anything serves anybody, one walk over demands and supplies does. */
function serveInTurn(run: Plan, item: number, give: Give | undefined): void {
  const { of, now, short, when, day, left } = run;
  const { lineStart, supplyStart, stock, need } = of;
  const [to, end] = [lineStart[item + 1] ?? 0, supplyStart[item + 1] ?? 0];
  let at = supplyStart[item] ?? 0;
  for (let line = lineStart[item] ?? 0; line < to; line += 1) {
    let open = need[line] as number;
    let shelf = 0;
    let last = NOW;
    while (open > 0 && at < end) {
      const supply = stock[at] as number;
      const there = left[supply] as number;
      const taken = Math.min(open, there);
      const on = day[supply] as number;
      if (on === NOW) shelf += taken;
      if (on > last) last = on;
      open -= taken;
      left[supply] = there - taken;
      if (give) give(line, supply, taken);
      if (taken === there) at += 1;
    }
    now[line] = shelf;
    short[line] = open;
    when[line] = open > 0 ? UNKNOWN : last;
  }
}

function serveChoosy(run: Plan, item: number, give: Give | undefined): void {
  const { of, left, day } = run;
  const own = stockOf(of, item);
  let first = 0;
  const to = of.lineStart[item + 1] ?? 0;
  for (let line = of.lineStart[item] ?? 0; line < to; line += 1) {
    const demand = of.demands[line] as Demand;
    let [open, shelf, last] = [of.need[line] as number, 0, NOW];
    for (let at = first; at < own.length && open > 0; at += 1) {
      const supply = own[at] as number;
      const there = left[supply] as number;
      if (there === 0 || !mayServe(of.supplies[supply] as Supply, demand)) continue;
      const taken = Math.min(open, there);
      const on = day[supply] as number;
      if (on === NOW) shelf += taken;
      last = Math.max(last, on);
      open -= taken;
      left[supply] = there - taken;
      if (give) give(line, supply, taken);
    }
    // What is used up is passed over once and for all.
    while (first < own.length && left[own[first] as number] === 0) first += 1;
    run.now[line] = shelf;
    run.short[line] = open;
    run.when[line] = open > 0 ? UNKNOWN : last;
  }
}

/** Nothing that a source makes serves that source itself, and what is kept for one serves that one only. */
export function mayServe({ from, only, storeId }: Supply, { source, stores }: Demand): boolean {
  if (only !== null && (only.kind !== source.kind || only.id !== source.id)) return false;
  if (from.kind === 'build' && source.kind === 'build' && from.id === source.id) return false;
  return stores === null || storeId === null || stores.has(storeId);
}
