import type { DocumentKind, StockDocument } from '@yosegi/contract';
import type { Movement } from '@yosegi/core/ledger';
import type { Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { Subject } from './posting.ts';

/** A posted document, as far as undoing it needs it. */
export interface PostedDocument {
  readonly id: number;
  readonly number: string;
  readonly kind: DocumentKind;
  readonly for: Subject | null;
  readonly movements: readonly Movement[];
}

/** What a feature adds to the documents it posts. The ledger asks every feature and knows none. */
export interface LedgerFeature {
  /** Whether something has to be undone before a document can be. @throws Refusal `undo-later-first` */
  refuseUndo?(db: Reader, document: PostedDocument): Promise<void>;
  /**
   * Whether a document that was posted because of one that is undone now need not be: what it brought has been taken back by
   * others since. What is left of it the feature takes back itself.
   */
  lapsed?(doing: Doing, document: PostedDocument): Promise<boolean>;
  /** What undoing brings about beside stock, by kind of document. */
  readonly undone?: Readonly<Partial<Record<DocumentKind, (doing: Doing, document: PostedDocument) => Promise<void>>>>;
  /** Who brought or got what these documents moved, by document. */
  parties?(db: Reader, documentIds: readonly number[]): Promise<ReadonlyMap<number, string>>;
  /** What it says of a document beside what moved. */
  describe?(db: Reader, documentId: number): Promise<Partial<StockDocument>>;
}
