import { type Compiled, type Demand, NOW, type Source, sourceKey } from '../demand/index.ts';
import { type Contest, dueOf, linesOf, startBy, supplyOf } from './contest.ts';

/** Σ factor × answer ≤ most, all whole numbers. */
export interface Row {
  readonly columns: readonly number[];
  readonly factors: readonly number[];
  readonly most: number;
}

/** A choice of yes or no in each column: the most worth that the rows allow. */
export interface Program {
  readonly worth: readonly number[];
  readonly rows: readonly Row[];
  /** For each of those who compete the column of whether they keep their turn; -1 where that is looked at afterwards. */
  readonly keeps: readonly number[];
}

/** Somebody having everything by certain days: an order by those it is due, a build by one at which its parts are there. */
interface Goal {
  readonly source: Source;
  readonly by: (line: number) => number;
  /** The column of reaching it in its turn; and after everybody else, where that could be. */
  readonly column: number;
  readonly last: number | null;
}

/**
 * Who keeps their turn and who waits until everybody else has theirs, so that the orders that have everything in time are
 * worth the most. Exact: what it allows is what serving in turn would do, builds in between included.
 * @param worthOf a whole number, not below zero
 */
export function programOf(contest: Contest, worthOf: (order: Source) => number): Program {
  return new Writing(contest, worthOf).program();
}

class Writing {
  private readonly of: Compiled;
  private readonly worth: number[] = [];
  private readonly rows: Row[] = [];
  /** By who competes, the column of keeping their turn. */
  private readonly keeps = new Map<string, number>();
  private readonly goals: Goal[] = [];
  /** By the place of a build and the day its parts are there, the columns either of which says so. */
  private readonly done = new Map<string, readonly number[]>();
  private readonly linesBy = new Map<string, Map<number, number[]>>();
  private readonly kept = new Map<number, Map<string, number>>();
  /** Of each line, what is not kept for it alone, and what its source has used by then of what is. */
  private readonly open: Float64Array;
  private readonly keptUsed: Float64Array;
  private readonly isPlain: boolean;
  private readonly rivals: ReadonlySet<string>;

  constructor(
    private readonly contest: Contest,
    private readonly worthOf: (order: Source) => number,
  ) {
    this.of = contest.plan.of;
    this.open = this.of.need.slice();
    this.keptUsed = new Float64Array(this.open.length);
    this.rivals = new Set(contest.rivals.map(sourceKey));
    for (const item of contest.items) this.readItem(item);
    this.isPlain = this.canBePlain();
  }

  program(): Program {
    const { contest } = this;
    const { rivals } = this;
    if (!this.isPlain) for (const key of rivals) this.keeps.set(key, this.column(0));
    for (const order of contest.orders) {
      const key = sourceKey(order);
      const isRival = rivals.has(key);
      const column = this.column(this.worthOf(order));
      const last = isRival && !this.isPlain ? this.column(this.worthOf(order)) : null;
      if (isRival && this.isPlain) this.keeps.set(key, column);
      const by = (line: number) => dueOf(this.of.demands[line] as Demand, this.of.today);
      this.addGoal({ source: order, by, column, last });
    }
    for (const [making, days] of contest.starts) {
      const source: Source = { kind: 'build', id: this.of.makings[making]?.id ?? 0 };
      for (const day of [...days].sort((a, b) => a - b)) {
        const column = this.column(0);
        const last = rivals.has(sourceKey(source)) && !this.isPlain ? this.column(0) : null;
        this.done.set(`${making}:${day}`, last === null ? [column] : [column, last]);
        this.addGoal({ source, by: () => day, column, last });
      }
    }
    // What is in time for everybody in their turn may be too late for those who wait.
    if (!this.isPlain) for (const item of this.elsewhere()) this.readItem(item);
    for (const item of contest.items) this.necessary(item);
    for (const goal of this.goals) this.reach(goal);
    return {
      worth: this.worth,
      rows: this.rows,
      keeps: contest.rivals.map((source) => this.keeps.get(sourceKey(source)) ?? -1),
    };
  }

  private column(worth: number): number {
    return this.worth.push(worth) - 1;
  }

