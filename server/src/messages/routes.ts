import type { messageRoutes } from '@yosegi/contract';
import { dayOf } from '../command/clock.ts';
import type { HandlersOf } from '../command/doing.ts';
import { readShop, shopSends } from './shop.ts';
import { takeOrderMessage } from './take.ts';

export const messageHandlers: HandlersOf<typeof messageRoutes> = {
  takeOrderMessage: (command) => takeOrderMessage(command, command.body.content),
  shop: ({ db, now }) => readShop(db, dayOf(now)),
  shopSends: (command) => shopSends(command, command.body),
};
