import type { apartRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { readApartPlan } from './apart.ts';
import { apartFrees, containing } from './frees.ts';
import { takeUnitsApart } from './take.ts';

export const apartHandlers: HandlersOf<typeof apartRoutes> = {
  apartPlan: ({ db, params, query }) => readApartPlan(db, params.id, query),
  apartFrees: ({ db, body, now }) => apartFrees(db, body, dayOf(now)),
  containing: ({ db, query }) => containing(db, query.partIds),
  takeApart: (command) => takeUnitsApart(command, command.body),
};
