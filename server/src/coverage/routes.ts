import type { coverageRoutes } from '@yosegi/contract';
import { dayOf, type HandlersOf } from '../http/context.ts';
import { readSnapshot } from './snapshot.ts';

export const coverageHandlers: HandlersOf<typeof coverageRoutes> = {
  snapshot: ({ db, now }) => readSnapshot(db, dayOf(now)),
};
