import type { PurchaseOrder, StockDocument } from '@yosegi/contract';
import { overOfLine } from '@yosegi/core/buying';
import type { Quantity } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { Writer } from '../db/database.ts';
import { decimal, positiveQuantity } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { receive } from '../stock/receive.ts';
import type { NamedIn } from '../stock/tracked.ts';
import { keepOpen, requireState } from './orders.ts';
import { orderedOf, orderLines, orderRecord } from './store.ts';

interface ReceiveOrderInput {
  readonly deliveryNote: string;
  readonly remark: string;
  readonly mailId: number | null;
  readonly acceptOver: boolean;
  readonly lines: readonly (NamedIn & {
    lineId: number;
    binId: number;
    quantity: string;
    unitCost: string;
    closeRest: boolean;
  })[];
}

/**
 * Receives some or all of an order, in one document. A line may come in several pieces: other bins, other lots.
 * @throws Refusal `over-delivery` unless more was accepted, `wrong-state`, `unknown-line`, `delivery-received`
 */
export async function receiveOrder(
  doing: Doing,
  id: number,
  input: ReceiveOrderInput,
): Promise<{ order: PurchaseOrder; document: StockDocument }> {
  const { tx } = doing;
  const order = await orderRecord(tx, id);
  requireState(order, ['sent', 'confirmed']);
  await refuseReceived(tx, id, input.mailId);
  const known = new Map((await orderLines(tx, [id])).map((line) => [line.id, line]));
  const coming = new Map<number, number>();
  const lines = input.lines.map((own, index) => {
    const line = known.get(own.lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    const quantity = positiveQuantity(own.quantity, line.decimals, `lines.${index}.quantity`);
    const sum = (coming.get(line.id) ?? 0) + quantity;
    coming.set(line.id, sum);
    const over = overOfLine(orderedOf(line), sum as Quantity);
    if (over > 0 && !input.acceptOver)
      throw new Refusal(
        'over-delivery',
        { name: line.name, over: decimal(over), unit: line.unit },
        `lines.${index}.quantity`,
      );
    const { lot, serials, bestBefore, binId, unitCost } = own;
    return {
      itemId: line.item_id,
      binId,
      quantity: own.quantity,
      unitCost,
      lot,
      serials,
      bestBefore,
      orderLineId: line.id,
    };
  });
  const { deliveryNote, remark } = input;
  const source = { supplierId: order.supplier_id, orderId: id, deliveryNote };
  const document = await receive(doing, { kind: 'receipt', remark, lines }, source);
  const closed = input.lines.filter((line) => line.closeRest).map((line) => line.lineId);
  await tx.run(
    `UPDATE purchase_order_line SET received = received + (v.value ->> 1) FROM json_each($1) v WHERE purchase_order_line.id = v.value ->> 0`,
    [JSON.stringify([...coming])],
  );
  await tx.run('UPDATE purchase_order_line SET closed = 1 WHERE id IN (SELECT value FROM json_each($1))', [
    JSON.stringify(closed),
  ]);
  await tx.run('UPDATE purchase_order SET version = version + 1 WHERE id = $1', [id]);
  if (input.mailId !== null)
    await tx.run('UPDATE mail SET document_id = $1 WHERE id = $2', [document.id, input.mailId]);
  return { order: await keepOpen(doing, id), document };
}

async function refuseReceived(tx: Writer, orderId: number, mailId: number | null): Promise<void> {
  if (mailId === null) return;
  const mail = await tx.one<{ number: string | null }>(
    `SELECT d.number FROM mail m LEFT JOIN document d ON d.id = m.document_id
     WHERE m.id = $1 AND m.order_id = $2 AND m.kind = 'despatch-advice'`,
    [mailId, orderId],
  );
  if (!mail) throw new Refusal('unknown-choice', {}, 'mailId');
  if (mail.number !== null) throw new Refusal('delivery-received', { number: mail.number });
}

/** Takes what an undone receipt had brought off its order again; what it closed is open once more. */
export async function takeOffOrder(doing: Doing, documentId: number): Promise<void> {
  const { tx } = doing;
  const receipt = await tx.one<{ order_id: number | null }>('SELECT order_id FROM receipt WHERE document_id = $1', [
    documentId,
  ]);
  if (!receipt || receipt.order_id === null) return;
  await tx.run(
    `UPDATE purchase_order_line SET received = received - r.quantity, closed = 0 FROM (
       SELECT order_line_id, sum(quantity) AS quantity FROM receipt_line WHERE document_id = $1 GROUP BY order_line_id) r
     WHERE purchase_order_line.id = r.order_line_id`,
    [documentId],
  );
  await tx.run('UPDATE mail SET document_id = NULL WHERE document_id = $1', [documentId]);
  await tx.run('UPDATE purchase_order SET version = version + 1 WHERE id = $1', [receipt.order_id]);
  await keepOpen(doing, receipt.order_id);
}
