import type { pickRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { pickParts } from './pick.ts';

export const pickHandlers: HandlersOf<typeof pickRoutes> = {
  pick: (command) => pickParts(command, command.params.id, command.body),
};
