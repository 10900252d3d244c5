import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import type { LedgerFeature, PostedDocument } from '../ledger/index.ts';
import { laterRevaluation, setStandardsBack } from './sql.ts';

export const stockLedger: LedgerFeature = {
  refuseUndo: refuseRevalued,
  undone: { revaluation: ({ tx }, { id }) => setStandardsBack(tx, id) },
};

/**
 * What a revaluation has made worth something else is not taken out or changed at its old worth: undone is the revaluation
 * first. What only moves goods, or took them out before, does not mind.
 */
async function refuseRevalued(db: Reader, { id, movements }: PostedDocument): Promise<void> {
  const sums = new Map<number, number>();
  for (const { itemId, quantity } of movements) sums.set(itemId, (sums.get(itemId) ?? 0) + quantity);
  const touched = movements.filter(({ itemId, quantity }) => quantity === 0 || (sums.get(itemId) ?? 0) > 0);
  const later = await laterRevaluation(
    db,
    id,
    touched.map(({ itemId }) => itemId),
  );
  if (later) throw new Refusal('undo-later-first', { number: later.number });
}
