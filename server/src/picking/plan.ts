import type { GoalRow, RunRow } from '@yosegi/contract';
import { groupBy } from '@yosegi/core/lists';
import {
  type Goal,
  goalKey,
  type OnShelf,
  runsOf,
  type Stop,
  stopsOf,
  type Wanted,
  walked,
} from '@yosegi/core/picking';
import type { QueryOf } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { page } from '../db/pages.ts';
import { type NamedGoal, namedGoals } from './goals.ts';
import { endedRuns, goalsOf, openRuns, type RunRecord, shelvesFor, walkedOf, wantedFor } from './runs.sql.ts';

/** The most runs that are proposed. */
const MOST_PROPOSED = 30;

/** Runs that are walked, runs worth walking now, and everything that can be picked for. */
export async function readPlan(db: Reader, now: Date) {
  const wanted = await wantedFor(db);
  const { shelves } = await shelvesFor(db, [...new Set(wanted.map(({ itemId }) => itemId))], null);
  const { stops, missing } = stopsOf(wanted, shelves);
  const runs = await openRuns(db);
  const own = await goalsOf(
    db,
    runs.map(({ id }) => id),
  );
  const served = new Set(own.map(({ kind, source_id }) => goalKey({ kind, id: source_id })));
  const goals = [...new Map(wanted.map(({ goal }) => [goalKey(goal), goal])).values()];
  const all = [...goals, ...own.map(({ kind, source_id }) => ({ kind, id: source_id }))];
  const named = await namedGoals(db, all, now);
  const stores = new Map((await db.models.store.findAll()).map(({ id, name }) => [id, name]));
  const lacking = new Set(missing.map(({ goal }) => goalKey(goal)));
  const proposed = runsOf(stops, wanted, (goal) => !served.has(goalKey(goal)));
  return {
    runs: await toRunRows(db, runs, named, (run) => stopsOfRun(run, own, wanted, shelves).length),
    proposed: proposed
      .slice(0, MOST_PROPOSED)
      .map((run) => ({ ...run, goals: [...run.goals], store: stores.get(run.storeId) ?? '' })),
    goals: goalRows(goals, wanted, stops, named, lacking),
  };
}

function goalRows(
  goals: readonly Goal[],
  wanted: readonly Wanted[],
  stops: readonly Stop[],
  named: ReadonlyMap<string, NamedGoal>,
  lacking: ReadonlySet<string>,
): GoalRow[] {
  const lines = groupBy(wanted, ({ goal }) => goalKey(goal));
  const there = new Map<string, { lines: Set<number>; stores: Set<number> }>();
  for (const stop of stops)
    for (const { goal, lineId } of stop.lines) {
      const known = there.get(goalKey(goal)) ?? { lines: new Set(), stores: new Set() };
      there.set(goalKey(goal), known);
      known.lines.add(lineId);
      known.stores.add(stop.storeId);
    }
  return goals.flatMap((goal) => {
    const key = goalKey(goal);
    const known = named.get(key);
    const brings = there.get(key);
    if (!known || !brings) return [];
    const { number, name, tile, due, late } = known;
    return {
      ...goal,
      number,
      name,
      tile,
      due,
      late,
      lines: lines.get(key)?.length ?? 0,
      there: brings.lines.size,
      whole: !lacking.has(key),
      storeIds: [...brings.stores],
    };
  });
}

/** The stops of one run of those whose wants and shelves are all known. */
function stopsOfRun(
  run: RunRecord,
  goals: Awaited<ReturnType<typeof goalsOf>>,
  wanted: readonly Wanted[],
  shelves: readonly OnShelf[],
): readonly Stop[] {
  const own = new Set(
    goals.filter(({ run_id }) => run_id === run.id).map(({ kind, source_id }) => goalKey({ kind, id: source_id })),
  );
  return stopsOf(
    wanted.filter(({ goal }) => own.has(goalKey(goal))),
    run.store_id === null ? shelves : shelves.filter(({ storeId }) => storeId === run.store_id),
  ).stops;
}

async function toRunRows(
  db: Reader,
  runs: readonly RunRecord[],
  named: ReadonlyMap<string, NamedGoal>,
  stopsLeft: (run: RunRecord) => number,
): Promise<RunRow[]> {
  const ids = runs.map(({ id }) => id);
  const goals = groupBy(await goalsOf(db, ids), ({ run_id }) => run_id);
  const picks = await walkedOf(db, ids);
  return runs.map((run) => ({
    id: run.id,
    number: run.number,
    store: run.store,
    madeAt: run.made_at,
    madeBy: run.person,
    endedAt: run.ended_at,
    goals: (goals.get(run.id) ?? []).map(({ kind, source_id: id }) => {
      const { number = '', name = '' } = named.get(goalKey({ kind, id })) ?? {};
      return { kind, id, number, name };
    }),
    stops: stopsLeft(run),
    walked: walked(picks.get(run.id) ?? []),
    version: run.version,
  }));
}

/** Runs that have ended, with what was walked. */
export async function listRuns(db: Reader, query: QueryOf<'pickRuns'>, now: Date) {
  const before = query.cursor ? Number(query.cursor) : Number.MAX_SAFE_INTEGER;
  const { rows, next } = page(await endedRuns(db, before, query.limit), query.limit, ({ id }) => id);
  const goals = await goalsOf(
    db,
    rows.map(({ id }) => id),
  );
  const named = await namedGoals(
    db,
    goals.map(({ kind, source_id }) => ({ kind, id: source_id })),
    now,
  );
  return { rows: await toRunRows(db, rows, named, () => 0), next };
}
