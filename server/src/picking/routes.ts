import type { pickRoutes, runRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { swapPart } from '../orders/index.ts';
import { changeRun, claimStop, endRun, makeRun, notThere, pickOnRun } from './deeds.ts';
import { addPart, takeBack } from './extras.ts';
import { pickParts } from './pick.ts';
import { listRuns, readPlan } from './plan.ts';
import { readRun } from './run.ts';
import { standIn } from './stand-in.ts';

export const pickHandlers: HandlersOf<typeof pickRoutes & typeof runRoutes> = {
  addPart: (command) => addPart(command, command.params.id, command.body),
  standIn: (command) => standIn(command, command.params.id, command.body),
  swapPart: (command) => swapPart(command, command.params.id, command.body),
  takeBack: (command) => takeBack(command, command.params.id, command.body),
  pick: (command) => pickParts(command, command.params.id, command.body),
  pickPlan: ({ db, now }) => readPlan(db, now),
  pickRuns: ({ db, query, now }) => listRuns(db, query, now),
  pickRun: ({ db, params, now }) => readRun(db, params.id, now),
  makeRun: (command) => makeRun(command, command.body),
  changeRun: (command) => changeRun(command, command.params.id, command.body),
  endRun: (command) => endRun(command, command.params.id, command.body.version),
  claimStop: (command) => claimStop(command, command.params.id, command.body.stop),
  pickOnRun: (command) => pickOnRun(command, command.params.id, command.body),
  notThere: (command) => notThere(command, command.params.id, command.body),
};
