import type { returnRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { returnFigures } from './figures.sql.ts';
import { findReturnable } from './find.sql.ts';
import { listReturns, readReturn, readWaiting } from './read.ts';
import { reworkReturn } from './rework.ts';
import { settleReturns } from './settle.ts';
import { announceReturn, arriveReturn, callOffReturn, creditReturn } from './take-in.ts';

export const returnHandlers: HandlersOf<typeof returnRoutes> = {
  returns: ({ db, query, now }) => listReturns(db, query, now),
  return: ({ db, params, now }) => readReturn(db, params.id, now),
  waitingReturns: ({ db, now }) => readWaiting(db, now),
  returnable: ({ db, query, now }) => findReturnable(db, query.q, now),
  returnFigures: ({ db, query }) => returnFigures(db, query),
  announceReturn: (command) => announceReturn(command, command.body),
  arriveReturn: (command) => arriveReturn(command, command.params.id, command.body),
  callOffReturn: (command) => callOffReturn(command, command.params.id, command.body),
  creditReturn: (command) => creditReturn(command, command.params.id, command.body),
  settleReturns: (command) => settleReturns(command, command.body),
  reworkReturn: (command) => reworkReturn(command, command.params.id, command.body),
};
