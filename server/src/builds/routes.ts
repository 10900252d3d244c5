import type { boardRoutes, buildRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { moveOnBoard, readBoard } from './board.ts';
import { cancelBuild } from './cancel.ts';
import { finishBuild } from './finish.ts';
import { correctDefinition, readLastUses } from './last-uses.ts';
import { moveBuilds } from './move.ts';
import { refuseRepair } from './of-repair.ts';
import { planBuilds, updateBuild } from './plan.ts';
import { readScanned } from './scanned.sql.ts';
import { allowSpare } from './spare.ts';
import { listBuilds, readBuild } from './sql.ts';
import { startBuild } from './start.ts';

export const buildHandlers: HandlersOf<typeof boardRoutes & typeof buildRoutes> = {
  scanned: ({ db, query }) => readScanned(db, query.code),
  board: ({ db, now }) => readBoard(db, dayOf(now)),
  moveOnBoard: (command) => moveOnBoard(command, command.body),
  builds: ({ db, query, now }) => listBuilds(db, query, dayOf(now)),
  build: ({ db, params, now }) => readBuild(db, params.id, dayOf(now)),
  planBuilds: async (command) => ({ builds: await planBuilds(command, command.body.builds, command.body.seen) }),
  updateBuild: (command) => updateBuild(command, command.params.id, command.body),
  allowSpare: (command) => allowSpare(command, command.params.id, command.body),
  startBuild: (command) => startBuild(command, command.params.id, command.body),
  cancelBuild: async (command) => {
    await refuseRepair(command.tx, command.params.id);
    return cancelBuild(command, command.params.id, command.body.version);
  },
  moveBuilds: async (command) => ({ builds: await moveBuilds(command, command.params.id, command.body.buildIds) }),
  lastUses: ({ db, params }) => readLastUses(db, params.id),
  correctDefinition: (command) => correctDefinition(command, command.params.id),
  finish: (command) => finishBuild(command, command.params.id, command.body),
};
