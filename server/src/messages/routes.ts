import type { messageRoutes } from '@yosegi/contract';
import { type HandlersOf, Prepared, signedIn } from '../command/doing.ts';
import { readInThread, type WorkThreads } from '../exchange/index.ts';
import { readShop, shopSends } from './shop.ts';
import { takeOrderMessage } from './take.ts';

export const messageHandlers = (threads: WorkThreads): HandlersOf<typeof messageRoutes> => ({
  takeOrderMessage: new Prepared(async ({ body: { content }, person }) => {
    const message = await readInThread(threads, signedIn(person).id, content);
    return (command) => takeOrderMessage(command, content, message);
  }),
  shop: ({ db }) => readShop(db),
  shopSends: (command) => shopSends(command, command.body),
});
