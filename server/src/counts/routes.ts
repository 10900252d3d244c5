import type { countRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { addCountLine, approveCount, beginCount, cancelCount, countCost, countLine } from './service.ts';
import { listCounts, readCount } from './sql.ts';
import { listWishes } from './wishes.sql.ts';
import { settleWish } from './wishes.ts';

export const countHandlers: HandlersOf<typeof countRoutes> = {
  counts: ({ db }) => listCounts(db),
  countWishes: ({ db }) => listWishes(db),
  settleWish: (command) => settleWish(command, command.params.id),
  count: ({ db, params }) => readCount(db, params.id),
  beginCount: (command) => beginCount(command, command.body),
  countLine: (command) => countLine(command, command.params.id, command.body),
  countCost: (command) => countCost(command, command.params.id, command.body.unitCost),
  addCountLine: (command) => addCountLine(command, command.params.id, command.body),
  approveCount: (command) => approveCount(command, command.params.id, command.body.version),
  cancelCount: (command) => cancelCount(command, command.params.id, command.body.version),
};
