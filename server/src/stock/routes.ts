import type { stockRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { balancesOf, byBin } from '../ledger/index.ts';
import { adjust, createReason, listReasons } from './adjust.ts';
import { stockPlaces } from './places.sql.ts';
import { listPutRight, settle } from './putright.ts';
import { revalue } from './revalue.ts';
import { stockOn, stockValue } from './then.sql.ts';
import { transfer } from './transfer.ts';

export const stockHandlers: HandlersOf<typeof stockRoutes> = {
  itemBins: async ({ db, params }) => byBin(await balancesOf(db, [params.id])),
  stockPlaces: ({ db, query }) => stockPlaces(db, query),
  stockOn: ({ db, query }) => stockOn(db, query),
  stockValue: ({ db, query }) => stockValue(db, query.itemId),
  reasons: ({ db }) => listReasons(db),
  createReason: (command) => createReason(command, command.body),
  transfer: (command) => transfer(command, command.body),
  adjust: (command) => adjust(command, command.body),
  revalue: (command) => revalue(command, command.body),
  putRight: ({ db }) => listPutRight(db),
  settle: (command) => settle(command, command.params.id, command.body),
};
