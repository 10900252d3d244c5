import type { buildRoutes } from '@yosegi/contract';
import type { Reader } from '../db/database.ts';
import { dayOf, type HandlersOf } from '../http/context.ts';
import { containing, page } from '../http/pages.ts';
import { cancelBuild, pickParts, startBuild } from './bench.ts';
import { finishBuild } from './finish.ts';
import { planBuilds, updateBuild } from './plan.ts';
import { BUILD_SQL, type BuildRecord, readBuild, readShares, toBuildRows } from './store.ts';

export const buildHandlers: HandlersOf<typeof buildRoutes> = {
  builds: ({ db, query, now }) => listBuilds(db, query, dayOf(now)),
  build: ({ db, params, now }) => readBuild(db, params.id, dayOf(now)),
  planBuilds: async (command) => ({ builds: await planBuilds(command, command.body.builds, command.body.seen) }),
  updateBuild: (command) => updateBuild(command, command.params.id, command.body),
  startBuild: (command) => startBuild(command, command.params.id, command.body),
  cancelBuild: (command) => cancelBuild(command, command.params.id, command.body.version),
  pick: (command) => pickParts(command, command.params.id, command.body),
  finish: (command) => finishBuild(command, command.params.id, command.body),
};

interface BuildQuery {
  readonly state: 'open' | 'planned' | 'on-bench' | 'finished' | 'cancelled';
  readonly q?: string | undefined;
  readonly cursor?: string | undefined;
  readonly limit: number;
}

/** Open builds by due day, the ones without a day last; ended ones with the newest first. */
async function listBuilds(db: Reader, query: BuildQuery, today: string) {
  const ended = query.state === 'finished' || query.state === 'cancelled';
  const states = query.state === 'open' ? ['planned', 'on-bench'] : [query.state];
  const [due, id] = (query.cursor ?? '').split('|');
  const after = ended
    ? 'b.id < $3 AND $4 = $4'
    : "(ifnull(b.due, '9999') > $4 OR (ifnull(b.due, '9999') = $4 AND b.id > $3))";
  const records = await db.all<BuildRecord>(
    `${BUILD_SQL} WHERE b.state IN (SELECT value FROM json_each($1))
       AND (b.number LIKE $2 ESCAPE '\\' OR i.name LIKE $2 ESCAPE '\\' OR i.code LIKE $2 ESCAPE '\\') AND ${after}
     ORDER BY ${ended ? 'b.id DESC' : "ifnull(b.due, '9999'), b.id"} LIMIT $5`,
    [
      JSON.stringify(states),
      containing(query.q ?? ''),
      id === undefined ? (ended ? Number.MAX_SAFE_INTEGER : 0) : Number(id),
      due ?? '',
      query.limit + 1,
    ],
  );
  const shown = page(records, query.limit, (row) => `${row.due ?? '9999'}|${row.id}`);
  return { rows: await toBuildRows(db, shown.rows, await readShares(db, today), today), next: shown.next };
}
