import type { placeRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { createBin, createStore, updateStore } from './service.ts';
import { listStores } from './sql.ts';

export const placeHandlers: HandlersOf<typeof placeRoutes> = {
  stores: ({ db }) => listStores(db),
  createStore: (command) => createStore(command, command.body),
  updateStore: (command) => updateStore(command, command.params.id, command.body),
  createBin: (command) => createBin(command, command.params.id, command.body),
};
