import type { pickRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { addPart, takeBack } from './extras.ts';
import { pickParts } from './pick.ts';

export const pickHandlers: HandlersOf<typeof pickRoutes> = {
  addPart: (command) => addPart(command, command.params.id, command.body),
  takeBack: (command) => takeBack(command, command.params.id, command.body),
  pick: (command) => pickParts(command, command.params.id, command.body),
};
