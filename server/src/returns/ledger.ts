import { Refusal } from '@yosegi/core/refusal';
import type { Doing } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import type { LedgerFeature, PostedDocument } from '../ledger/index.ts';
import { cameAgain, customersOf, returnOfShipment } from './sql.ts';

export const returnLedger: LedgerFeature = {
  refuseUndo,
  undone: { return: notHere, 'return-settled': backFromBench },
  parties: async (db, documentIds) => new Map((await customersOf(db, documentIds)).map(({ id, name }) => [id, name])),
};

/** What comes back cannot have not left, nor have stayed where it went back to. @throws Refusal `comes-back`, `came-again` */
async function refuseUndo(db: Reader, document: PostedDocument): Promise<void> {
  if (document.kind === 'return-settled') {
    const again = await cameAgain(db, document.id);
    if (again) throw new Refusal('came-again', { number: again.number });
  }
  if (document.kind !== 'shipment') return;
  const later = await returnOfShipment(db, document.id);
  if (later) throw new Refusal('comes-back', { number: later.number, isHere: later.is_here === 1 });
}

/** What was taken in by mistake is announced again. */
async function notHere(doing: Doing, document: PostedDocument): Promise<void> {
  const away = { document_id: null, arrived_at: null };
  await doing.tx.models.goods_return.update(away, { where: { id: document.for?.id ?? 0 } });
  doing.changed('orders', 'stock');
}

/** A unit that was to be refreshed waits again, and its bench has none. */
async function backFromBench(doing: Doing, document: PostedDocument): Promise<void> {
  const rows = await doing.tx.models.return_outcome.findAll({ where: { document_id: document.id, outcome: 'rework' } });
  for (const { build_id, quantity } of rows) {
    const moved = document.movements.find(({ holder }) => holder?.kind === 'build' && holder.id === build_id);
    if (moved?.lineId == null) continue;
    await doing.tx.models.build_line.decrement('on_bench', { by: quantity, where: { id: moved.lineId } });
    await doing.tx.models.build_line.increment('open', { by: quantity, where: { id: moved.lineId } });
  }
  doing.changed('orders', 'stock', 'builds');
}