  /** Keeping a turn allows reaching a goal in it, waiting allows reaching it last. */
  private addGoal(goal: Goal): void {
    this.goals.push(goal);
    const keeps = this.keeps.get(sourceKey(goal.source));
    if (keeps === undefined || goal.last === null) return;
    this.row([[goal.column, 1], [keeps, -1]], 0); // biome-ignore format: a row
    this.row([[goal.last, 1], [keeps, 1]], 1); // biome-ignore format: a row
  }

  private readItem(item: number): void {
    const kept = new Map<string, number>();
    for (const supply of supplyOf(this.of, item)) {
      const only = this.of.supplies[supply]?.only;
      if (only) kept.set(sourceKey(only), (kept.get(sourceKey(only)) ?? 0) + (this.of.have[supply] ?? 0));
    }
    this.kept.set(item, kept);
    const used = new Map<string, number>();
    for (const line of linesOf(this.of, item)) {
      const key = this.keyOf(line);
      const own = this.linesBy.get(key) ?? new Map<number, number[]>();
      this.linesBy.set(key, own.set(item, [...(own.get(item) ?? []), line]));
      const before = used.get(key) ?? 0;
      const taken = Math.min(this.of.need[line] ?? 0, (kept.get(key) ?? 0) - before);
      this.open[line] = (this.of.need[line] ?? 0) - taken;
      this.keptUsed[line] = before + taken;
      used.set(key, before + taken);
    }
  }

  private readonly keyOf = (line: number) => sourceKey((this.of.demands[line] as Demand).source);

  /**
   * Where nothing is built in between and everybody who can wait is served by the day they are due, it is enough that all
   * who are in time by a day share what is there by then, and nobody who is not in time need be looked at.
   */
  private canBePlain(): boolean {
    const { contest, of } = this;
    if (contest.starts.size > 0) return false;
    for (const item of contest.items) {
      let last = NOW;
      for (const line of linesOf(of, item)) {
        const demand = of.demands[line] as Demand;
        const isFixed = !this.canWait(line);
        if (demand.source.kind === 'reorder') continue;
        if (isFixed) {
          if (last > NOW || this.rivals.has(this.keyOf(line))) return false;
          continue;
        }
        if (demand.source.kind !== 'order') continue;
        const due = dueOf(demand, of.today);
        if (due < last) return false;
        last = due;
      }
    }
    return true;
  }

  private canWait(line: number): boolean {
    return this.rivals.has(this.keyOf(line)) && !(this.of.demands[line] as Demand).turn.begun;
  }

  /** All who are in time by a day share what is there by then, whatever the turns: keeps the search short. */
  private necessary(item: number): void {
    const uses = this.goals.flatMap((goal) =>
      (this.linesBy.get(sourceKey(goal.source))?.get(item) ?? [])
        .filter((line) => !(this.of.demands[line] as Demand).turn.begun)
        .map((line) => ({ goal, line, by: goal.by(line) })),
    );
    // What is on a bench is served before them.
    let begun = 0;
    for (const line of linesOf(this.of, item)) {
      const { source, turn } = this.of.demands[line] as Demand;
      const isFixed = this.isPlain && source.kind !== 'reorder' && !this.canWait(line);
      if (turn.begun || source.kind === 'owed' || isFixed) begun += this.open[line] ?? 0;
    }
    for (const day of new Set(uses.map(({ by }) => by))) {
      const terms: [number, number][] = [];
      // Of the days by which a build may have its parts the last counts: having them sooner is having them then.
      const latest = new Map<string, number>();
      for (const { goal, line, by } of uses) {
        if (by > day) continue;
        const key = `${sourceKey(goal.source)}:${line}`;
        latest.set(key, Math.max(latest.get(key) ?? 0, by));
      }
      for (const { goal, line, by } of uses) {
        if (by > day || latest.get(`${sourceKey(goal.source)}:${line}`) !== by) continue;
        for (const column of [goal.column, goal.last]) if (column !== null) terms.push([column, this.open[line] ?? 0]);
      }
      const { there, made } = this.supplyBy(item, day, null);
      this.row([...terms, ...made], Math.max(0, there - begun));
    }
  }

