import type { apartRoutes, stockRoutes, worthRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../http/context.ts';
import { readApartPlan, takeUnitsApart } from '../takeapart/service.ts';
import { adjust, createReason, listReasons } from './adjust.ts';
import { listDocuments, listMovements, readDocument } from './documents.ts';
import { stockPlaces } from './places.ts';
import { listPutRight, settle } from './putright.ts';
import { receive } from './receive.ts';
import { byBin, standingOf } from './standing.ts';
import { stockOn, stockValue } from './then.ts';
import { transfer } from './transfer.ts';
import { undoDocument } from './undo.ts';
import { postPrices, receiptPrices, revalue } from './worth.ts';

export const stockHandlers: HandlersOf<typeof stockRoutes & typeof worthRoutes & typeof apartRoutes> = {
  itemBins: async ({ db, params }) => byBin(await standingOf(db, [params.id])),
  movements: ({ db, query }) => listMovements(db, query),
  stockPlaces: ({ db, query }) => stockPlaces(db, query),
  stockOn: ({ db, query }) => stockOn(db, query),
  stockValue: ({ db, query }) => stockValue(db, query.itemId),
  documents: ({ db, query }) => listDocuments(db, query),
  document: ({ db, params }) => readDocument(db, params.id),
  undoDocument: (command) => undoDocument(command, command.params.id, command.body.remark),
  reasons: ({ db }) => listReasons(db),
  createReason: (command) => createReason(command, command.body),
  transfer: (command) => transfer(command, command.body),
  adjust: (command) => adjust(command, command.body),
  receive: (command) => receive(command, command.body),
  receiptPrices: ({ db, params }) => receiptPrices(db, params.id),
  postPrices: (command) => postPrices(command, command.params.id, command.body),
  revalue: (command) => revalue(command, command.body),
  putRight: ({ db }) => listPutRight(db),
  settle: (command) => settle(command, command.params.id, command.body),
  apartPlan: ({ db, params, query }) => readApartPlan(db, params.id, query),
  takeApart: (command) => takeUnitsApart(command, command.body),
};
