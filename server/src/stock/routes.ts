import type { stockRoutes } from '@yosegi/contract';
import { decimal } from '../http/amounts.ts';
import type { HandlersOf } from '../http/context.ts';
import { readApartPlan, takeUnitsApart } from '../takeapart/service.ts';
import { adjust, createReason, listReasons } from './adjust.ts';
import { listDocuments, listMovements, readDocument } from './documents.ts';
import { receive } from './receive.ts';
import { stockOn, stockValue } from './then.ts';
import { transfer } from './transfer.ts';
import { undoDocument } from './undo.ts';

export const stockHandlers: HandlersOf<typeof stockRoutes> = {
  async itemBins({ db, params }) {
    const rows = await db.all<{
      binId: number;
      bin: string;
      store: string;
      kind: 'shelf' | 'bench';
      build: string | null;
      quantity: number;
    }>(
      `SELECT n.id AS binId, n.code AS bin, s.name AS store, n.kind, u.number AS build, sum(b.quantity) AS quantity
       FROM balance b JOIN bin n ON n.id = b.bin_id JOIN store s ON s.id = n.store_id LEFT JOIN build u ON u.id = b.build_id
       WHERE b.item_id = $1 GROUP BY b.bin_id, b.build_id HAVING sum(b.quantity) <> 0 ORDER BY s.id, n.walk_order, n.code`,
      [params.id],
    );
    return rows.map((row) => ({ ...row, quantity: decimal(row.quantity) }));
  },
  movements: ({ db, query }) => listMovements(db, query),
  stockOn: ({ db, query }) => stockOn(db, query),
  stockValue: ({ db, query }) => stockValue(db, query.itemId),
  documents: ({ db, query }) => listDocuments(db, query),
  document: ({ db, params }) => readDocument(db, params.id),
  undoDocument: (command) => undoDocument(command, command.params.id, command.body.remark),
  reasons: ({ db }) => listReasons(db),
  createReason: (command) => createReason(command, command.body.name),
  transfer: (command) => transfer(command, command.body),
  adjust: (command) => adjust(command, command.body),
  receive: (command) => receive(command, command.body),
  apartPlan: ({ db, params }) => readApartPlan(db, params.id),
  takeApart: (command) => takeUnitsApart(command, command.body),
};
