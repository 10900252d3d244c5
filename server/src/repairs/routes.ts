import type { repairRoutes } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import type { HandlersOf } from '../command/doing.ts';
import { agreeRepair, changeRepair, declineRepair, estimateRepair, giveBack, takeRepairBack } from './deeds.ts';
import { listRepairs, readRepair } from './read.ts';
import { takeIn } from './take-in.ts';

export const repairHandlers: HandlersOf<typeof repairRoutes> = {
  repairs: ({ db, query, now }) => listRepairs(db, query, dayOf(now)),
  repair: ({ db, params, now }) => readRepair(db, params.id, dayOf(now)),
  takeIn: (command) => takeIn(command, command.body),
  changeRepair: (command) => changeRepair(command, command.params.id, command.body),
  estimateRepair: (command) => estimateRepair(command, command.params.id, command.body),
  agreeRepair: (command) => agreeRepair(command, command.params.id, command.body),
  declineRepair: (command) => declineRepair(command, command.params.id, command.body),
  giveBack: (command) => giveBack(command, command.params.id, command.body),
  takeRepairBack: (command) => takeRepairBack(command, command.params.id, command.body),
};
