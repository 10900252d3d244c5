import type { ledgerRoutes } from '@yosegi/contract';
import type { HandlersOf } from '../command/doing.ts';
import { listDocuments, listMovements, readDocument } from './documents.ts';
import type { LedgerFeature } from './features.ts';
import { undoDocument } from './undo.ts';

/** @param features everything that posts documents */
export const ledgerHandlers = (features: readonly LedgerFeature[]): HandlersOf<typeof ledgerRoutes> => ({
  movements: ({ db, query }) => listMovements(db, query),
  documents: ({ db, query }) => listDocuments(db, query, features),
  document: ({ db, params }) => readDocument(db, params.id, features),
  undoDocument: (command) => undoDocument(command, command.params.id, command.body.remark, features),
});
