import type { apartRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { readApartPlan, takeUnitsApart } from './apart.ts';

export const apartHandlers: HandlersOf<typeof apartRoutes> = {
  apartPlan: ({ db, params, query }) => readApartPlan(db, params.id, query),
  takeApart: (command) => takeUnitsApart(command, command.body),
};
