import type { coverageRoutes } from '@yosegi/contract';
import { dayOf } from '../command/clock.ts';
import type { HandlersOf } from '../command/doing.ts';
import { readSnapshot } from './sql.ts';

export const coverageHandlers: HandlersOf<typeof coverageRoutes> = {
  snapshot: ({ db, now }) => readSnapshot(db, dayOf(now)),
};
