import { negated } from '@yosegi/core/number';
import type { Doing } from '../command/doing.ts';
import type { LedgerFeature, PostedDocument } from '../ledger/index.ts';
import { addShipped, keepOpen } from './sql.ts';

export const orderLedger: LedgerFeature = { undone: { shipment: takeBack } };

/** What an undone shipment had sent is open on its order again. */
async function takeBack(doing: Doing, document: PostedDocument): Promise<void> {
  const { tx } = doing;
  const id = document.for?.id ?? 0;
  const lines = await tx.models.shipment_line.findAll({ where: { document_id: document.id } });
  const parts = new Map<number, number>();
  for (const { lineId, quantity } of document.movements)
    if (lineId !== null) parts.set(lineId, (parts.get(lineId) ?? 0) + quantity);
  await addShipped(tx, new Map(lines.map((line) => [line.line_id, negated(line.quantity)])), parts);
  await tx.models.sales_order.increment('version', { where: { id } });
  await keepOpen(tx, id);
  doing.changed('orders', 'builds');
}
