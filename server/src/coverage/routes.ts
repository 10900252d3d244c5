import type { coverageRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { readChanges } from './changes.ts';
import { readPegs } from './pegs.ts';
import { setPriorities } from './priorities.ts';
import { forgetQuestion, keepQuestion } from './questions.ts';
import { coverItems, coverQuestions, coverSources, fillings, priorities } from './sql.ts';

export const coverageHandlers: HandlersOf<typeof coverageRoutes> = {
  snapshot: ({ db, query, now }) => readChanges(db, dayOf(now), query.since),
  coverItems: ({ db, query, now }) => coverItems(db, query.ids, dayOf(now)),
  coverSources: ({ db, query }) => coverSources(db, query),
  pegs: ({ db, params, now }) => readPegs(db, params.kind, params.id, dayOf(now)),
  fillings: ({ db }) => fillings(db),
  priorities: ({ db }) => priorities(db),
  setPriorities: (command) => setPriorities(command, command.body),
  coverQuestions: ({ db }) => coverQuestions(db),
  keepQuestion: (command) => keepQuestion(command, command.body),
  forgetQuestion: (command) => forgetQuestion(command, command.params.id),
};