  /** What of an item is there by a day: for anybody, or what is kept for one; what builds make of it by column. */
  private supplyBy(item: number, day: number, key: string | null) {
    let there = 0;
    const made: [number, number][] = [];
    const { of, contest } = this;
    for (const supply of supplyOf(of, item)) {
      const only = of.supplies[supply]?.only ?? null;
      if ((only ? sourceKey(only) : null) !== key) continue;
      const have = of.have[supply] ?? 0;
      const making = of.madeBy[supply] as number;
      const columns = making < 0 ? undefined : this.done.get(`${making}:${startBy(of, making, day)}`);
      if (columns) for (const column of columns) made.push([column, -have]);
      else if (!contest.starts.has(making) && (contest.plan.day[supply] as number) <= day) there += have;
    }
    return { there, made };
  }

  /** A goal is reached where what is left by its day for each of its lines is enough, in its turn or after all others. */
  private reach(goal: Goal): void {
    const key = sourceKey(goal.source);
    for (const [item, lines] of this.linesBy.get(key) ?? [])
      for (const line of lines) {
        const by = goal.by(line);
        const used = this.keptUsed[line] ?? 0;
        for (const column of [goal.column, goal.last]) {
          if (column === null || (column === goal.column && !this.contest.items.has(item))) continue;
          if (used > 0) {
            const { there, made } = this.supplyBy(item, by, key);
            this.row([[column, used], ...made], there);
          }
          if ((this.open[line] ?? 0) === 0 || (this.isPlain && this.canWait(line))) continue;
          const { there, made } = this.supplyBy(item, by, null);
          const taken = this.takenBefore(item, line, key, column === goal.last);
          this.rowIf(column, [...taken.terms, ...made], there - taken.always);
        }
      }
  }

  /** Items that those who compete need, and that are not looked at else. */
  private elsewhere(): number[] {
    const isNew = (item: number) => !this.contest.items.has(item);
    const hasRival = (item: number) => [...linesOf(this.of, item)].some((line) => this.rivals.has(this.keyOf(line)));
    return [...this.of.itemIds.keys()].filter((item) => isNew(item) && hasRival(item));
  }

  /** What is taken of an item until a line has its own. */
  private takenBefore(item: number, line: number, key: string, isLast: boolean) {
    let always = 0;
    const terms: [number, number][] = [];
    const { begun } = (this.of.demands[line] as Demand).turn;
    for (const other of linesOf(this.of, item)) {
      const need = this.open[other] ?? 0;
      const { source, turn } = this.of.demands[other] as Demand;
      if (source.kind === 'reorder' || need === 0) continue;
      // What is on a bench is served before what is not, whoever waits.
      if (turn.begun !== begun) {
        if (turn.begun) always += need;
        continue;
      }
      const own = sourceKey(source);
      const keeps = own === key ? undefined : this.keeps.get(own);
      const isBefore = other <= line;
      // By then those who keep their turn have theirs, and of those who wait those before it.
      if (isLast && own !== key) {
        if (keeps === undefined || isBefore) always += need;
        else terms.push([keeps, need]);
      } else if (isBefore) {
        if (keeps === undefined) always += need;
        else terms.push([keeps, need]);
      }
    }
    return { always, terms };
  }

  /** Holds only where a column says yes. */
  private rowIf(column: number, terms: readonly (readonly [number, number])[], most: number): void {
    const reach = terms.reduce((sum, [, factor]) => sum + Math.max(0, factor), 0);
    const slack = reach - most;
    if (slack <= 0) return;
    // Even at best there is too little.
    const least = terms.reduce((sum, [, factor]) => sum + Math.min(0, factor), 0);
    if (least > most) this.row([[column, 1]], 0);
    else this.row([...terms, [column, slack]], most + slack);
  }

  private row(terms: readonly (readonly [number, number])[], most: number): void {
    const byColumn = new Map<number, number>();
    for (const [column, factor] of terms) byColumn.set(column, (byColumn.get(column) ?? 0) + factor);
    const used = [...byColumn].filter(([, factor]) => factor !== 0);
    if (used.reduce((sum, [, factor]) => sum + Math.max(0, factor), 0) <= most) return;
    // Small numbers make a solver exact.
    const common = used.reduce((so, [, factor]) => gcd(so, Math.abs(factor)), 0);
    this.rows.push({
      columns: used.map(([column]) => column),
      factors: used.map(([, factor]) => factor / common),
      most: Math.floor(most / common),
    });
  }
}

function gcd(a: number, b: number): number {
  let [one, other] = [a, b];
  while (other > 0) [one, other] = [other, one % other];
  return one;
}
